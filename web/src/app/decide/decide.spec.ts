import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import type { JudgementView, ProgramsView } from '@dial-gauge/contract';
import { assess, type Measurement } from '@dial-gauge/core';
import { CommandQueue } from '../data/command-queue';
import type { CommandOf } from '../data/commands';
import { FakeQueue, refusal } from '../testing/fake-queue';
import { progressView, noScreens, SOME_ID, visitRecord } from '../testing/records';
import { until } from '../testing/until';
import { DecidePage } from './decide';

const { visit, patient, episode } = visitRecord();
const of = (side: 'left' | 'right', end: number): Measurement => ({
  motion: 'hip.flexion',
  side,
  mode: 'passive',
  position: 'supine',
  instrument: 'goniometer',
  trials: [{ end }],
});
const judgement = assess({
  person: { birthDate: patient.birthDate, sex: patient.sex },
  assessedOn: visit.assessedOn,
  measurements: [of('left', 80), of('right', 125)],
});
const judged: JudgementView = {
  visit,
  patient,
  episode,
  previousOn: null,
  aside: [],
  judgement,
  seen: { revision: 'r', at: '2026-11-20T09:00:00.000Z' },
  odd: [],
  summary: null,
  signing: { notYours: null, signatures: [], amending: null, changes: [], late: [] },
};
const programs = (over: Partial<ProgramsView> = {}): ProgramsView => ({
  own: [],
  visit,
  patient,
  episode,
  given: [],
  before: null,
  running: [],
  memory: [],
  ...over,
});
const given = (number: number, over: Partial<ProgramsView['given'][number]> = {}): ProgramsView['given'][number] => ({
  id: crypto.randomUUID(),
  visitId: SOME_ID,
  number,
  choices: { equipment: [], minutesADay: 10, painTolerated: 3, order: 'stages' },
  drills: [{ drill: 'hip-circle-small', side: 'left', dose: { sets: 1, reps: 10, seconds: null, timesADay: 2, daysAWeek: 7 }, words: '' }],
  recheckOn: '2027-01-04',
  note: '',
  by: 'Wren',
  at: '2026-11-20T09:00:00Z',
  ...over,
});

describe('DecidePage', () => {
  beforeEach(() => localStorage.clear());

  let fixture: ComponentFixture<DecidePage>;
  const queue = () => TestBed.inject(CommandQueue) as unknown as FakeQueue;
  const page = () => fixture.nativeElement as HTMLElement;
  const all = (selector: string) => [...page().querySelectorAll<HTMLElement>(selector)];
  const names = () => all('ol > li .name strong').map((e) => e.textContent!.trim());
  const text = (selector: string) => page().querySelector(selector)?.textContent?.replace(/\s+/g, ' ').trim() ?? '';
  const press = async (label: string) => {
    all('button')
      .find((b) => b.textContent!.trim().startsWith(label) || b.getAttribute('aria-label') === label)!
      .click();
    await fixture.whenStable();
  };
  const type = async (label: string, value: string) => {
    const input = all('input').find(
      (i) => i.getAttribute('aria-label') === label || i.closest('label')?.textContent?.trim().startsWith(label),
    ) as HTMLInputElement;
    input.value = value;
    input.dispatchEvent(new Event('change'));
    await fixture.whenStable();
  };
  const sent = () => (queue().commands as CommandOf<'giveProgram'>[]).map(({ body }) => body);
  const open = async (view = programs()) => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([]), { provide: CommandQueue, useValue: new FakeQueue() }],
    });
    const http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(DecidePage);
    fixture.componentRef.setInput('id', SOME_ID);
    fixture.detectChanges();
    http.expectOne(`/api/visits/${SOME_ID}/programs`).flush(view);
    http.expectOne(`/api/visits/${SOME_ID}/progress`).flush(progressView([]));
    http.expectOne(`/api/visits/${SOME_ID}/judgement`).flush(judged);
    http.expectOne(`/api/visits/${SOME_ID}/screens`).flush(noScreens());
    await until(() => page().querySelector('.program') !== null);
    await fixture.whenStable();
  };

  it('proposes at most five drills for what was found, within the minutes, and gives them as they stand', async () => {
    await open();
    expect(text('.needs')).toContain('Left hip flexion');
    const proposed = names();
    expect(proposed.length).toBeGreaterThan(1);
    expect(proposed.length).toBeLessThanOrEqual(5);
    expect(text('.bar')).toMatch(/^[\d.]+ of 15 min a day$/);
    await press('Give this programme');
    const [body] = sent();
    expect(body!.drills.length).toBe(proposed.length);
    expect(body).toEqual(jasmine.objectContaining({ note: '', choices: jasmine.objectContaining({ minutesADay: 15, order: 'stages' }) }));
    expect(text('.end button')).toBe('Give it as changed');
    expect((page().querySelector('.end button') as HTMLButtonElement).disabled).toBeTrue();
  });

  it('proposes anew for other minutes and equipment, until something was changed by hand', async () => {
    await open();
    await type('minutes a day', '0');
    expect(names()).toEqual([]);
    expect(text('.empty')).toContain('that is a decision too');
    await type('minutes a day', '15');
    const before = names();
    await press('Leave out ' + before[0]);
    expect(names()).toEqual(before.slice(1));
    await type('minutes a day', '0');
    expect(names()).withContext('left as it was put together').toEqual(before.slice(1));
    expect(text('.bar')).toContain('more than there is');
    await type('minutes a day', '15');
    await press('Propose anew');
    expect(names()).toEqual(before);
  });

  it('keeps what was put together over a reload, and nothing of it once it is given', async () => {
    await open();
    const before = names();
    await press('Leave out ' + before[0]);
    await type('Note', 'two are enough');
    TestBed.resetTestingModule();
    await open();
    expect(names()).toEqual(before.slice(1));
    await press('Give this programme');
    expect(sent()[0]!.note).toBe('two are enough');
    TestBed.resetTestingModule();
    await open();
    expect(names()).toEqual(before);
  });

  it('moves by the arrow keys, swaps for the harder neighbour, changes side and dose', async () => {
    await open(
      programs({
        given: [
          given(1, {
            choices: { equipment: ['band'], minutesADay: 10, painTolerated: 3, order: 'stages' },
            drills: [
              {
                drill: 'hip-circle-small',
                side: 'left',
                dose: { sets: 1, reps: 10, seconds: null, timesADay: 2, daysAWeek: 7 },
                words: '',
              },
              { drill: 'rock-back', side: 'midline', dose: { sets: 1, reps: 12, seconds: null, timesADay: 2, daysAWeek: 7 }, words: '' },
            ],
          }),
        ],
      }),
    );
    expect(names()).toEqual(['Small hip circles, lying', 'Hips back with a quiet back, hands and knees']);
    page()
      .querySelector('.handle')!
      .dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true, cancelable: true }));
    await fixture.whenStable();
    expect(names()).toEqual(['Hips back with a quiet back, hands and knees', 'Small hip circles, lying']);
    expect(document.activeElement?.getAttribute('data-line')).toBe('1');
    await press('Harder: Knee to chest with a band');
    expect(names()[1]).toBe('Knee to chest with a band in the crease');
    await type('times of Hips back with a quiet back, hands and knees', '8');
    await press('Give it as changed');
    expect(sent()[0]!.drills.map(({ drill, dose }) => [drill, dose.reps])).toEqual([
      ['rock-back', 8],
      ['hip-band-flexion', 15],
    ]);
  });

  it('refuses a dose and minutes that cannot be, by name, and keeps what was', async () => {
    await open(programs({ given: [given(1)] }));
    await type('times of Small hip circles, lying', '0');
    expect(text('.problem')).toBe('Small hip circles, lying: “0” is no number of repetitions; allowed: 1 to 100.');
    await type('times of Small hip circles, lying', '');
    expect(text('.problem')).toContain('is no number of repetitions');
    await type('minutes a day', 'many');
    expect(text('.problem')).toBe('many is no number of minutes; allowed: 0 to 240.');
    expect((page().querySelector('.end button') as HTMLButtonElement).disabled).toBeTrue();
  });

  it('says what was refused, and shows what stands', async () => {
    await open(programs({ given: [given(1)], before: given(1, { by: 'Rook' }) }));
    expect(text('.program')).toContain('Given before, Rook');
    await type('Note', 'more');
    await press('Give it as changed');
    queue().next(refusal('Heel slide is forbidden', 'drills.0.drill'));
    await fixture.whenStable();
    expect(text('.problem')).toContain('The programme was not given.');
    expect(names()).toEqual(['Small hip circles, lying']);
  });

  it('of a signed visit is to be read only', async () => {
    await open(programs({ visit: { ...visit, signed: true }, given: [given(1)] }));
    expect(text('.end')).toContain('open it with “Amend” on Judge');
    expect(all('.acts')).toEqual([]);
    expect((page().querySelector('.dose input') as HTMLInputElement).disabled).toBeTrue();
  });
});
