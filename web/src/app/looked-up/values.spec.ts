import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import type { NewValueCheck, NormsView, ValueCheckView } from '@dial-gauge/contract';
import { DEFAULT_THRESHOLDS, ERRORS_OF, NORM_SETS, PUBLISHED_ERRORS, valuesOf, type PrintedValue } from '@dial-gauge/core';
import { SOME_ID } from '../testing/records';
import { countsOf } from './counts';
import { ValuesPage } from './values';

const VIEW: NormsView = {
  normSets: [],
  thresholds: { ...DEFAULT_THRESHOLDS, severityPercent: [10, 25, 50], severityTimes: [0.5, 1.5, 2.5] },
  sets: [],
  ownSets: [],
  ownErrors: [],
  valueChecks: [],
  ranking: 'largest-first',
};
const AAOS = valuesOf('norms', 'aaos-1965')!;
const standing = ({ kind, of, key, figures }: PrintedValue, over: Partial<ValueCheckView> = {}): ValueCheckView => ({
  id: SOME_ID,
  kind,
  of,
  key,
  held: figures,
  corrected: null,
  source: 'An invented handbook',
  edition: '',
  page: 'p. 4',
  by: 'Wren',
  on: '2026-12-02',
  ...over,
});

describe('ValuesPage', () => {
  let http: HttpTestingController;
  let fixture: ComponentFixture<ValuesPage>;
  const page = () => fixture.nativeElement as HTMLElement;
  const text = (selector = '.room') => page().querySelector(selector)!.textContent!.replace(/\s+/g, ' ').trim();
  const settle = async () => {
    await fixture.whenStable();
    fixture.detectChanges();
  };
  const click = async (name: string) => {
    [...page().querySelectorAll('button')]
      .find((button) => (button.getAttribute('aria-label') ?? button.textContent!).trim().startsWith(name))!
      .click();
    await settle();
  };
  const type = async (input: HTMLInputElement, value: string) => {
    input.value = value;
    input.dispatchEvent(new Event('input'));
    await settle();
  };
  const fields = () => [...page().querySelectorAll<HTMLInputElement>('.fields input')];
  const open = async (kind: string, of: string, valueChecks: ValueCheckView[] = []) => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([])],
    });
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(ValuesPage);
    fixture.componentRef.setInput('kind', kind);
    fixture.componentRef.setInput('of', of);
    document.body.append(page());
    fixture.detectChanges();
    http.expectOne('/api/norms').flush({ ...VIEW, valueChecks });
    await settle();
  };
  const answer = async (corrected: ValueCheckView['corrected'] = null): Promise<NewValueCheck> => {
    const request = http.expectOne('/api/value-checks');
    const [check] = (request.request.body as { checks: NewValueCheck[] }).checks;
    const value = valuesOf(check!.kind, check!.of)!.find(({ key }) => key === check!.key)!;
    request.flush({
      checks: check!.withdrawn ? [] : [standing(value, { id: check!.id, corrected, source: check!.source, page: check!.page })],
    });
    await settle();
    return check!;
  };
  afterEach(() => {
    page().remove();
    http.verify();
  });

  it('shows every value once, says once that they are from memory, and asks where it is looked up', async () => {
    await open('norms', 'aaos-1965');
    expect(page().querySelectorAll('.values > li').length).toBe(AAOS.length);
    expect(text('.sum')).toBe(
      `0 of ${AAOS.length} checked. The others are from memory: they are used, and nobody of the clinic has looked them up.`,
    );
    expect(text('.values')).not.toContain('memory');
    expect(fields()[0]!.value).toBe(NORM_SETS.find(({ id }) => id === 'aaos-1965')!.source.cite);
    await click('As printed');
    expect(text('dg-said [role=alert]')).toContain('Page or table is empty; allowed: where in the source it stands');
    http.expectNone('/api/value-checks');
  });

  it('ticks one as printed, and goes to the next', async () => {
    await open('norms', 'aaos-1965');
    await type(fields()[2]!, 'p. 41');
    await click('As printed');
    const sent = await answer();
    expect(sent).toEqual(
      jasmine.objectContaining({ kind: 'norms', of: 'aaos-1965', key: AAOS[0]!.key, follows: null, corrected: null, page: 'p. 41' }),
    );
    expect(text('.sum')).toContain(`1 of ${AAOS.length} checked.`);
    expect(text('.values > li')).toContain('p. 41 by Wren');
    expect(document.activeElement?.closest('li')?.getAttribute('data-key')).toBe(AAOS[1]!.key);
  });

  it('corrects one: what does not fit is named, and the old figure stays beside it', async () => {
    await open('norms', 'aaos-1965', [standing(AAOS[0]!)]);
    await type(fields()[2]!, 'p. 41');
    await click('Correct');
    const input = page().querySelector<HTMLInputElement>('[data-figure]')!;
    expect(document.activeElement).toBe(input);
    await type(input, 'x');
    await click('Keep what');
    expect(text('dg-said [role=alert]')).toContain('expected "x" is no number; allowed: as 12.5');
    await type(input, '9000');
    await click('Keep what');
    expect(text('dg-said [role=alert]')).toContain('does not fit; allowed:');
    const figure = AAOS[0]!.figures['expected']! - 5;
    await type(input, String(figure).replace('.', ','));
    await click('Keep what');
    const sent = await answer({ expected: figure });
    expect([sent.follows, sent.corrected]).toEqual([SOME_ID, { expected: figure }]);
    expect(text('.values > li .printed')).toContain(`expected ${figure}`);
    expect(text('.values > li .printed')).toContain(`the program has expected ${AAOS[0]!.figures['expected']}`);
    expect(page().querySelector('.correction')).toBeNull();
  });

  it('takes one back', async () => {
    await open('errors', ERRORS_OF, [standing(valuesOf('errors', ERRORS_OF)![0]!)]);
    expect(text('.sum')).toContain(`1 of ${PUBLISHED_ERRORS.length} checked.`);
    await click('Take back');
    const sent = await answer();
    expect([sent.withdrawn, sent.follows]).toEqual([true, SOME_ID]);
    expect(text('.sum')).toContain('0 of');
  });

  it('leaves what was typed where the server refuses', async () => {
    await open('procedure', 'meniscus-repair');
    await type(fields()[2]!, 'p. 7');
    await click('As printed');
    http
      .expectOne('/api/value-checks')
      .flush({ title: 'Looked up meanwhile', detail: 'Somebody else looked.' }, { status: 409, statusText: 'Conflict' });
    await settle();
    expect(text('dg-said [role=alert]')).toContain('Somebody else looked.');
    expect(fields()[2]!.value).toBe('p. 7');
    expect(text('.sum')).toContain('0 of');
  });

  it('says so where there is no such table', async () => {
    await open('norms', 'nothing');
    expect(text()).toContain('There is no such table');
  });
});

describe('counts of values looked up', () => {
  it('are told for each table', () => {
    const counts = countsOf([standing(AAOS[0]!), standing(AAOS[1]!, { held: { expected: -1 } })]);
    const { checked, all } = counts.get('norms aaos-1965')!;
    expect([checked, all]).toEqual([1, AAOS.length]);
    expect(counts.get(`errors ${ERRORS_OF}`)!.checked).toBe(0);
    expect(counts.has('procedure hip-replacement')).toBeFalse();
  });
});
