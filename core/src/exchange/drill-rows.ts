import {
  DONE_TRAITS,
  IMPOSED_BY,
  IMPOSED_LIMBS,
  IMPOSED_LOADS,
  type Imposition,
  type JointMotion,
  type DoneTrait,
} from '../imposes/index.js';
import { USUAL, usualMode } from '../program/drills/define.js';
import { ownDrillId, type OwnDrill } from '../program/own.js';
import { DRILL_STAGES, EQUIPMENT, type Drill, type DrillStage, type Moves, type Pose } from '../program/drills/types.js';
import { isIn, MODES, POSITIONS, type Joint, type Mode, type MotionId } from '../terms.js';
import { asMeant, asShown } from './cells.js';

/*
 * Drills as a table: one header, one row a drill. Lists are parted by
 * semicolons. Reading and writing are exact inverses; what a cell leaves empty
 * is what is usual for the stage.
 */

export const DRILL_COLUMNS = [
  'id',
  'name',
  'stage',
  'serves',
  'sides',
  'position',
  'equipment',
  'cue1',
  'cue2',
  'cue3',
  'cheat',
  'sets',
  'reps',
  'seconds',
  'timesADay',
  'daysAWeek',
  'easier',
  'harder',
  'mode',
  'imposes',
  'asks',
  'lax',
  'pain',
  'healingWeeks',
  'stop',
  'moves',
  'start',
  'end',
] as const;
export type DrillColumn = (typeof DRILL_COLUMNS)[number];

/** One cell that cannot be read: where, and what is allowed. */
export interface RefusedDrillCell {
  /** The header is line 1. */
  readonly line: number;
  readonly column: string;
  readonly message: string;
}

/** Drills as they were read, each with its line; or every cell that is refused. */
export type DrillReading =
  | { readonly ok: true; readonly drills: readonly { readonly line: number; readonly drill: Omit<OwnDrill, 'version'> }[] }
  | { readonly ok: false; readonly refused: readonly RefusedDrillCell[] };

export function drillsToRows(drills: readonly (Drill | OwnDrill)[]): string[][] {
  return [[...DRILL_COLUMNS], ...drills.map((drill) => DRILL_COLUMNS.map((column) => asShown(cellOf(drill, column))))];
}

const list = (of: readonly string[]): string => of.join('; ');
const optional = (value: number | null): string => (value === null ? '' : String(value));

type Shown = Drill | OwnDrill;
type Cell = (drill: Shown) => string;

/** Columns whose cell is not the text of the field itself. */
const CELLS: Partial<Record<DrillColumn, Cell>> = {
  serves: ({ serves }) => list(serves),
  equipment: ({ equipment }) => list(equipment),
  cue1: ({ cues }) => cues[0],
  cue2: ({ cues }) => cues[1],
  cue3: ({ cues }) => cues[2],
  sets: ({ dose }) => String(dose.sets),
  timesADay: ({ dose }) => String(dose.timesADay),
  daysAWeek: ({ dose }) => String(dose.daysAWeek),
  reps: ({ dose }) => optional(dose.reps),
  seconds: ({ dose }) => optional(dose.seconds),
  imposes: ({ imposes }) => list(imposes.map(imposedCell)),
  asks: (drill) => list('traits' in drill ? [...drill.traits] : (drill.asks ?? [])),
  lax: ({ notWith }) => (notWith.lax ? 'yes' : 'no'),
  pain: ({ notWith }) => (notWith.pain === null ? 'tolerated' : String(notWith.pain)),
  healingWeeks: ({ notWith }) => String(notWith.healingWeeks),
  moves: ({ moves }) => list(moves.map((one) => ('screen' in one ? `${one.screen}.${one.item}` : `${one.protocol} ${one.mode}`))),
  start: ({ start }) => poseCell(start),
  end: ({ end }) => poseCell(end),
};

const textOf = (drill: Shown, field: string): string => String((drill as unknown as Readonly<Record<string, unknown>>)[field] ?? '');
const cellOf = (drill: Shown, column: DrillColumn): string => CELLS[column]?.(drill) ?? textOf(drill, column);

function imposedCell(row: Imposition): string {
  const what = row.what === 'moves' ? `${row.motion} ${row.degrees}` : row.what === 'works' ? row.motion : row.joint;
  return `${row.what} ${row.limb} ${what} ${row.load} ${row.by}`;
}

const poseCell = (pose: Pose): string => ('scene' in pose ? pose.scene : `${pose.protocol} ${pose.value}`);

/** @param rows cells as texts, the header first; rows without any text are passed over */
export function drillsFromRows([header = [], ...rows]: readonly (readonly string[])[]): DrillReading {
  const names = header.map((name) => name.trim());
  const refused: RefusedDrillCell[] = [];
  const unknown = names.find((name) => name !== '' && !(DRILL_COLUMNS as readonly string[]).includes(name));
  if (unknown !== undefined)
    refused.push({ line: 1, column: unknown, message: `is no column of a drill; allowed: ${DRILL_COLUMNS.join(', ')}` });
  const twice = names.find((name, at) => name !== '' && names.indexOf(name) !== at);
  if (twice !== undefined) refused.push({ line: 1, column: twice, message: 'stands there twice; allowed: each column once' });
  for (const name of NEEDED)
    if (!names.includes(name)) refused.push({ line: 1, column: name, message: `is missing; allowed: a column named ${name}` });
  if (refused.length > 0) return { ok: false, refused };
  const drills = rows.flatMap((row, at) => {
    if (row.every((cell) => cell.trim() === '')) return [];
    const line = at + 2;
    const cells = new Map(names.map((name, column) => [name, asMeant((row[column] ?? '').trim())] as const));
    const reader = new Reader(
      (column, message) => refused.push({ line, column, message }),
      (column) => cells.get(column) ?? '',
    );
    return [{ line, drill: drillOf(reader) }];
  });
  if (drills.length === 0 && refused.length === 0)
    refused.push({ line: 2, column: 'name', message: 'is missing; allowed: one row a drill below the header' });
  const seen = new Map<string, number>();
  for (const { line, drill } of drills) {
    const before = seen.get(drill.id);
    if (before !== undefined)
      refused.push({ line, column: 'id', message: `"${drill.id}" is the drill of line ${before} already; allowed: each drill once` });
    seen.set(drill.id, line);
  }
  return refused.length > 0 ? { ok: false, refused } : { ok: true, drills };
}

/** Columns without which there is no drill; of any other an empty cell says what is usual. */
const NEEDED = ['name', 'stage', 'serves', 'position', 'cue1', 'cue2', 'cue3', 'cheat', 'imposes', 'moves', 'start', 'end'] as const;

/** Cells of one row. Whatever cannot be read is told, and something harmless is answered in its place. */
class Reader {
  constructor(
    readonly refuse: (column: DrillColumn, message: string) => void,
    readonly cell: (column: DrillColumn) => string,
  ) {}

  text(column: DrillColumn): string {
    const cell = this.cell(column);
    if (cell === '') this.refuse(column, 'is empty; allowed: a text');
    return cell;
  }

  oneOf<T extends string>(column: DrillColumn, allowed: readonly T[], usual?: T): T {
    const cell = this.cell(column);
    if (cell === '' && usual !== undefined) return usual;
    if ((allowed as readonly string[]).includes(cell)) return cell as T;
    this.refuse(
      column,
      cell === '' ? `is empty; allowed: ${allowed.join(', ')}` : `"${cell}" is not known; allowed: ${allowed.join(', ')}`,
    );
    return usual ?? allowed[0]!;
  }

  list(column: DrillColumn): string[] {
    return this.cell(column)
      .split(';')
      .map((one) => one.trim())
      .filter((one) => one !== '');
  }

  number<T>(column: DrillColumn, usual: T): number | T {
    const cell = this.cell(column);
    if (cell === '') return usual;
    const value = numberOf(cell);
    if (value === null) this.refuse(column, `"${cell}" is no number; allowed: a number, or nothing for what is usual`);
    return value ?? usual;
  }
}

const numberOf = (cell: string): number | null => (/^-?\d+([.,]\d+)?$/.test(cell) ? Number(cell.replace(',', '.')) : null);

function drillOf(reader: Reader): Omit<OwnDrill, 'version'> {
  const name = reader.text('name');
  const stage = reader.oneOf('stage', DRILL_STAGES);
  const { stop, ...usual } = USUAL[stage];
  const equipment = reader.list('equipment');
  const unknown = equipment.find((piece) => !(EQUIPMENT as readonly string[]).includes(piece));
  if (unknown !== undefined) reader.refuse('equipment', `"${unknown}" is not known; allowed: ${EQUIPMENT.join(', ')}`);
  const mode = reader.oneOf('mode', MODES, usualMode(stage));
  return {
    id: reader.cell('id') || ownDrillId(name),
    name,
    stage,
    serves: reader.list('serves') as MotionId[],
    sides: reader.oneOf('sides', ['each', 'none'], 'each'),
    position: reader.oneOf('position', POSITIONS),
    equipment: equipment as Drill['equipment'],
    cues: [reader.text('cue1'), reader.text('cue2'), reader.text('cue3')],
    cheat: reader.text('cheat'),
    dose: {
      sets: reader.number('sets', 1),
      reps: reader.number('reps', null),
      seconds: reader.number('seconds', null),
      timesADay: reader.number('timesADay', 1),
      daysAWeek: reader.number('daysAWeek', 7),
    },
    easier: reader.cell('easier') || null,
    harder: reader.cell('harder') || null,
    mode,
    imposes: reader.list('imposes').flatMap((one) => imposedOf(one, (message) => reader.refuse('imposes', message))),
    ...asksOf(reader),
    notWith: notWithOf(reader, usual),
    stop: reader.cell('stop') || stop,
    moves: reader.list('moves').map((one) => markerOf(one, mode)),
    start: poseOf(reader, 'start'),
    end: poseOf(reader, 'end'),
  };
}

/** Empty: nobody said. */
function asksOf(reader: Reader): Pick<OwnDrill, 'asks'> {
  const asks = reader.list('asks').filter((one): one is DoneTrait => {
    const isKnown = isIn(DONE_TRAITS, one);
    if (!isKnown) reader.refuse('asks', `"${one}" is not understood; allowed: ${DONE_TRAITS.join(', ')}`);
    return isKnown;
  });
  return asks.length > 0 ? { asks } : {};
}

function notWithOf(reader: Reader, usual: (typeof USUAL)[DrillStage] extends infer U ? Omit<U, 'stop'> : never): Drill['notWith'] {
  const { lax, pain, healingWeeks } = usual as Drill['notWith'];
  return {
    lax: reader.oneOf('lax', ['yes', 'no'], lax ? 'yes' : 'no') === 'yes',
    pain: reader.cell('pain') === 'tolerated' ? null : reader.number('pain', pain),
    healingWeeks: reader.number('healingWeeks', healingWeeks),
  };
}

const IMPOSED =
  'allowed: as "moves measured hip.flexion 90 none active", "works measured hip.flexion resisted active" or "bears both knee body held"';
const WHATS = ['moves', 'works', 'bears', 'touches'] as const;

function imposedOf(text: string, refuse: (message: string) => void): Imposition[] {
  const [what, limb, subject, ...rest] = text.split(/\s+/);
  const [degrees, load, by] = what === 'moves' ? rest : ['0', ...rest];
  const words = what === 'moves' ? 3 : 2;
  const isKnown = isIn(IMPOSED_LIMBS, limb) && isIn(IMPOSED_LOADS, load) && isIn(IMPOSED_BY, by);
  const angle = degrees === 'full' ? degrees : numberOf(degrees ?? '');
  if (rest.length !== words || !isKnown || angle === null || !isIn(WHATS, what) || (what === 'works' && load !== 'resisted')) {
    refuse(
      `"${text}" is not understood; ${IMPOSED}; limbs: ${IMPOSED_LIMBS.join(', ')}; loads: ${IMPOSED_LOADS.join(', ')}; by: ${IMPOSED_BY.join(', ')}`,
    );
    return [];
  }
  if (what === 'moves') return [{ what, limb, motion: subject as JointMotion, degrees: angle, load, by, isFigure: false }];
  if (what === 'works') return [{ what, limb, motion: subject as JointMotion, load: 'resisted', by }];
  return [{ what, limb, joint: subject as Joint, load, by }];
}

/** "hip.flexion/supine passive", "hip.flexion/supine", or an item as "patterns.toeTouch". */
function markerOf(text: string, usual: Mode): Moves {
  if (!text.includes('/')) {
    const [screen = '', item = ''] = text.split('.');
    return { screen, item };
  }
  const [protocol = '', mode = usual] = text.split(/\s+/);
  return { protocol, mode: mode as Mode };
}

function poseOf(reader: Reader, column: 'start' | 'end'): Pose {
  const cell = reader.text(column);
  const [of = '', figure] = cell.split(/\s+/);
  if (!of.includes('/')) return { scene: of };
  const value = numberOf(figure ?? '');
  if (value === null)
    reader.refuse(column, `"${cell}" has no figure; allowed: as "hip.flexion/supine 90", or a figure's name as "quadruped"`);
  return { protocol: of, value: value ?? 0 };
}
