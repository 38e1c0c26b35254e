import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { VisitRecord } from '@dial-gauge/contract';
import { CommandQueue } from '../data/command-queue';
import { FakeQueue } from '../testing/fake-queue';
import { SOME_ID, storedMeasurement, visitRecord } from '../testing/records';
import { MeasurePage } from './measure';

describe('MeasurePage', () => {
  let fixture: ComponentFixture<MeasurePage>;
  let http: HttpTestingController;
  let queue: FakeQueue;
  const page = () => fixture.nativeElement as HTMLElement;
  const entry = () => page().querySelector<HTMLInputElement>('.entry input')!;
  const heading = () => page().querySelector('.motion')!.textContent!.replace(/\s+/g, ' ').trim();
  const text = (selector: string) => page().querySelector(selector)?.textContent?.replace(/\s+/g, ' ').trim() ?? '';

  const open = async (record: VisitRecord = visitRecord()) => {
    localStorage.clear();
    queue = new FakeQueue();
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([]), { provide: CommandQueue, useValue: queue }],
    });
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(MeasurePage);
    fixture.componentRef.setInput('id', SOME_ID);
    document.body.append(page());
    fixture.detectChanges();
    http.expectOne(`/api/visits/${SOME_ID}`).flush(record);
    await fixture.whenStable();
  };
  const press = async (key: string, over: KeyboardEventInit = {}) => {
    entry().dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...over }));
    await fixture.whenStable();
  };
  const type = async (value: string) => {
    entry().value = value;
    entry().dispatchEvent(new Event('input'));
    await fixture.whenStable();
  };
  afterEach(() => page().remove());

  it('has the entry ready under the hands', async () => {
    await open();
    expect(document.activeElement).toBe(entry());
    expect(heading()).toBe('left Hip flexion · active supine');
    expect(entry().getAttribute('aria-label')).toBe('Reading in degrees, left hip flexion, active');
  });

  it('moves the needle while digits are typed, and holds on Enter', async () => {
    await open();
    await type('104');
    expect(page().querySelector('dg-dial svg')!.getAttribute('aria-label')).toContain('needle at 104°');
    await press('Enter');
    expect((queue.next().body as { end: number }).end).toBe(104);
    await fixture.whenStable();
    expect(heading()).toBe('right Hip flexion · active supine');
    expect(entry().value).toBe('');
    expect(document.activeElement).toBe(entry());
    expect(text('.status')).toContain('1 reading saved');
  });

  it('keeps up with hands that do not wait for the page', async () => {
    await open();
    for (const reading of ['104', '98', '117']) {
      // As a keyboard does: what is there already, and one more digit.
      for (const digit of reading) {
        entry().value += digit;
        entry().dispatchEvent(new Event('input'));
      }
      entry().dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
    }
    await fixture.whenStable();
    expect(heading()).toBe('right Hip flexion · passive supine');
    expect(text('.status')).toContain('3 waiting to be saved');
  });

  it('takes a command for a command, but where it may belong to what is typed', async () => {
    await open(visitRecord({ sheet: [{ protocol: 'distance.kneeToWall/standing' }, { protocol: 'hip.flexion/standing' }] }));
    await type('10');
    await press('n');
    expect(heading()).withContext('10 in').toBe('left Knee to wall standing');
    await press('o');
    expect(heading()).toBe('right Knee to wall standing');
    expect(entry().value).toBe('');
    await press('l');
    expect(heading()).withContext('a side is text').toBe('right Knee to wall standing');
  });

  it('asks for the turn, holds nothing before it, and goes on with Enter', async () => {
    await open();
    page().querySelector<HTMLButtonElement>('button[aria-label^="left hip extension, active"]')!.click();
    await fixture.whenStable();
    expect(text('dg-turn h3')).toBe('Turn patient prone');
    expect(text('dg-turn .ends')).toContain('Before you turn: 12 to look at');
    expect(entry().getAttribute('aria-label')).toBe('Turn the patient, then press Enter');
    await press('4');
    expect(text('#reading-problem')).toContain('turn first');
    expect(queue.commands).toEqual([]);
    await press('Enter');
    expect(heading()).toBe('left Hip extension · active prone');
    expect(text('.beside dg-table-view p')).toBe('prone, seen from the foot of the table: their left is on your left');
    await press('v');
    expect(text('.beside dg-table-view p')).toContain('their left is on your right');
    localStorage.removeItem('dial-gauge.standpoint');
  });

  it('goes on to the next figure of a pair with Enter', async () => {
    await open(visitRecord({ sheet: [{ protocol: 'lumbar.flexion/standing' }] }));
    await type('86');
    await press('Enter');
    expect(entry().value).toBe('86/');
    expect(text('#reading-words')).toContain('now the lower end');
    await type('86/34');
    await press('Enter');
    expect(queue.commands[0]!.body as object).toEqual(jasmine.objectContaining({ end: 86, lower: { zero: 0, end: 34 } }));
  });

  it('measures nothing where the caution questions said to refer', async () => {
    const cautions = {
      asked: ['clot-leg'],
      yes: ['clot-leg'],
      note: '',
      outcome: 'refer' as const,
      by: 'Wren',
      at: '2026-11-20T09:00:00Z',
    };
    await open(visitRecord({ cautions }));
    expect(text('.refer h2')).toBe('This visit ended before measuring: refer');
    expect(page().querySelector('.entry')).toBeNull();
  });

  it('knows its keys', async () => {
    await open();
    const steps: [string, string][] = [
      ['o', 'right Hip flexion · active supine'],
      ['m', 'right Hip flexion · passive supine'],
      ['n', 'left Hip abduction · active supine'],
      ['ArrowDown', 'left Hip abduction · passive supine'],
      ['b', 'left Hip abduction · active supine'],
      ['ArrowUp', 'left Hip flexion · passive supine'],
    ];
    for (const [key, where] of steps) {
      await press(key);
      expect(heading()).withContext(key).toBe(where);
    }
    await press('p');
    expect(document.activeElement!.getAttribute('aria-label')).toBe('Pain, 0 to 10');
  });

  it('leaves the browser its own shortcuts, and Tab to the page', async () => {
    await open();
    for (const over of [{ altKey: true }, { metaKey: true }, { ctrlKey: true }]) await press('o', over);
    await press('Tab');
    expect(heading()).toBe('left Hip flexion · active supine');
  });

  it('says what is wrong beside what was typed', async () => {
    await open();
    await type('10/');
    await press('Enter');
    expect(entry().value).toBe('10/');
    expect(entry().getAttribute('aria-invalid')).toBe('true');
    expect(text('#reading-problem')).toContain('half a reading');
    await press('Escape');
    await type('9');
    expect(entry().getAttribute('aria-invalid')).toBeNull();
  });

  it('says a lack in words, and shows the trap of a rotation', async () => {
    await open();
    page().querySelector<HTMLButtonElement>('button[aria-label^="left hip extension, passive"]')!.click();
    await fixture.whenStable();
    await press('Enter');
    await type('-8');
    expect(text('#reading-words')).toBe('lacks 8° of straight · ± 6° measuring error · goniometer');
    page().querySelector<HTMLButtonElement>('button[aria-label^="right hip internal rotation, active"]')!.click();
    await fixture.whenStable();
    expect(text('.trap')).toContain('The foot swings outward: that is internal rotation');
  });

  it('counts down what is left before the turn, and marks what hurts', async () => {
    await open(visitRecord({ measurements: [storedMeasurement({ pain: 4 }, 100), storedMeasurement({ side: 'right' }, 90)] }));
    expect(text('dg-run-sheet caption')).toBe('supine10 left');
    const cell = page().querySelector('button[aria-label="left hip flexion, active: 100 degrees, hurts 4 of 10"]');
    expect(cell?.classList).toContain('hurts');
    expect(text('dg-run-sheet .turn')).toContain('Turn patient prone');
  });

  it('shows trials, their mean, and whether they agree', async () => {
    await open(visitRecord({ measurements: [storedMeasurement({}, 90, 110, 102)] }));
    page().querySelector<HTMLButtonElement>('button[aria-label^="left hip flexion, active"]')!.click();
    await fixture.whenStable();
    expect(text('dg-trials-strip .sum')).toMatch(/^not consistent\s*100\.7°$/);
  });

  it('tells why a visit cannot be opened', async () => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([])],
    });
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(MeasurePage);
    fixture.componentRef.setInput('id', SOME_ID);
    fixture.detectChanges();
    http.expectOne(`/api/visits/${SOME_ID}`).flush({ detail: 'There is no such visit in this clinic.' }, { status: 404, statusText: 'x' });
    await fixture.whenStable();
    expect(text('[role=alert]')).toBe('There is no such visit in this clinic.');
  });
});

describe('MeasurePage without an angle', () => {
  it('draws a straight scale, in the motion’s unit, with one cell for the midline', async () => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([]), { provide: CommandQueue, useValue: new FakeQueue() }],
    });
    const fixture = TestBed.createComponent(MeasurePage);
    fixture.componentRef.setInput('id', SOME_ID);
    fixture.detectChanges();
    const floor = storedMeasurement({ motion: 'distance.fingerToFloor', side: 'midline', position: 'standing', instrument: 'tape' }, 24.5);
    TestBed.inject(HttpTestingController)
      .expectOne(`/api/visits/${SOME_ID}`)
      .flush(
        visitRecord({ sheet: [{ protocol: 'distance.fingerToFloor/standing' }], measurements: [floor], normSets: ['common-practice'] }),
      );
    await fixture.whenStable();
    fixture.detectChanges();
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    expect(page.querySelector('dg-dial')).toBeNull();
    expect(page.querySelector('dg-arc-strip svg')!.getAttribute('aria-label')).toBe(
      'finger to floor; 24.5 cm above the floor; expected 0 cm to 0 cm.',
    );
    expect(page.querySelector('.entry input')!.getAttribute('aria-label')).toBe('Reading in centimetres, finger to floor');
    expect(page.querySelectorAll('tbody td').length).toBe(1);
    expect(page.querySelector('tbody button')!.getAttribute('aria-label')).toBe('finger to floor: 24.5 centimetres');
    expect(page.querySelector('.motion .side')).toBeNull();
  });
});
