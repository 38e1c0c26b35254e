import { TestBed } from '@angular/core/testing';
import type { VisitRecord } from '@dial-gauge/contract';
import type { Command } from '../data/commands';
import { CommandQueue } from '../data/command-queue';
import { FakeQueue, refusal } from '../testing/fake-queue';
import { SOME_ID as ID, storedMeasurement as measured, visitRecord as record } from '../testing/records';
import { dialModel } from './dial-model';
import { Exam, EXAM } from './exam';
import { limitWords, readingWords } from './reading-words';
import { Tools } from './record/tools';

describe('Exam', () => {
  let exam: Exam;
  let queue: FakeQueue;
  const where = () => `${exam.record.place().side} ${exam.record.row().motion} ${exam.record.row().mode}`;
  const hold = (text: string) => (exam.typed.text.set(text), exam.commands.hold());
  const open = (over: Partial<VisitRecord> = {}) => exam.commands.open(record(over));
  const openWith = (...sheet: { protocol: string; digit?: 2 }[]) => open({ sheet });
  const body = () => queue.next().body as unknown as Record<string, unknown>;
  const LIMIT = { motion: 'hip.flexion', side: 'left', limit: 90, until: null, source: 'surgeon' } as const;
  const limited = () => open({ episode: { ...record().episode, precautions: [LIMIT] } });

  beforeEach(async () => {
    localStorage.clear();
    queue = new FakeQueue();
    TestBed.configureTestingModule({ providers: [EXAM, { provide: CommandQueue, useValue: queue }] });
    exam = TestBed.inject(Exam);
    await open();
  });

  it('starts at the side that is not involved and moves on with every hold', () => {
    expect(where()).toBe('left hip.flexion active');
    hold('110');
    expect(where()).toBe('right hip.flexion active');
    hold('95');
    expect(where()).toBe('left hip.flexion passive');
  });

  it('opens an unfinished visit where it was left', async () => {
    await open({ measurements: [measured({}, 110), measured({ side: 'right' }, 95)] });
    expect(where()).toBe('left hip.flexion passive');
    expect(exam.record.savedCount()).toBe(2);
  });

  it('opens with what a page before it had left waiting, once, and not as saved', async () => {
    hold('110');
    hold('95');
    const left = [...queue.commands];
    queue.left = left;
    await open({ measurements: [measured({}, 110)].map((m) => ({ ...m, trials: [{ ...m.trials[0]!, id: left[0]!.id }] })) });
    expect(exam.record.cellOfRow(exam.record.rows()[0]!, 'left').readings.length).toBe(1);
    expect(exam.record.cellOfRow(exam.record.rows()[0]!, 'right').readings.map((r) => r.saved)).toEqual([false]);
    expect(where()).toBe('left hip.flexion passive');
  });

  it('counts a reading as saved only when the server has said so', () => {
    hold('110');
    expect(exam.record.savedCount()).toBe(0);
    const command = queue.next();
    expect([command.route, command.target]).toEqual(['holdReading', ID]);
    expect(command.body as object).toEqual(
      jasmine.objectContaining({ motion: 'hip.flexion', side: 'left', mode: 'active', position: 'supine', start: 0, end: 110 }),
    );
    expect(exam.record.savedCount()).toBe(1);
  });

  it('waits for as many readings as are wanted', () => {
    exam.course.setTrials(3);
    hold('110');
    hold('112');
    expect(where()).toBe('left hip.flexion active');
    hold('114');
    expect(where()).toBe('right hip.flexion active');
    exam.course.otherSide();
    expect(exam.record.measured()!.value).toBe(112);
    expect(exam.record.measured()!.consistent).toBeTrue();
  });

  it('keeps what cannot be on the screen and sends nothing', () => {
    expect(hold('400')).toBeFalse();
    expect(exam.typed.text()).toBe('400');
    expect(exam.course.problem()).toContain('allowed: −60 to 170°');
    expect(queue.commands.length).toBe(0);
  });

  it('brings a refused reading back where it was typed', () => {
    hold('110');
    const { id } = queue.next(refusal('not today', 'end'));
    expect(where()).toBe('left hip.flexion active');
    expect(exam.typed.text()).toBe('110');
    expect(exam.course.problem()).toBe('left hip flexion, active, 110 was not saved. end: not today');
    expect(exam.record.cell().readings).toEqual([]);
    expect(queue.dismissed).toEqual([id]);
  });

  it('leaves what is being typed alone when an earlier reading is refused', () => {
    hold('110');
    exam.typed.text.set('9');
    queue.next(refusal('no'));
    expect(exam.typed.text()).toBe('9');
    expect(where()).toBe('right hip.flexion active');
    expect(exam.course.problem()).toContain('110 was not saved');
  });

  it('undoes the reading held last and withdraws it on the server', () => {
    hold('110');
    const { id } = queue.next();
    exam.commands.undo();
    expect(where()).toBe('left hip.flexion active');
    expect(exam.record.cell().readings).toEqual([]);
    expect(queue.next()).toEqual(jasmine.objectContaining({ route: 'withdrawReading', target: id }));
    expect(exam.commands.canUndo()).toBeFalse();
    expect(queue.commands).toEqual([]);
  });

  it('has what was acknowledged while the visit was being read', async () => {
    hold('110');
    const [command] = queue.commands;
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({ providers: [EXAM, { provide: CommandQueue, useValue: queue }] });
    exam = TestBed.inject(Exam);
    queue.answers.next({ command: command!, failure: null });
    await open();
    expect(exam.record.cellOfRow(exam.record.rows()[0]!, 'left').readings.map((r) => [r.end, r.saved])).toEqual([[110, true]]);
  });

  it('takes in what another tab of the same visit has sent', () => {
    hold('110');
    const command = { ...queue.commands[0]!, id: crypto.randomUUID() } as Command & { route: 'holdReading' };
    queue.answers.next({ command: { ...command, body: { ...command.body, id: command.id, side: 'right', end: 99 } }, failure: null });
    expect(exam.record.cellOfRow(exam.record.rows()[0]!, 'right').readings.map((r) => [r.end, r.saved])).toEqual([[99, true]]);
  });

  it('leaves an answer to another visit alone', async () => {
    hold('110');
    await exam.commands.open(record({ visit: { ...record().visit, id: '0d444840-9dc0-41d1-b245-5ffdce74fad3' } }));
    expect(queue.next().visitId).toBe(ID);
    expect(exam.record.savedCount()).toBe(0);
    expect(where()).toBe('left hip.flexion active');
  });

  it('takes a remark back when the server refuses it', () => {
    exam.commands.note({ pain: 4 });
    expect(exam.record.cell().pain).toBe(4);
    expect((queue.commands[0] as Command & { route: 'remark' }).body.was).toEqual({ pain: null });
    queue.next(refusal('rook noted pain: 2. Yours was not saved; note it again to replace it.'));
    expect(exam.record.cell().pain).toBeNull();
    expect(exam.course.problem()).toContain('rook noted pain: 2');
  });

  it('puts a reading right in its place, and says why', async () => {
    await open({ measurements: [measured({}, 58, 84)] });
    exam.course.go(0, 'left');
    const [first] = exam.record.cell().readings;
    exam.commands.correct(first!, { start: 0, end: 85 }, 'digits turned round');
    expect(exam.record.cell().readings.map((r) => [r.end, r.saved])).toEqual([
      [85, false],
      [84, true],
    ]);
    expect(queue.next()).toEqual(jasmine.objectContaining({ route: 'correctReading', target: first!.id }));
    expect(exam.record.cell().readings[0]!.saved).toBeTrue();
  });

  it('shows what a second examiner has held meanwhile, and keeps what waits here', async () => {
    hold('110');
    queue.left = [...queue.commands];
    exam.typed.text.set('9');
    await exam.commands.join(record({ measurements: [measured({ side: 'right' }, 97)] }));
    expect(exam.record.cellOfRow(exam.record.rows()[0]!, 'right').readings.map((r) => r.end)).toEqual([97]);
    expect(exam.record.cellOfRow(exam.record.rows()[0]!, 'left').readings.map((r) => r.end)).toEqual([110]);
    expect(exam.typed.text()).toBe('9');
  });

  it('gives the dial the other side, the other mode, the last visit and the gap', async () => {
    await exam.commands.open(
      record({
        measurements: [measured({}, 100), measured({ side: 'right' }, 95), measured({ mode: 'passive' }, 118)],
        previous: { assessedOn: '2026-10-20', measurements: [measured({}, 88, 92)] },
      }),
    );
    exam.course.go(0, 'left');
    const dial = dialModel(exam)!;
    expect(dial).toEqual(
      jasmine.objectContaining({
        needle: 100,
        active: 100,
        passive: 118,
        otherSide: { at: 95, words: 'right 95' },
        lastVisit: { at: 90, words: '20 Oct: 90' },
      }),
    );
    expect(dial.gap!.words).toBe('9° short');
    expect(dial.text).toContain('left hip flexion, active; needle at 100°');
    exam.typed.text.set('130');
    expect(dialModel(exam)!.needle).toBe(130);
    expect(dialModel(exam)!.gap).toBeNull();
  });

  describe('turning the patient', () => {
    const toTheTurn = () => exam.record.rows().findIndex((row) => row.position === 'prone');

    it('is a step of its own: nothing is held before it is confirmed', () => {
      exam.course.go(toTheTurn(), 'left');
      expect(exam.course.turning()).toEqual({ to: 'prone', place: { row: toTheTurn(), side: 'left' } });
      expect(where()).toBe('left hip.flexion active');
      expect(hold('20')).toBeFalse();
      expect(exam.course.problem()).toBe('The patient is supine yet: turn first, then press Enter.');
      exam.course.confirmTurn();
      expect(where()).toBe('left hip.extension active');
      expect(exam.record.station()).toBe('prone');
      expect(exam.course.announcement()).toBe('Patient prone. left hip extension, active');
    });

    it('can wait, and says what is still open before it', () => {
      hold('110');
      exam.commands.note({ notDone: 'refused' });
      exam.course.go(toTheTurn(), 'left');
      expect(exam.record.openEnds().length).toBe(10);
      expect(exam.record.openEnds().map((end) => end.words)).toContain('Passive left hip abduction still open in supine');
      expect(exam.record.openEnds().map((end) => end.words)).not.toContain('Active right hip flexion still open in supine');
      exam.course.stayHere();
      expect(exam.course.turning()).toBeNull();
      expect(where()).toBe('right hip.flexion active');
    });

    it('catches a side that disagrees with the drawing', () => {
      expect(hold('r110')).toBeFalse();
      expect(exam.course.problem()).toBe(
        'You typed right, the run sheet is at the patient’s left side. Look at the drawing; o goes to the other side.',
      );
      expect(hold('l110')).toBeTrue();
      expect(body()).toEqual(jasmine.objectContaining({ side: 'left', end: 110 }));
    });
  });

  describe('a precaution', () => {
    it('puts a stop on the dial and asks why it was passed', async () => {
      await limited();
      expect(dialModel(exam)!.stop).toEqual({ at: 90, words: 'stop 90' });
      expect(limitWords(exam)).toBe('Stop at 90° (surgeon).');
      expect(hold('95')).toBeFalse();
      expect(exam.commands.pastStop()).toEqual(jasmine.objectContaining({ value: 95, limit: 90, source: 'surgeon' }));
      expect(queue.commands).toEqual([]);
      expect(exam.commands.holdPast('went there by mistake')).toBeTrue();
      expect(body()).toEqual(jasmine.objectContaining({ end: 95, pastLimit: { limit: 90, why: 'went there by mistake' } }));
    });

    it('says nothing up to the limit, nor of the other side', async () => {
      await limited();
      expect(hold('90')).toBeTrue();
      expect(limitWords(exam)).toBe('');
      expect(hold('120')).toBeTrue();
    });
  });

  describe('instruments', () => {
    it('asks which way a device that was not set has counted, and remembers it', async () => {
      await openWith({ protocol: 'shoulder.flexion/supine' });
      const tools = TestBed.inject(Tools);
      tools.take(exam.record.protocol(), 'inclinometer');
      tools.change({ scale: '360' });
      exam.typed.text.set('0/190');
      expect(exam.typed.bothWays().map(({ value }) => value)).toEqual([190, 170]);
      expect(exam.commands.hold()).toBeFalse();
      expect(exam.course.problem()).toContain('can have gone both ways: 190° (counting up) or 170° (counting down)');
      exam.typed.tellSense(1);
      exam.typed.flipSense();
      expect(exam.commands.hold()).toBeTrue();
      expect(body()).toEqual(jasmine.objectContaining({ instrument: 'inclinometer', start: 0, end: 190, scale: '360', sense: -1 }));
      exam.course.otherSide();
      expect(exam.record.measured()!.value).toBe(170);
    });

    it('keeps the instrument of the first reading, whatever is taken in the hand', () => {
      exam.course.setTrials(2);
      hold('110');
      TestBed.inject(Tools).take(exam.record.protocol(), 'inclinometer');
      expect(exam.record.instrument()).toBe('goniometer');
      exam.course.otherSide();
      expect(exam.record.instrument()).toBe('inclinometer');
    });

    it('holds a length in one figure, in another unit, or by the hand; and refuses a start', async () => {
      await openWith({ protocol: 'distance.kneeToWall/standing' });
      expect(exam.record.instrument()).toBe('tape');
      expect(hold('4/9')).toBeFalse();
      expect(exam.course.problem()).toContain('allowed: one figure in cm');
      expect(hold('45')).toBeFalse();
      expect(exam.course.problem()).toBe('45 cm is more than knee to wall can hold; allowed: 0 to 30 cm');
      expect(hold('7.5')).toBeTrue();
      expect(body()).toEqual(jasmine.objectContaining({ motion: 'distance.kneeToWall', side: 'left', instrument: 'tape', end: 7.5 }));
      expect(hold('3in')).toBeTrue();
      expect(body()).toEqual(jasmine.objectContaining({ side: 'right', end: 7.6, entered: '3 in' }));
    });

    it('holds two sites as typed and subtracts them', async () => {
      await openWith({ protocol: 'lumbar.flexion/standing' });
      expect(readingWords(exam)).toBe('type upper end, lower end, as 86/34, Enter holds · two inclinometers');
      expect(hold('86')).toBeFalse();
      expect(exam.course.problem()).toContain('now the lower end');
      exam.typed.text.set('86/34');
      expect(exam.typed.value()).toBe(52);
      exam.commands.hold();
      expect(body()).toEqual(
        jasmine.objectContaining({ side: 'midline', instrument: 'dualInclinometer', start: 0, end: 86, lower: { zero: 0, end: 34 } }),
      );
      expect(exam.record.measuredAt(exam.record.key())!.value).toBe(52);
    });

    it('takes yes or no', async () => {
      await openWith({ protocol: 'check.squatHeelsDown/standing' });
      expect(readingWords(exam)).toBe('type y or n, Enter holds · by eye');
      expect(hold('n')).toBeTrue();
      expect(body()).toEqual(jasmine.objectContaining({ side: 'midline', instrument: 'visual', end: 0 }));
    });

    it('fills both directions from one arc, or neither', async () => {
      await openWith({ protocol: 'knee.extension/supine' }, { protocol: 'knee.flexion/supine' });
      expect(hold('S:0-15-120')).toBeTrue();
      expect([body(), body()].map(({ motion, end, entered }) => [motion, end, entered])).toEqual([
        ['knee.extension', -15, 'S:0-15-120'],
        ['knee.flexion', 120, 'S:0-15-120'],
      ]);
      await openWith({ protocol: 'knee.flexion/supine' });
      expect(hold('S:0-15-120')).toBeFalse();
      expect(exam.course.problem()).toContain('Left knee extension, active, is not on the run sheet');
      expect(queue.commands).toEqual([]);
    });
  });

  describe('the run sheet', () => {
    it('names the finger and the way of measuring it holds for', async () => {
      await openWith({ protocol: 'fingerPip.flexion/sitting', digit: 2 }, { protocol: 'shoulder.externalRotation/supine-at-side' });
      hold('90');
      expect(body()).toEqual(jasmine.objectContaining({ digit: 2, protocol: 'fingerPip.flexion/sitting' }));
      expect(exam.record.nameOf(exam.record.rows()[0]!, 'left')).toBe('left index, finger middle joint (PIP) flexion, active');
    });

    it('follows the plan that was prepared, step by step', async () => {
      const way = { protocol: 'hip.extension/prone', mode: 'passive', seconds: 20 } as const;
      const steps = (['right', 'left'] as const).map((side) => ({ ...way, side }));
      await open({ plan: { steps, leftOut: [], minutesAvailable: 5, trials: 2 } });
      expect(exam.record.station()).toBe('prone');
      expect(exam.course.trials()).toBe(2);
      expect(exam.record.rows().map((row) => [row.motion, row.mode, row.sides])).toEqual([['hip.extension', 'passive', ['right', 'left']]]);
      exam.course.otherMode();
      expect(exam.course.problem()).toBe('Active is not on the run sheet.');
    });

    it('takes another way of measuring once, tells the server, and goes there', async () => {
      await openWith({ protocol: 'knee.flexion/supine' });
      exam.commands.add({ protocol: 'girth.knee/supine' });
      expect(exam.record.row().motion).toBe('girth.knee');
      expect(exam.record.place().side).toBe('left');
      const { plan } = body() as { plan: { steps: { protocol: string }[] } };
      expect(plan.steps.map((step) => step.protocol.split('/')[0])).toEqual([
        ...Array<string>(4).fill('knee.flexion'),
        'girth.knee',
        'girth.knee',
      ]);
      exam.commands.add({ protocol: 'knee.flexion/supine' });
      expect(queue.commands).toEqual([]);
      expect(exam.record.row().motion).toBe('knee.flexion');
    });

    it('shows what was measured beyond it', async () => {
      const beyond = measured({ motion: 'knee.flexion', position: 'prone' }, 130);
      await open({ sheet: [{ protocol: 'knee.flexion/supine' }], measurements: [beyond] });
      expect(exam.record.rows().map((row) => row.protocol)).toContain('knee.flexion/prone');
    });
  });
});
