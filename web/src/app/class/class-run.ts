import { computed, inject, Injectable, signal } from '@angular/core';
import {
  PATIENTS,
  SCREENINGS,
  screensDoneOf,
  VISITS,
  type CaseloadRow,
  type ScreensView,
  type ScreenTryView,
  limitsOf,
} from '@dial-gauge/contract';
import {
  allowedDoing,
  backTo,
  drillAnswers,
  drillTally,
  findItem,
  findScreen,
  forbiddenWords,
  gradedScreens,
  SCREENS,
  standingOf,
  type AfterDrill,
  type ItemTry,
  type Side,
  type Standing,
  NO_LIMITS,
} from '@dial-gauge/core';
import { firstValueFrom } from 'rxjs';
import { fullName, today } from '../caseload/words';
import { Api } from '../data/api';
import type { Command } from '../data/commands';
import { CommandQueue } from '../data/command-queue';
import { Drafts } from '../data/drafts';
import { describeFailure, toFailure } from '../data/problem';
import { Session } from '../data/session';
import { screensOf } from '../screen/steps';
import { triesShown } from '../screen/tries-shown';

/** Somebody in the class, with the visit that keeps what is tapped. */
export interface Member {
  readonly visitId: string;
  readonly name: string;
}

interface ClassKept {
  readonly members: readonly Member[];
  readonly screen: string;
  readonly item: string;
  readonly drill: string;
}

const NAME = 'class';
const isKept = (value: unknown): value is ClassKept => typeof value === 'object' && value !== null && 'members' in value && 'item' in value;
const AFTER = { screen: 'quickMarkers', item: 'afterDrill' } as const;

/** One row of the grid. */
export interface MemberRow extends Member {
  readonly standing: readonly { readonly side: Side; readonly is: Standing }[];
  readonly forbidden: string;
  readonly after: AfterDrill | null;
  readonly back: ReturnType<typeof backTo>;
  readonly signed: boolean;
}

/**
 * A class: who is in it, the item that is looked at, the drill that was done.
 * Every tap is kept in that person’s own visit, as any try of a screen is.
 */
@Injectable()
export class ClassRun {
  private readonly api = inject(Api);
  private readonly queue = inject(CommandQueue);
  private readonly drafts = inject(Drafts);
  private readonly session = inject(Session);
  readonly members = signal<readonly Member[]>([]);
  readonly screen = signal('patterns');
  readonly itemId = signal('squat');
  readonly drill = signal('');
  readonly problem = signal('');
  private readonly views = signal<ReadonlyMap<string, ScreensView>>(new Map());
  private readonly commands = signal<readonly Command[]>([]);

  readonly screens = computed(() => screensOf([...this.views().values()][0]?.settings ?? null));
  readonly item = computed(() => {
    const found = findScreen(this.screen(), this.screens()) ?? SCREENS[0]!;
    return findItem(found, this.itemId()) ?? found.items[0]!;
  });
  /** Sides that are tapped: one for the body, or left and right. */
  readonly sides = computed((): readonly Side[] => (this.item().sides === 'each' ? ['left', 'right'] : ['midline']));

  private triesOf(visitId: string): readonly ScreenTryView[] {
    const own = this.commands().filter((command) => command.visitId === visitId);
    return triesShown(this.views().get(visitId)?.tries ?? [], own, this.session.current()?.user.name ?? '');
  }

  private afterOf(visitId: string) {
    return drillAnswers(
      this.triesOf(visitId).flatMap((t) => (t.screen === AFTER.screen && t.item === AFTER.item && t.try ? [t.try as ItemTry] : [])),
    );
  }

  readonly rows = computed((): readonly MemberRow[] =>
    this.members().map((member) => {
      const view = this.views().get(member.visitId);
      const graded = gradedScreens(screensDoneOf(this.triesOf(member.visitId), view?.visit.assessedOn ?? today()), {}, this.screens());
      const item = this.item();
      const allowed = allowedDoing(item, 'midline', view ? limitsOf(view) : NO_LIMITS);
      const answers = this.afterOf(member.visitId);
      return {
        ...member,
        standing: this.sides().map((side) => ({
          side,
          is: standingOf(
            graded.find((g) => g.screen === this.screen() && g.item.id === item.id && g.side === side && !g.done.with?.length),
          ),
        })),
        forbidden:
          allowed.kind === 'forbidden'
            ? forbiddenWords(allowed)
            : view?.cautions?.outcome === 'refer'
              ? 'a caution question ended this visit'
              : '',
        after: answers.filter(({ drill }) => drill === this.drill()).at(-1)?.answer ?? null,
        back: backTo(answers),
        signed: view?.visit.signed ?? false,
      };
    }),
  );
  readonly tally = computed(() => drillTally(this.members().map(({ visitId }) => this.afterOf(visitId))));
  readonly worse = computed(() => this.rows().filter(({ back }) => back !== null));

  /** The class as it was on this device, with what each visit holds by now. */
  async resume(): Promise<void> {
    const kept = this.drafts.read(NAME, isKept);
    if (!kept) return;
    this.screen.set(kept.screen);
    this.itemId.set(kept.item);
    this.drill.set(kept.drill);
    await this.take(kept.members);
  }

  /** Everybody gets a visit of today: the open one, or a new one. */
  async begin(rows: readonly CaseloadRow[]): Promise<void> {
    try {
      const members: Member[] = [];
      for (const { patient, episode, lastVisit } of rows) {
        const open = lastVisit && lastVisit.assessedOn === today() && !lastVisit.signed ? lastVisit.id : null;
        const visitId = open ?? crypto.randomUUID();
        if (!open) await firstValueFrom(this.api.call(VISITS.startVisit, { id: episode.id, body: { id: visitId, assessedOn: today() } }));
        members.push({ visitId, name: fullName(patient) });
      }
      await this.take(members);
      this.keepState();
    } catch (error) {
      this.problem.set(describeFailure(toFailure(error)));
    }
  }

  end(): void {
    this.drafts.drop(NAME);
    this.members.set([]);
    this.drill.set('');
  }

  choose(screen: string, item: string): void {
    this.screen.set(screen);
    this.itemId.set(item);
    this.keepState();
  }

  setDrill(words: string): boolean {
    const drill = words.trim();
    if (drill.length < 2) {
      this.problem.set('The drill: name it in two letters or more, so that it can be found again.');
      return false;
    }
    this.problem.set('');
    this.drill.set(drill);
    this.keepState();
    return true;
  }

  /** One tap: how it went, or that it hurts and how much. */
  tap({ visitId, name }: Member, side: Side, one: ItemTry): void {
    this.send(visitId, name, this.screen(), this.item().id, side, one);
  }

  after({ visitId, name }: Member, answer: AfterDrill): void {
    this.send(visitId, name, AFTER.screen, AFTER.item, 'midline', { answer, note: this.drill() });
  }

  private send(visitId: string, name: string, screen: string, item: string, side: Side, one: ItemTry): void {
    const id = crypto.randomUUID();
    const body = { id, screen, item, ...(side === 'midline' ? {} : { side }), try: one as never };
    const command = { id, visitId, target: visitId, route: 'holdScreenTry' as const, words: `${name}: ${item}`, body };
    this.commands.update((commands) => [...commands, { ...command, userId: '' } as Command]);
    this.queue.add(command);
  }

  /** What the server would not take is not shown as if it were there. */
  refused(id: string): void {
    this.commands.update((commands) => commands.filter((command) => command.id !== id));
  }

  private async take(members: readonly Member[]): Promise<void> {
    const views = new Map<string, ScreensView>();
    const waiting: Command[] = [];
    for (const { visitId } of members) {
      try {
        views.set(visitId, await firstValueFrom(this.api.call(SCREENINGS.screens, { id: visitId })));
      } catch (error) {
        this.problem.set(describeFailure(toFailure(error)));
      }
      waiting.push(...(await this.queue.waitingOf(visitId)));
    }
    this.commands.set(waiting);
    this.views.set(views);
    this.members.set(members);
  }

  private keepState(): void {
    this.drafts.keep(NAME, {
      members: this.members(),
      screen: this.screen(),
      item: this.itemId(),
      drill: this.drill(),
    } satisfies ClassKept);
  }
}

export const CASELOAD = PATIENTS.caseload;
