import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import type { PracticeRoundView, PracticeView } from '@dial-gauge/contract';
import { cardsOf, EXERCISES, rightPlace, scoreOf, taskOf, type AnswerOf, type Drawn, type ExerciseId } from '@dial-gauge/core';
import { SOME_ID } from '../testing/records';
import { until } from '../testing/until';
import { PracticePage } from './practice';
import { PracticeRoundPage } from './round';

const AT = '2026-11-20T10:00:00.000Z';
const roundOf = (exercise: ExerciseId, over: Partial<PracticeRoundView> = {}, tasks = 3): PracticeRoundView => ({
  id: SOME_ID,
  exercise,
  isShared: false,
  name: '',
  by: 'Wren',
  isOwn: true,
  at: AT,
  tasks: Array.from({ length: tasks }, (_, at) => ({
    card: cardsOf(exercise)[at % cardsOf(exercise).length]!,
    seed: at + 5,
    answered: null,
  })),
  spread: null,
  finished: 0,
  ...over,
});

describe('a round of practice', () => {
  let fixture: ComponentFixture<PracticeRoundPage>;
  let http: HttpTestingController;
  let round: PracticeRoundView;
  const page = () => fixture.nativeElement as HTMLElement;
  const text = (selector = '.room') => page().querySelector(selector)?.textContent?.replace(/\s+/g, ' ').trim() ?? '';
  const button = (words: string) =>
    [...page().querySelectorAll<HTMLButtonElement>('.room button')].find((b) => b.textContent!.includes(words))!;
  const field = () => page().querySelector<HTMLInputElement>('dg-degrees-field input')!;
  const type = async (figure: string) => {
    field().value = figure;
    field().dispatchEvent(new Event('input'));
    await fixture.whenStable();
  };
  const slide = async (label: string, to: number) => {
    const input = [...page().querySelectorAll<HTMLLabelElement>('label')]
      .find((one) => one.textContent!.includes(label))!
      .querySelector('input')!;
    input.value = String(to);
    input.dispatchEvent(new Event('input'));
    await fixture.whenStable();
  };

  beforeEach(() => localStorage.clear());
  const open = async (shown: PracticeRoundView) => {
    round = shown;
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([])],
    });
    await begin();
  };
  const begin = async () => {
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(PracticeRoundPage);
    fixture.componentRef.setInput('id', SOME_ID);
    fixture.detectChanges();
    (await until(() => http.match(`/api/practice-rounds/${SOME_ID}`)[0])).flush(round);
    await fixture.whenStable();
  };
  /** What was sent; answered as the server does. */
  const answered = async () => {
    const request = await until(() => http.match(`/api/practice-rounds/${SOME_ID}/answers`)[0]);
    const { task, answer } = request.request.body as { task: number; answer: AnswerOf<ExerciseId> };
    const scored = scoreOf(round.exercise, round.tasks[task]!, answer);
    round = {
      ...round,
      tasks: round.tasks.map((one, at) => (at === task ? { ...one, answered: { answer: { ...answer }, scored } } : one)),
    };
    request.flush(round);
    await fixture.whenStable();
    return { answer, scored };
  };
  const drawn = (task = 0): Drawn => round.tasks[task]!;
  const press = async (key: string) => {
    document.dispatchEvent(new KeyboardEvent('keydown', { key }));
    await fixture.whenStable();
  };

  it('tells a wrong side, and whose it was', async () => {
    await open(roundOf('side'));
    const { side } = taskOf('side', drawn());
    expect(page().querySelectorAll('dg-table-view text').length).toBe(0);
    await press(side === 'left' ? 'r' : 'l');
    expect((await answered()).scored.slips).toEqual(['otherSide']);
    expect(text('.verdict')).toContain('wrong · the other side');
    expect(text('.verdict')).toContain(`It is their ${side} side`);
    expect(page().querySelector('dg-table-view text')).not.toBeNull();
    expect(document.activeElement?.textContent).toContain('Next task');
    button('Next task').click();
    await fixture.whenStable();
    expect(text('h2')).toContain('2 of 3');
  });

  it('reads in halves with comma or point, says what is missing, and keeps what was begun', async () => {
    await open(roundOf('read', { tasks: [{ card: 'half/askew/outer', seed: 8, answered: null }] }));
    const { truth } = taskOf('read', drawn());
    button('Answer').click();
    await fixture.whenStable();
    expect(text('.verdict')).toContain('The figure is missing; allowed: degrees');
    await type('12.3');
    button('Answer').click();
    await fixture.whenStable();
    http.expectNone(`/api/practice-rounds/${SOME_ID}/answers`);
    await slide('Your eye', 0);
    await type(String(truth).replace('.', ','));
    // Gone and come back: the figure and the eye are there.
    fixture.destroy();
    await begin();
    expect(field().value.replace(',', '.')).toBe(String(truth));
    button('Answer').click();
    await fixture.whenStable();
    expect((await answered()).answer as AnswerOf<'read'>).toEqual({ degrees: truth, eye: 0 });
    expect(text('.verdict')).toContain('right · to the degree');
    expect(field().readOnly).toBeTrue();
    button('What it comes to').click();
    await fixture.whenStable();
    expect(text('.together')).toContain('1 of 1 right');
  });

  it('sends where the eye was when nobody moved it, and names the parallax', async () => {
    await open(roundOf('read', { tasks: [{ card: 'whole/askew/inner', seed: 21, answered: null }] }));
    const { truth, eye } = taskOf('read', drawn());
    await type(String(Math.round((truth + 4 * eye) * 2) / 2));
    button('Answer').click();
    await fixture.whenStable();
    const { answer, scored } = await answered();
    expect((answer as AnswerOf<'read'>).eye).toBe(eye);
    expect(scored.slips).toEqual(['parallax']);
  });

  it('lays axis and arms by keys alone, and shows where they belong once answered', async () => {
    await open(roundOf('place'));
    for (const part of ['axis', 'still arm', 'moving arm']) {
      button(`Lay the ${part}`).click();
      await fixture.whenStable();
    }
    expect(text('.todo')).toContain('All laid');
    button('Answer').click();
    await fixture.whenStable();
    expect(text('.verdict')).toContain('An arm has no length yet');
    const right = rightPlace(taskOf('place', drawn()));
    for (const [at, part] of (['axis', 'still', 'moving'] as const).entries()) {
      const handle = () => page().querySelectorAll<SVGGElement>('.handle')[at]!;
      const where = () => handle().getAttribute('transform')!.match(/-?\d+/g)!.map(Number) as [number, number];
      for (const [axis, keys] of [
        [0, ['ArrowLeft', 'ArrowRight']],
        [1, ['ArrowUp', 'ArrowDown']],
      ] as const)
        for (let left = 400; left > 0 && Math.abs(where()[axis] - right[part][axis]) > 1; left -= 1) {
          const before = where()[axis];
          handle().dispatchEvent(new KeyboardEvent('keydown', { key: keys[before < right[part][axis] ? 1 : 0], bubbles: true }));
          await fixture.whenStable();
          if (where()[axis] === before) break;
        }
    }
    button('Answer').click();
    await fixture.whenStable();
    expect((await answered()).scored.slips).toEqual([]);
    expect(page().querySelector('.truth')).not.toBeNull();
    expect(text('.verdict')).toContain('Axis:');
  });

  it('takes a limb no further than it goes, shows the bubble, and holds', async () => {
    await open(roundOf('plane', { tasks: [{ card: 'steady/stops', seed: 4, answered: null }] }));
    const task = taskOf('plane', drawn());
    await slide('The limb', 1.25);
    await slide('The inclinometer', -task.turned);
    expect(text('.face')).toBe(`${task.truth}° good`);
    button('Hold').click();
    await fixture.whenStable();
    expect((await answered()).answer as AnswerOf<'plane'>).toEqual({ moved: 1, by: -task.turned });
    expect(text('.verdict')).toContain('right');
  });

  it('asks for all of an end: feel, usual or not, substitution, reading', async () => {
    await open(roundOf('feel', { tasks: [{ card: 'springy/gives', seed: 2, answered: null }] }));
    const task = taskOf('feel', drawn());
    expect(text('.told')).toContain(task.feelTold);
    expect(text('.told')).not.toContain('springy');
    for (const words of ['springy', 'not usual', task.substitution!.label]) {
      button(words).click();
      await fixture.whenStable();
    }
    button('Answer').click();
    await fixture.whenStable();
    expect(text('.verdict')).toContain('Not answered yet: the honest reading');
    await type(String(task.comesTo));
    button('Answer').click();
    await fixture.whenStable();
    expect((await answered()).scored.slips).toEqual(['pastEnd']);
    expect(text('.verdict')).toContain(`The honest reading is ${task.truth}°`);
  });

  it('asks which examiner stands apart and how, and names a motion by number keys', async () => {
    await open(roundOf('examiners', { tasks: [{ card: 'lower', seed: 6, answered: null }] }));
    const { apart, truth } = taskOf('examiners', drawn());
    button(`Examiner ${'ABC'.charAt(apart!.who)}`).click();
    await fixture.whenStable();
    button('reads lower').click();
    await type(String(truth));
    button('Answer').click();
    await fixture.whenStable();
    expect((await answered()).scored.mark).toBe('right');
  });

  it('names a motion by number keys', async () => {
    await open(roundOf('name'));
    const { protocol, options } = taskOf('name', drawn());
    await press(String(options.indexOf(protocol.motion) + 1));
    expect((await answered()).scored.mark).toBe('right');
    // Answered, no key answers again.
    await press('1');
    http.expectNone(`/api/practice-rounds/${SOME_ID}/answers`);
  });

  it('shows what was answered in another window, and keeps what was typed when there is no connection', async () => {
    await open(roundOf('read'));
    await type('40');
    button('Answer').click();
    const lost = await until(() => http.match(`/api/practice-rounds/${SOME_ID}/answers`)[0]);
    lost.error(new ProgressEvent('error'));
    await fixture.whenStable();
    expect(text('dg-said')).toContain('cannot be reached');
    expect(field().value).toBe('40');
    button('Answer').click();
    const again = await until(() => http.match(`/api/practice-rounds/${SOME_ID}/answers`)[0]);
    expect((again.request.body as { id: string }).id).toBe((lost.request.body as { id: string }).id);
    again.flush({ detail: 'This task was answered before.', errors: [] }, { status: 409, statusText: 'Conflict' });
    (await until(() => http.match(`/api/practice-rounds/${SOME_ID}`)[0])).flush(round);
    await fixture.whenStable();
    expect(text('dg-said')).toContain('answered before');
  });

  it('of a class shows how all lie apart, and makes a study of it', async () => {
    const scored = { mark: 'right', off: 0, slips: [], read: 40, truth: 40 } as const;
    const done = { card: 'half/square/outer', seed: 1, answered: { answer: { degrees: 40, eye: 0 }, scored } };
    await open(
      roundOf('read', {
        isShared: true,
        name: 'Tuesday',
        tasks: [done],
        finished: 2,
        spread: {
          tasks: [{ truth: 40, mean: 41.5, sd: 2.1, readers: 2 }],
          people: [
            { who: 'Wren', bias: 0, scatter: null, read: 1 },
            { who: 'Rook', bias: 3, scatter: 1.25, read: 1 },
          ],
        },
      }),
    );
    expect(text('dg-spread-table')).toContain('Rook+3° beside the truth± 1.3°');
    button('Make the study').click();
    await fixture.whenStable();
    expect(text('dg-spread-table [role=alert]')).toContain('allowed: a measurement of the list');
    const way = page().querySelector<HTMLSelectElement>('dg-spread-table select')!;
    way.value = 'knee.flexion/supine';
    button('Make the study').click();
    const { request } = await until(() => http.match(`/api/practice-rounds/${SOME_ID}/study`)[0]);
    expect(request.body).toEqual(jasmine.objectContaining({ protocol: 'knee.flexion/supine', name: 'Practice: Tuesday' }));
  });
});

describe('practice', () => {
  it('says what is due, what goes wrong, and starts a round for oneself or the class', async () => {
    localStorage.clear();
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([{ path: '**', children: [] }])],
    });
    const http = TestBed.inject(HttpTestingController);
    const fixture = TestBed.createComponent(PracticePage);
    fixture.detectChanges();
    const nothing = { answers: 0, right: 0, near: 0, meanOff: null, slips: [] };
    const view: PracticeView = {
      exercises: EXERCISES.map((exercise, at) => ({
        exercise,
        cards: 4,
        fresh: at === 0 ? 0 : 4,
        due: at === 0 ? 3 : 0,
        nextAt: null,
        sum: at === 0 ? { answers: 20, right: 15, near: 2, meanOff: 1.25, slips: [{ slip: 'parallax', times: 3 }] } : nothing,
        trouble: at === 0 ? [{ card: 'half/askew/inner', wrong: 3, answers: 5 }] : [],
      })),
      rounds: [],
      open: [],
      hasOlder: false,
    };
    (await until(() => http.match('/api/practice')[0])).flush(view);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const rows = [...page.querySelectorAll('.exercises li')].map((row) => row.textContent!.replace(/\s+/g, ' '));
    expect(rows[0]).toContain('3 due again15 of 20 right, 2 near, 1.3° off on average');
    expect(rows[0]).toContain('the eye was not square above the line, 3 ×');
    expect(rows[1]).toContain('4 not tried yetnothing answered yet');
    const name = page.querySelector<HTMLInputElement>('form input')!;
    name.value = 'Tuesday';
    name.dispatchEvent(new Event('input'));
    page.querySelector<HTMLFormElement>('form')!.requestSubmit();
    const { request } = await until(() => http.match('/api/practice-rounds')[0]);
    expect(request.body).toEqual(jasmine.objectContaining({ exercise: 'read', isShared: true, name: 'Tuesday' }));
  });
});
