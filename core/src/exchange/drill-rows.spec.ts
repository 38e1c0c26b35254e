import { DRILLS, drillProblems, USUAL_OF_STAGE } from '../program/index.js';
import { DRILL_COLUMNS, drillsFromRows, drillsToRows } from './drill-rows.js';

const HEAD = [...DRILL_COLUMNS];
const CELLS: Readonly<Record<string, string>> = {
  name: 'Wall slide',
  stage: 'activate',
  serves: 'shoulder.flexion; shoulder.abduction',
  position: 'standing',
  cue1: 'Back to the wall.',
  cue2: 'Slide up.',
  cue3: 'Come down slowly.',
  cheat: 'the ribs flare',
  reps: '10',
  imposes: 'moves measured shoulder.flexion 160 limb active; bears both knee body held',
  moves: 'shoulder.flexion/sitting',
  start: 'shoulder.flexion/standing 60',
  end: 'armRaised',
};
const read = (over: Readonly<Record<string, string>> = {}, ...more: Readonly<Record<string, string>>[]) =>
  drillsFromRows([
    HEAD,
    ...[{ ...CELLS, ...over }, ...more].map((cells) => HEAD.map((name) => (cells as Record<string, string>)[name] ?? '')),
  ]);
const refused = (over: Readonly<Record<string, string>>) => {
  const reading = read(over);
  return reading.ok ? [] : reading.refused.map(({ line, column }) => `${line} ${column}`);
};

describe('drills as a table', () => {
  it('come back as they went out: every drill that ships', () => {
    const reading = drillsFromRows(drillsToRows(DRILLS));
    if (!reading.ok) throw new Error(JSON.stringify(reading.refused.slice(0, 3)));
    const bare = DRILLS.map(({ doseSource: _dose, source: _source, traits, is: _is, onlyWhere: _onlyWhere, ...drill }) => ({
      ...drill,
      asks: [...traits],
      imposes: drill.imposes.map((row) => (row.what === 'moves' ? { ...row, isFigure: false } : row)),
    }));
    expect(reading.drills.map(({ drill }) => drill)).toEqual(bare);
  });

  it('leave empty what is usual for their stage', () => {
    const reading = read();
    if (!reading.ok) throw new Error(JSON.stringify(reading.refused));
    const [{ line, drill }] = [reading.drills[0]!];
    expect(line).toBe(2);
    expect(drill).toEqual({
      ...{
        id: 'own-wall-slide',
        name: 'Wall slide',
        stage: 'activate',
        serves: ['shoulder.flexion', 'shoulder.abduction'],
        sides: 'each',
        position: 'standing',
      },
      ...{
        equipment: [],
        cues: ['Back to the wall.', 'Slide up.', 'Come down slowly.'],
        cheat: 'the ribs flare',
        easier: null,
        harder: null,
        mode: 'active',
      },
      dose: { sets: 1, reps: 10, seconds: null, timesADay: 1, daysAWeek: 7 },
      imposes: [
        { what: 'moves', limb: 'measured', motion: 'shoulder.flexion', degrees: 160, load: 'limb', by: 'active', isFigure: false },
        { what: 'bears', limb: 'both', joint: 'knee', load: 'body', by: 'held' },
      ],
      notWith: { lax: false, pain: null, healingWeeks: 0 },
      stop: USUAL_OF_STAGE.activate.stop,
      moves: [{ protocol: 'shoulder.flexion/sitting', mode: 'active' }],
      start: { protocol: 'shoulder.flexion/standing', value: 60 },
      end: { scene: 'armRaised' },
    });
    expect(drillProblems({ ...drill, version: 1 }, DRILLS)).toEqual([]);
  });

  it('name every cell that cannot be read, with its line', () => {
    expect(refused({ name: '', cue2: '' })).toEqual(['2 name', '2 cue2']);
    expect(refused({ stage: 'bounce' })).toEqual(['2 stage']);
    expect(refused({ position: 'hanging', sides: 'one' })).toEqual(['2 sides', '2 position']);
    expect(refused({ equipment: 'band; trampoline' })).toEqual(['2 equipment']);
    expect(refused({ reps: 'ten', healingWeeks: 'long' })).toEqual(['2 reps', '2 healingWeeks']);
    expect(refused({ lax: 'perhaps', mode: 'both' })).toEqual(['2 mode', '2 lax']);
    for (const imposes of [
      'moves measured hip.flexion none active',
      'moves leg hip.flexion 90 none active',
      'bears both knee 90 body held',
      'hops both knee body held',
      'moves both hip.flexion far none held',
    ])
      expect(refused({ imposes })).withContext(imposes).toEqual(['2 imposes']);
    expect(refused({ start: 'hip.flexion/supine', end: '' })).toEqual(['2 start', '2 end']);
    const twice = read({}, CELLS);
    expect(!twice.ok && twice.refused.map(({ line, column }) => [line, column])).toEqual([[3, 'id']]);
  });

  it('say what is wrong with the header, and that nothing stands below it', () => {
    const heads = (head: string[]) => {
      const reading = drillsFromRows([head]);
      return reading.ok ? [] : reading.refused.map(({ line, column }) => `${line} ${column}`);
    };
    expect(heads([])).toContain('1 name');
    expect(heads([...HEAD, 'colour'])).toEqual(['1 colour']);
    expect(heads([...HEAD, 'name'])).toEqual(['1 name']);
    expect(heads(HEAD.filter((name) => name !== 'imposes'))).toEqual(['1 imposes']);
    expect(heads(HEAD)).toEqual(['2 name']);
    const missing = drillsFromRows([HEAD.filter((name) => name !== 'imposes')]);
    expect(!missing.ok && missing.refused[0]!.message).toBe('is missing; allowed: a column named imposes');
    expect(heads([...HEAD, '', ' '])).toEqual(['2 name']);
  });

  it('take a decimal comma, pass over empty rows, and only show what a spreadsheet would run', () => {
    const cells: Readonly<Record<string, string>> = { ...CELLS, start: 'shoulder.flexion/standing 60,5' };
    const reading = drillsFromRows([HEAD, HEAD.map(() => ' '), HEAD.map((name) => cells[name] ?? '')]);
    expect(reading.ok && [reading.drills[0]!.line, reading.drills[0]!.drill.start]).toEqual([
      3,
      { protocol: 'shoulder.flexion/standing', value: 60.5 },
    ]);
    const [, row] = drillsToRows([{ ...DRILLS[0]!, cheat: '=1+1' }]);
    expect(row![HEAD.indexOf('cheat')]).toBe("'=1+1");
    expect(read({ cheat: "'=1+1", pain: 'tolerated' })).toEqual(jasmine.objectContaining({ ok: true }));
    const meant = read({ cheat: "'=1+1" });
    expect(meant.ok && meant.drills[0]!.drill.cheat).toBe('=1+1');
  });
});
