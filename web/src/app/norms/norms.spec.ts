import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import type { NormsView } from '@dial-gauge/contract';
import { DEFAULT_THRESHOLDS } from '@dial-gauge/core';
import { NormsPage } from './norms';
import { ThresholdsForm } from './thresholds';
import { until } from '../testing/until';

const summary = (id: string, own: boolean, motions = 20) => ({
  id,
  title: `Set ${id}`,
  short: id,
  year: 2000,
  where: 'table 1',
  cite: 'somebody',
  fromMemory: !own,
  values: 30,
  motions,
  own,
});
const VIEW: NormsView = {
  normSets: ['a', 'b', 'mine'],
  thresholds: { ...DEFAULT_THRESHOLDS, severityPercent: [10, 25, 50], severityTimes: [0.5, 1.5, 2.5] },
  sets: [summary('a', false), summary('b', false, 2), summary('mine', true)],
  ownSets: [],
  ownErrors: [],
  valueChecks: [],
  ranking: 'largest-first',
};

describe('NormsPage', () => {
  let http: HttpTestingController;
  let fixture: ComponentFixture<NormsPage>;
  const element = () => fixture.nativeElement as HTMLElement;
  const text = () => element().textContent!.replace(/\s+/g, ' ');
  const settle = async () => {
    await fixture.whenStable();
    fixture.detectChanges();
  };

  beforeEach(async () => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([])],
    });
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(NormsPage);
    fixture.detectChanges();
    http.expectOne('/api/norms').flush(VIEW);
    fixture.detectChanges();
    http.expectOne('/api/clinic').flush({ examSets: [], times: { first: {}, repeat: {}, turn: {} }, hand: { fist: 8.5, finger: 1.9 } });
    await settle();
  });
  afterEach(() => http.verify());

  it('calibrates fist and finger, and says what does not fit', async () => {
    const field = (label: string) =>
      [...element().querySelectorAll('dg-hand mat-form-field')].find((f) => f.textContent!.includes(label))!.querySelector('input')!;
    const save = async () => {
      element().querySelector<HTMLButtonElement>('dg-hand button')!.click();
      await settle();
    };
    field('Fist').value = '90';
    await save();
    expect(element().querySelector('dg-hand [role=status]')!.textContent).toContain('fist: is too large; allowed: 14 or less');
    field('Fist').value = '9,2';
    await save();
    const request = http.expectOne('/api/clinic/hand');
    expect(request.request.body).toEqual({ fist: 9.2, finger: 1.9 });
    request.flush({ examSets: [], times: { first: {}, repeat: {}, turn: {} }, hand: { fist: 9.2, finger: 1.9 } });
    await settle();
    expect(element().querySelector('dg-hand [role=status]')!.textContent).toContain('Saved');
  });

  it('lists the sets in their order, says what is from memory, and offers to remove only the clinic’s own', () => {
    expect([...element().querySelectorAll('ol strong')].map((h) => h.textContent)).toEqual(['Set a', 'Set b', 'Set mine']);
    expect(element().querySelectorAll('.memory').length).toBe(2);
    expect([...element().querySelectorAll('button')].filter((b) => b.textContent!.includes('Take out of use')).length).toBe(1);
  });

  it('changes the order by button and by key, says so, and keeps the line in the hand', async () => {
    element().querySelector<HTMLButtonElement>('[aria-label="Ask earlier: Set mine"]')!.click();
    const request = http.expectOne((r) => r.method === 'PUT');
    expect(request.request.body).toEqual({ normSets: ['a', 'mine', 'b'] });
    request.flush({ ...VIEW, normSets: ['a', 'mine', 'b'] });
    await settle();
    expect(text()).toContain('Set mine is asked in place 2 of 3');
    const handle = () => element().querySelector<HTMLButtonElement>('[data-set=mine]')!;
    handle().dispatchEvent(new KeyboardEvent('keydown', { key: 'Home', bubbles: true }));
    const first = http.expectOne((r) => r.method === 'PUT');
    expect(first.request.body).toEqual({ normSets: ['mine', 'a', 'b'] });
    first.flush({ ...VIEW, normSets: ['mine', 'a', 'b'] });
    await settle();
    expect(text()).toContain('Set mine is asked first');
    expect(document.activeElement).toBe(handle());
  });

  it('shows every refused cell of a file, and brings the list up to date when it is taken', async () => {
    const bring = async (content: string) => {
      const files = new DataTransfer();
      files.items.add(new File([content], 'mine.csv', { type: 'text/csv' }));
      const field = element().querySelector<HTMLInputElement>('input[type=file]')!;
      field.files = files.files;
      field.dispatchEvent(new Event('change'));
      // The browser reads the file in its own time.
      return until(() => http.match('/api/norm-sets')[0]);
    };
    (await bring('bad')).flush(
      {
        type: 'about:blank',
        title: 'x',
        status: 422,
        detail: 'Nothing was brought in: 2 lines are wrong.',
        errors: [
          { path: 'line 3, sd', message: 'is not a spread' },
          { path: 'line 4, motion', message: 'is not in the catalogue' },
        ],
      },
      { status: 422, statusText: 'x' },
    );
    await settle();
    expect([...element().querySelectorAll('.problem li')].map((li) => li.textContent!.trim().replace(/\s+/g, ' '))).toEqual([
      'line 3, sd is not a spread',
      'line 4, motion is not in the catalogue',
    ]);
    (await bring('good')).flush(summary('new', true));
    http.expectOne('/api/norms').flush(VIEW);
    await settle();
    expect(element().querySelector('.problem[role=alert] li')).toBeNull();
    expect(text()).toContain('mine.csv was brought in');
  });
});

/** Places of fields in the form. */
const [DEGREES, FORCE, MODERATE] = [0, 2, 7];

describe('ThresholdsForm', () => {
  const open = () => {
    const fixture = TestBed.createComponent(ThresholdsForm);
    fixture.componentRef.setInput('thresholds', DEFAULT_THRESHOLDS);
    const saved: unknown[] = [];
    fixture.componentInstance.save.subscribe((thresholds) => saved.push(thresholds));
    fixture.detectChanges();
    const element = fixture.nativeElement as HTMLElement;
    const type = (at: number, value: string) => {
      const field = element.querySelectorAll<HTMLInputElement>('input')[at]!;
      field.value = value;
      field.dispatchEvent(new Event('input'));
    };
    const submit = () => {
      element.querySelector('form')!.dispatchEvent(new Event('submit'));
      fixture.changeDetectorRef.markForCheck();
      fixture.detectChanges();
    };
    return { element, type, submit, saved };
  };

  it('shows shares as percentages and saves them as shares', () => {
    const { element, type, submit, saved } = open();
    const values = [...element.querySelectorAll<HTMLInputElement>('input')].map((f) => f.value);
    expect(values).toEqual(['10', '1.5', '10', '5', '10', '10', '10', '25', '50', '1', '2', '3']);
    type(FORCE, '15');
    submit();
    expect(saved).toEqual([jasmine.objectContaining({ sideDifference: { deg: 10, cm: 1.5, N: 0.15, s: 5 } })]);
  });

  it('names what is refused and keeps what was typed', () => {
    const { element, type, submit, saved } = open();
    type(DEGREES, '0');
    type(MODERATE, '60');
    submit();
    expect(saved).toEqual([]);
    const problems = [...element.querySelectorAll('.problem p')].map((p) => p.textContent);
    expect(problems).toEqual([
      'Short of the other side, from: Degrees: is too small; allowed: 1 or more',
      'How much a loss weighs, from: do not rise from step to step; allowed: three rising numbers from 1 to 99',
    ]);
    expect(element.querySelector<HTMLInputElement>('input')!.value).toBe('0');
  });
});
