import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { Router, RouterLink } from '@angular/router';
import { DRILL_LIST } from '@dial-gauge/contract';
import {
  DRILL_STAGES,
  drillsWith,
  EQUIPMENT,
  equipmentWords,
  findDrill,
  inPosition,
  isSpine,
  minutesOf,
  motion,
  ownDrillId,
  plainDose,
  protocolOfId,
  stageWords,
  unsaid,
  USUAL_OF_STAGE,
  usualMode,
  type Dose,
  type Drill,
  type Equipment,
  DONE_TRAITS,
  TRAIT_WORDS,
  type DoneTrait,
  type Imposition,
  type Joint,
  type MotionId,
  type OwnDrill,
  type Pose,
} from '@dial-gauge/core';
import { Api } from '../data/api';
import { Drafts } from '../data/drafts';
import { describeFailure, toFailure } from '../data/problem';
import { DOSE, DOSE_FIELDS } from '../decide/choices';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { PoseFigure } from '../ui/pose-figure';
import {
  BYS,
  DIRECTION_CHOICES,
  imposedWords,
  JOINT_CHOICES,
  LIMBS,
  LOADS,
  markerGroups,
  markerOf,
  markerWords,
  MODES,
  MOTION_CHOICES,
  motionWords,
  poseValue,
  POSITION_CHOICES,
  protocolGroups,
  SCENE_CHOICES,
  SIDES,
  wrongWith,
} from './words';

const NONE = { motion: 'hip.flexion', position: 'supine' } as const;

/** What a drill begins as: nothing said, so that everything that is missing is asked for. */
function blank(): OwnDrill {
  const { stop, ...notWith } = USUAL_OF_STAGE.mobilise;
  return {
    ...{ id: 'own-drill', version: 1, name: '', stage: 'mobilise', serves: [], sides: 'each', position: NONE.position, equipment: [] },
    ...{ cues: ['', '', ''], cheat: '', dose: { sets: 1, reps: 10, seconds: null, timesADay: 1, daysAWeek: 7 } },
    ...{ easier: null, harder: null, mode: 'passive', imposes: [], notWith, stop, moves: [] },
    ...{ start: { scene: 'lyingUp' }, end: { scene: 'lyingUp' } },
  };
}

/** One that there is, as the beginning of another. */
function likeOf({ doseSource: _dose, source: _source, traits, is: _is, onlyWhere: _onlyWhere, ...drill }: Drill): OwnDrill {
  const imposes = drill.imposes.map((row): Imposition => {
    const by = row.by === 'measurement' ? drill.mode : row.by;
    return row.what === 'moves' ? { ...row, by, isFigure: false } : { ...row, by };
  });
  return { ...drill, imposes, asks: [...traits], id: 'own-drill', version: 1, name: '' };
}

/** What is being written, kept on this device until it is kept for good. */
interface Written {
  readonly drill: OwnDrill;
}
const isWritten = (value: unknown): value is Written => {
  const { drill } = (value ?? {}) as Partial<Written>;
  return (
    !!drill && typeof drill.name === 'string' && Array.isArray(drill.serves) && Array.isArray(drill.imposes) && Array.isArray(drill.cues)
  );
};

/** A drill of the clinic's own: written anew, like another, or changed. What it does to joints is what limits are held against. */
@Component({
  selector: 'dg-write-drill',
  imports: [Frame, MatButtonModule, MatIconModule, Pending, PoseFigure, RouterLink],
  templateUrl: './write.html',
  styleUrl: './write.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WriteDrillPage {
  private readonly api = inject(Api);
  private readonly drafts = inject(Drafts);
  private readonly router = inject(Router);
  /** `new`, or the drill that is changed. */
  readonly id = input.required<string>();
  /** The drill it begins like. */
  readonly like = input<string>();
  protected readonly loaded = rxResource({ stream: () => this.api.call(DRILL_LIST.drills) });
  private readonly own = computed(() => (this.loaded.hasValue() ? this.loaded.value().own : []));
  protected readonly drills = computed(() => drillsWith(this.own().flatMap(({ drill, inUse }) => (inUse ? [drill] : []))));
  protected readonly drill = signal<OwnDrill | null>(null);
  protected readonly problems = signal<readonly string[]>([]);
  protected readonly busy = signal(false);
  protected readonly isThere = computed(() => this.id() === 'new' || this.own().some(({ drill }) => drill.id === this.id()));

  protected readonly stages = DRILL_STAGES;
  protected readonly equipment = EQUIPMENT;
  protected readonly traits = DONE_TRAITS;
  protected readonly traitWords = TRAIT_WORDS;
  protected readonly doseFields = DOSE_FIELDS;
  protected readonly ordinals = ['First', 'Second', 'Third'];
  protected readonly motions = MOTION_CHOICES;
  protected readonly directions = DIRECTION_CHOICES;
  protected readonly joints = JOINT_CHOICES;
  protected readonly positions = POSITION_CHOICES;
  protected readonly scenes = SCENE_CHOICES;
  protected readonly limbs = Object.entries(LIMBS);
  protected readonly loads = Object.entries(LOADS);
  protected readonly bys = Object.entries(BYS).filter(([by]) => by !== 'measurement');
  protected readonly sides = Object.entries(SIDES);
  protected readonly modes = Object.entries(MODES);
  protected readonly tenths = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];
  protected readonly poses = ['start', 'end'] as const;
  protected readonly neighbours = ['easier', 'harder'] as const;
  protected readonly words = { equipmentWords, imposedWords, markerWords, motionWords, poseValue, stageWords };

  protected readonly protocols = computed(() => protocolGroups(this.drill()?.serves ?? []));
  protected readonly markers = computed(() => markerGroups(this.drill()?.serves ?? []));
  protected readonly others = computed(() => this.drills().filter(({ id }) => id !== this.id()));
  /** What limits are held against beyond what is written: the position, and what is served where nothing is said of it. */
  protected readonly beside = computed(() => {
    const drill = this.drill();
    if (!drill) return { position: [], unsaid: [] };
    const asFar = unsaid(drill);
    const said = [...drill.imposes, ...asFar];
    return { unsaid: asFar, position: inPosition(drill.position, said).slice(said.length) };
  });
  protected readonly minutes = computed(() => {
    const { dose, sides } = this.drill() ?? blank();
    return { one: minutesOf(dose, 1), two: sides === 'none' ? null : minutesOf(dose, 2) };
  });
  protected readonly told = computed(() => plainDose((this.drill() ?? blank()).dose));

  constructor() {
    effect(() => {
      if (!this.loaded.hasValue()) return;
      const [id, like] = [this.id(), this.like()];
      untracked(() => this.drill.set(this.drafts.read(this.draftName(), isWritten)?.drill ?? this.begun(id, like)));
    });
  }

  private draftName(): string {
    return `drill.${this.id()}${this.like() ? `.${this.like()}` : ''}`;
  }

  private begun(id: string, like: string | undefined): OwnDrill {
    const there = this.own().find(({ drill }) => drill.id === id)?.drill;
    if (there) return { ...there, version: there.version + 1 };
    const model = findDrill(like ?? '', drillsWith(this.own().map(({ drill }) => drill)));
    return model ? likeOf(model) : blank();
  }

  protected set(change: Partial<OwnDrill>): void {
    const drill = this.drill();
    if (!drill) return;
    const next = { ...drill, ...change };
    this.drill.set(next);
    this.drafts.keep(this.draftName(), { drill: next } satisfies Written);
  }

  protected startAgain(): void {
    this.drafts.drop(this.draftName());
    this.problems.set([]);
    this.drill.set(this.begun(this.id(), this.like()));
  }

  /** A stage brings what is usual for it; what was changed by hand stays. */
  protected stage(to: OwnDrill['stage']): void {
    const { stage, mode, notWith, stop } = this.drill()!;
    const { stop: usualStop, ...usual } = USUAL_OF_STAGE[stage];
    const { stop: newStop, ...now } = USUAL_OF_STAGE[to];
    this.set({
      stage: to,
      mode: mode === usualMode(stage) ? usualMode(to) : mode,
      notWith: JSON.stringify(notWith) === JSON.stringify(usual) ? now : notWith,
      stop: stop === usualStop ? newStop : stop,
    });
  }

  protected serve(id: string): void {
    const { serves } = this.drill()!;
    if (id === '' || serves.includes(id as MotionId)) return;
    const protocol = motion(id as MotionId).protocols[0]!;
    // The first thing served gives the figure and the marker something to begin with.
    const first: Partial<OwnDrill> = serves.length > 0 ? {} : this.firstOf(protocol.id);
    this.set({ serves: [...serves, id as MotionId], ...first });
  }

  private firstOf(protocolId: string): Partial<OwnDrill> {
    const { moves, mode, start, end } = this.drill()!;
    const protocol = protocolOfId(protocolId)!;
    const isBlank = 'scene' in start && 'scene' in end && start.scene === 'lyingUp' && end.scene === 'lyingUp';
    const { limits } = motion(protocol.motion);
    const marker = { protocol: protocolId, mode: protocol.modes.includes(mode) ? mode : protocol.modes[0]! };
    return {
      ...(moves.length === 0 && { moves: [marker] }),
      ...(isBlank && {
        position: protocol.position,
        start: { protocol: protocolId, value: Math.max(0, limits.min) },
        end: { protocol: protocolId, value: Math.round(Math.min(90, limits.max * 0.6)) },
      }),
    };
  }

  protected unserve(at: number): void {
    this.set({ serves: this.drill()!.serves.filter((_, index) => index !== at) });
  }

  protected cue(at: number, text: string): void {
    this.set({ cues: this.drill()!.cues.map((cue, index) => (index === at ? text : cue)) as unknown as OwnDrill['cues'] });
  }

  protected toggle(piece: Equipment): void {
    const { equipment } = this.drill()!;
    this.set({ equipment: equipment.includes(piece) ? equipment.filter((one) => one !== piece) : [...equipment, piece] });
  }

  protected dose(field: keyof Dose, typed: string): void {
    const { dose } = this.drill()!;
    const { name, least, most, mayBeNone } = DOSE[field];
    const text = typed.trim();
    if (text === '' && mayBeNone) return this.set({ dose: { ...dose, [field]: null } });
    const value = Number(text);
    if (!Number.isInteger(value) || value < least || value > most)
      return this.problems.set([`Dose: “${text}” is no number of ${name}; allowed: ${least} to ${most}.`]);
    this.problems.set([]);
    this.set({ dose: { ...dose, [field]: value } });
  }

  protected without(change: Partial<OwnDrill['notWith']>): void {
    this.set({ notWith: { ...this.drill()!.notWith, ...change } });
  }

  protected weeks(typed: string): void {
    const value = Number(typed.trim());
    if (typed.trim() === '' || !Number.isInteger(value) || value < 0 || value > 104)
      return this.problems.set([`Healing weeks: “${typed.trim()}” is no number of weeks; allowed: 0 to 104.`]);
    this.problems.set([]);
    this.without({ healingWeeks: value });
  }

  protected addMove(): void {
    const { serves, mode } = this.drill()!;
    const said = new Set(this.drill()!.imposes.flatMap((row) => (row.what === 'moves' ? [row.motion as string] : [])));
    const of = this.directions.flatMap((group) => group.of).map(({ value }) => value);
    const next = serves.find((id) => of.includes(id) && !said.has(id)) ?? of.find((id) => !said.has(id))!;
    this.impose({ ...this.limbed(next), what: 'moves', motion: next as never, degrees: 90, load: 'none', by: mode, isFigure: false });
  }

  protected addWeight(): void {
    this.impose({ what: 'bears', limb: 'both', joint: 'knee', load: 'body', by: 'held' });
  }

  protected addEffort(): void {
    const [next] = this.drill()!.serves.filter((id) => this.directions.some((group) => group.of.some(({ value }) => value === id)));
    const of = next ?? 'hip.extension';
    this.impose({ ...this.limbed(of), what: 'works', motion: of as never, load: 'resisted', by: 'active' });
  }

  /** What it asks of the whole person: once something is named, what is not named is not asked. */
  protected ask(trait: DoneTrait): void {
    const asks = this.drill()!.asks ?? [];
    this.set({ asks: asks.includes(trait) ? asks.filter((one) => one !== trait) : [...asks, trait] });
  }

  private impose(row: Imposition): void {
    this.set({ imposes: [...this.drill()!.imposes, row] });
  }

  /** The spine has no sides. */
  private limbed(of: string): { readonly limb: Imposition['limb'] } {
    return { limb: isSpine(of.split('.')[0] as Joint) ? 'trunk' : 'measured' };
  }

  protected change(at: number, change: object): void {
    this.set({ imposes: this.drill()!.imposes.map((row, index) => (index === at ? ({ ...row, ...change } as Imposition) : row)) });
  }

  protected about(at: number, value: string): void {
    const row = this.drill()!.imposes[at]!;
    const isTrunk = row.limb === 'trunk';
    const { limb } = this.limbed(value);
    const fitting = isTrunk === (limb === 'trunk') ? row.limb : limb;
    this.change(at, 'motion' in row ? { motion: value, limb: fitting } : { joint: value, limb: fitting });
  }

  protected degrees(at: number, typed: string): void {
    const text = typed.trim().replace('°', '').replace(',', '.');
    if (text === '' || text === 'full') return this.change(at, { degrees: 'full' });
    const value = Number(text);
    if (!Number.isFinite(value))
      return this.problems.set([
        `What it does to joints, ${at + 1}: “${typed.trim()}” is no angle; allowed: degrees, or nothing for as far as it goes.`,
      ]);
    this.problems.set([]);
    this.change(at, { degrees: value });
  }

  protected unimpose(at: number): void {
    this.set({ imposes: this.drill()!.imposes.filter((_, index) => index !== at) });
  }

  protected mark(value: string): void {
    const { moves } = this.drill()!;
    const one = markerOf(value);
    if (value !== '' && !moves.some((other) => JSON.stringify(other) === JSON.stringify(one))) this.set({ moves: [...moves, one] });
  }

  protected unmark(at: number): void {
    this.set({ moves: this.drill()!.moves.filter((_, index) => index !== at) });
  }

  protected pose(which: 'start' | 'end', value: string): void {
    const before = this.drill()![which];
    const pose: Pose = protocolOfId(value) ? { protocol: value, value: 'value' in before ? before.value : 0 } : { scene: value };
    this.set({ [which]: pose });
  }

  protected poseTurned(which: 'start' | 'end', typed: string): void {
    const pose = this.drill()![which];
    const value = Number(typed.trim().replace(',', '.'));
    if ('scene' in pose || !Number.isFinite(value) || typed.trim() === '') return;
    const { min, max } = motion(protocolOfId(pose.protocol)!.motion).limits;
    if (value < min || value > max)
      return this.problems.set([`Figure at the ${which}: ${typed.trim()} cannot be drawn; allowed: ${min} to ${max}.`]);
    this.problems.set([]);
    this.set({ [which]: { ...pose, value } });
  }

  protected neighbour(which: 'easier' | 'harder', id: string): void {
    this.set({ [which]: id || null });
  }

  protected keep(): void {
    const drill = this.drill()!;
    const whole: OwnDrill = this.id() === 'new' ? { ...drill, id: this.freeId(drill.name), name: drill.name.trim() } : drill;
    const problems = wrongWith(whole, this.others());
    this.problems.set(problems);
    if (problems.length > 0 || this.busy()) return;
    this.busy.set(true);
    this.api.call(DRILL_LIST.keepDrill, { body: { drill: whole as never, inUse: true } }).subscribe({
      next: () => {
        this.drafts.drop(this.draftName());
        void this.router.navigate(['/drills']);
      },
      error: (error: unknown) => {
        this.busy.set(false);
        this.problems.set([describeFailure(toFailure(error))]);
      },
    });
  }

  /** An id that no drill of the clinic had before. */
  private freeId(name: string): string {
    const taken = new Set(this.own().map(({ drill }) => drill.id));
    const id = ownDrillId(name);
    for (let at = 2; ; at += 1) {
      const next = at === 2 ? id : `${id.slice(0, 40)}-${at - 1}`;
      if (!taken.has(next)) return next;
    }
  }
}
