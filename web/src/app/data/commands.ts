import {
  PROGRAMS,
  READINGS,
  RELIABILITY,
  RETESTS,
  SCREENINGS,
  VISITS,
  type Correction,
  type MarkerReading,
  type NewProgram,
  type NewReading,
  type NewRetest,
  type NewRound,
  type NewScreenTry,
  type PlanChange,
  type Remark,
  type Route,
  type ScreenCorrection,
  type ScreenPlanChange,
  type StudyReading,
} from '@dial-gauge/contract';

/** One thing that was entered and has to reach the server, as data: it outlives the page. */
interface Common {
  /** Made with it; the server knows a second sending by it. */
  readonly id: string;
  /** Who entered it. It is sent under no other name. */
  readonly userId: string;
  /** The visit or the study it belongs to. */
  readonly visitId: string;
  /** What the address of the request names: a visit, a reading, a retest or a study. */
  readonly target: string;
  /** What it is, for a list of what is waiting: "left hip flexion, passive 98". */
  readonly words: string;
  /** What stood at the dial when it was entered: where it is refused it goes back there. */
  readonly typed?: string;
}

/** What each kind of command carries. */
export interface Bodies {
  holdReading: NewReading;
  correctReading: Correction;
  withdrawReading: Record<string, never>;
  remark: Remark;
  setPlan: PlanChange;
  startRetest: NewRetest;
  noteDrill: NewRound;
  readMarker: MarkerReading;
  finishRetest: Record<string, never>;
  planScreens: ScreenPlanChange;
  holdScreenTry: NewScreenTry;
  correctScreenTry: ScreenCorrection;
  giveProgram: NewProgram;
  readStudy: StudyReading;
}
export type CommandName = keyof Bodies;

export type Command = { [Name in CommandName]: Common & { readonly route: Name; readonly body: Bodies[Name] } }[CommandName];
export type CommandOf<Name extends CommandName> = Extract<Command, { readonly route: Name }>;

/** A command as it waits, numbered in the order it was entered. */
export type WaitingCommand = Command & {
  readonly seq: number;
  /** In which shape it was written down; those from before this was noted are of the first. */
  readonly version?: number;
  /** When it was entered, by the clock of this device. */
  readonly enteredAt?: string;
  /** Why it is not sent any more; kept until somebody has looked. */
  readonly refused?: string;
};

/** What is known of a kind of command beside its body. */
export interface CommandKind {
  readonly route: Route;
  /** Counts up when the shape of its body changes. */
  readonly version: number;
  /** Makes a body of an older version one of this; undefined where that cannot be done. */
  readonly upgrade?: (body: unknown, from: number) => unknown;
  /** Where it shows before it is answered; the table of that place has to say how. It is undone by leaving it out. */
  readonly shows: Place;
}

/** What commands show in: the cells of a run sheet, its steps, the retests of a visit, the screens that are chosen, their tries, the programmes, the turns of a study. */
export type Place = 'cells' | 'steps' | 'retests' | 'screen-plan' | 'tries' | 'programs' | 'turns';

/** Every kind of command: the route it is sent by, whose schema its body keeps, its version, and where it shows. */
export const COMMANDS = {
  holdReading: { route: READINGS.holdReading, version: 1, shows: 'cells' },
  correctReading: { route: READINGS.correctReading, version: 1, shows: 'cells' },
  withdrawReading: { route: READINGS.withdrawReading, version: 1, shows: 'cells' },
  remark: { route: READINGS.remark, version: 1, shows: 'cells' },
  setPlan: { route: VISITS.setPlan, version: 1, shows: 'steps' },
  startRetest: { route: RETESTS.startRetest, version: 1, shows: 'retests' },
  noteDrill: { route: RETESTS.noteDrill, version: 1, shows: 'retests' },
  readMarker: { route: RETESTS.readMarker, version: 1, shows: 'retests' },
  finishRetest: { route: RETESTS.finishRetest, version: 1, shows: 'retests' },
  planScreens: { route: SCREENINGS.planScreens, version: 1, shows: 'screen-plan' },
  holdScreenTry: { route: SCREENINGS.holdScreenTry, version: 1, shows: 'tries' },
  correctScreenTry: { route: SCREENINGS.correctScreenTry, version: 1, shows: 'tries' },
  giveProgram: { route: PROGRAMS.giveProgram, version: 1, shows: 'programs' },
  readStudy: { route: RELIABILITY.readStudy, version: 1, shows: 'turns' },
} as const satisfies Readonly<Record<CommandName, CommandKind>>;

/** The kinds of command that show in a place. */
export type ShownIn<At extends Place> = { [Name in CommandName]: (typeof COMMANDS)[Name]['shows'] extends At ? Name : never }[CommandName];

/** What this version makes of a stored command: its body, or why it cannot be sent. */
export function readCommand({
  route,
  body,
  version = 1,
}: Pick<WaitingCommand, 'route' | 'body' | 'version'>): { body: unknown } | { why: string } {
  const kind: CommandKind | undefined = COMMANDS[route];
  const about = 'It was entered with another version of this program and stays here';
  if (!kind) return { why: `This version does not know what to do with "${route}". ${about}.` };
  if (version > kind.version)
    return { why: `It was entered with a newer version of this program. Reload the page; until then it stays here.` };
  const now = version === kind.version ? body : kind.upgrade?.(body, version);
  const fits = kind.route.body.safeParse(now);
  return fits.success ? { body: now } : { why: `${about}: ${fits.error.issues[0]?.path.join('.') ?? ''} no longer fits. Enter it again.` };
}
