import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { errorContextOf, type MeasurementView, type NewRetest, type RetestsView, type RetestView, limitsOf } from '@dial-gauge/contract';
import {
  allowedFor,
  bothWaysWords,
  describeEnd,
  finishOf,
  forbiddenWords,
  isPast,
  judgeRetest,
  modedName,
  motion,
  protocolOf,
  protocolOfId,
  readAtDial,
  valueOfReading,
  type Finish,
  type JudgedRound,
  type Marker,
} from '@dial-gauge/core';
import type { Command } from '../data/commands';
import { CommandQueue } from '../data/command-queue';
import { Session } from '../data/session';
import { Tools } from '../measure/record/tools';
import { retestsShown } from './retests-shown';

/** Which reading comes next. */
export interface Place {
  readonly round: number;
  readonly marker: number;
}

/** A retest with what its figures say. */
export interface Judged {
  readonly view: RetestView;
  readonly markers: readonly Marker[];
  readonly names: readonly string[];
  readonly rounds: readonly JudgedRound[];
}

/**
 * Retests of one visit: markers, a baseline, and for every drill the same
 * markers again. What is entered shows at once and waits in the queue until
 * the server has it.
 */
@Injectable()
export class Retesting {
  private readonly queue = inject(CommandQueue);
  private readonly session = inject(Session);
  private readonly tools = inject(Tools);
  readonly view = signal<RetestsView | null>(null);
  private readonly commands = signal<readonly Command[]>([]);
  /** Where somebody goes back to a reading to put it right. */
  private readonly wanted = signal<Place | null>(null);
  readonly problem = signal('');
  /** Counts up when the server has taken the end of a retest: what helped may be read again. */
  readonly ended = signal(0);

  private readonly errors = computed(() => {
    const view = this.view();
    return view ? errorContextOf(view) : {};
  });
  readonly all = computed((): readonly Judged[] => {
    const view = this.view();
    if (!view) return [];
    return retestsShown(view.retests, this.commands(), this.session.current()?.user.name ?? '').map((retest) => {
      const markers = retest.markers.map((marker) => ({ ...marker, motion: protocolOfId(marker.protocol)!.motion }));
      return { view: retest, markers, names: markers.map(markerName), rounds: judgeRetest(markers, retest.rounds, this.errors()) };
    });
  });
  /** The one that is being done. */
  readonly open = computed(() => this.all().find(({ view }) => view.finishedAt === null) ?? null);
  readonly finished = computed(() => this.all().filter(({ view }) => view.finishedAt !== null));
  readonly memory = computed(() => this.view()?.memory ?? []);
  readonly place = computed((): Place | null => {
    const retest = this.open();
    if (!retest) return null;
    const wanted = this.wanted();
    if (wanted && wanted.round < retest.rounds.length && wanted.marker < retest.markers.length) return wanted;
    const round = retest.rounds.length - 1;
    const marker = retest.rounds[round]!.values.findIndex((value) => value === null);
    return marker < 0 ? null : { round, marker };
  });
  readonly finish = computed((): Finish | null => {
    const retest = this.open();
    return retest && finishOf(retest.rounds, this.memory());
  });

  constructor() {
    this.queue.answers.pipe(takeUntilDestroyed(inject(DestroyRef))).subscribe(({ command, failure, kept }) => {
      if (command.route === 'finishRetest' && !failure && !kept) this.ended.update((n) => n + 1);
      // What the server would not take is not shown as if it were there; the header says why.
      if (failure || kept) this.commands.update((commands) => commands.filter(({ id }) => id !== command.id));
    });
  }

  async load(view: RetestsView): Promise<void> {
    const waiting = await this.queue.waitingOf(view.visit.id);
    const kept = this.view()?.visit.id === view.visit.id ? this.commands() : [];
    this.commands.set([...kept, ...waiting.filter(({ id }) => !kept.some((command) => command.id === id))]);
    this.view.set(view);
  }

  start(markers: NewRetest['markers']): void {
    const id = crypto.randomUUID();
    const visitId = this.view()!.visit.id;
    this.send({ id, route: 'startRetest', target: visitId, visitId, words: 'a retest', body: { id, markers } });
  }

  /** Reads what was typed for the marker in turn. */
  read(typed: string): boolean {
    const [retest, place] = [this.open(), this.place()];
    if (!retest || !place) return false;
    const marker = retest.markers[place.marker]!;
    const protocol = protocolOfId(marker.protocol)!;
    const read = readAtDial(typed, protocol, this.tools.toolFor(protocol, marker.instrument));
    if (!read.ok) return this.refuse(read.message);
    if ('arc' in read) return this.refuse(`"${typed}" is a whole arc; allowed: one reading of this marker.`);
    if (read.side && read.side !== marker.side) return this.refuse(`This marker is on the ${marker.side} side; allowed: a reading of it.`);
    if (read.other) return this.refuse(`${bothWaysWords(protocol, read.reading, read.other)}.`);
    const value = valueOfReading(protocol, read.reading);
    const allowed = allowedFor(marker, limitsOf(this.view()!));
    if (isPast(allowed, value, marker.motion)) return this.refuse(pastWords(allowed, marker));
    this.wanted.set(null);
    const id = crypto.randomUUID();
    this.sendTo(retest, {
      id,
      route: 'readMarker',
      words: `${retest.names[place.marker]!} ${typed}`,
      body: { id, round: place.round, marker: place.marker, value },
    });
    return true;
  }

  /** Notes what was done; the markers come again. */
  drill(drill: string): void {
    const retest = this.open();
    const words = drill.trim();
    if (!retest) return;
    if (words.length < 2) {
      this.refuse('What was done: name the drill in two letters or more, so that it can be found again.');
      return;
    }
    const id = crypto.randomUUID();
    this.sendTo(retest, { id, route: 'noteDrill', words: `drill “${words}”`, body: { id, number: retest.rounds.length, drill: words } });
  }

  end(): void {
    const retest = this.open();
    if (retest) this.sendTo(retest, { id: crypto.randomUUID(), route: 'finishRetest', words: 'the end of a retest', body: {} });
  }

  goTo(place: Place): void {
    this.problem.set('');
    this.wanted.set(place);
  }

  /** What may be a marker: measured at this visit, an amount, and not forbidden. */
  readonly candidates = computed((): readonly MeasurementView[] => {
    const view = this.view();
    if (!view) return [];
    return view.measured.filter((m) => {
      const forbidden = allowedFor({ ...m, protocol: protocolOf(m).id }, limitsOf(view)).kind === 'forbidden';
      return motion(m.motion).unit !== 'yesNo' && !forbidden;
    });
  });

  private sendTo(retest: Judged, command: DistributeOmit<Command, 'userId' | 'visitId' | 'target'>): void {
    this.send({ ...command, target: retest.view.id, visitId: this.view()!.visit.id });
  }

  private send(command: DistributeOmit<Command, 'userId'>): void {
    this.problem.set('');
    this.commands.update((commands) => [...commands, { ...command, userId: '' } as Command]);
    this.queue.add(command);
  }

  private refuse(message: string): false {
    this.problem.set(message);
    return false;
  }
}

type DistributeOmit<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never;

function markerName({ motion: id, side, mode, digit }: Marker): string {
  return modedName(id, side, mode, digit);
}

function pastWords(allowed: ReturnType<typeof allowedFor>, marker: Marker): string {
  if (allowed.kind === 'forbidden') return `It is not to be measured: ${forbiddenWords(allowed)}.`;
  const limit = allowed.kind === 'stop' ? `${describeEnd(motion(marker.motion), allowed.at)}, set by ${allowed.by.source}` : '';
  return `That is past the limit of ${limit}: stop there. A reading past it is entered on Measure, with its reason.`;
}
