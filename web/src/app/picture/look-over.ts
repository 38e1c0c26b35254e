import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import {
  checkReview,
  CLIP_TELLS,
  atLeastOff,
  FAULTS,
  itemName,
  itemsSeenFrom,
  markWords,
  momentWords,
  MOST_TO_WORK_ON,
  SURENESS,
  triesIn,
  upper,
  VIEWS,
  type ClipMark,
  type ClipTells,
  type ClipTry,
  type FaultId,
  type Side,
  type Sureness,
  type View,
} from '@dial-gauge/core';
import { Drafts } from '../data/drafts';
import { Said } from '../ui/said';
import { Marking } from './marking';
import { Review } from './review';
import { Stills } from './stills';

/** A mark that is being made. */
interface Form {
  readonly tells: ClipTells;
  readonly item: string;
  readonly fault: string;
  readonly side: Side;
  readonly sure: Sureness;
  readonly words: string;
  /** The angle that goes with it; empty: none. */
  readonly angle: string;
  readonly withStill: boolean;
}
const EMPTY: Form = { tells: 'work', item: '', fault: '', side: 'midline', sure: 'likely', words: '', angle: '', withStill: false };
const isForm = (value: unknown): value is Form => typeof value === 'object' && value !== null && 'tells' in value && 'angle' in value;

const TELLS_WORDS: Readonly<Record<ClipTells, string>> = { strength: 'goes well', work: 'to work on', unseen: 'cannot be seen' };
const SIDE_WORDS: Readonly<Record<Side, string>> = { left: 'left', right: 'right', midline: 'no side' };

/** Looking over a clip that somebody sent: marks in the order of time, for a page and for the screens. */
@Component({
  selector: 'dg-look-over',
  imports: [MatButtonModule, RouterLink, Said, Stills],
  templateUrl: './look-over.html',
  styleUrl: './look-over.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LookOver {
  protected readonly review = inject(Review);
  protected readonly marking = inject(Marking);
  private readonly drafts = inject(Drafts);
  readonly visitId = input.required<string>();
  readonly size = input.required<{ readonly width: number; readonly height: number } | null>();
  /** The picture as it is shown, with its lines, as JPEG in base64; null where none is open. */
  readonly snap = input.required<() => string | null>();
  readonly seek = output<number>();

  protected readonly tells = CLIP_TELLS;
  protected readonly sureness = SURENESS;
  protected readonly views = VIEWS;
  protected readonly sides: readonly Side[] = ['left', 'right', 'midline'];
  protected readonly words = { tells: TELLS_WORDS, side: SIDE_WORDS, moment: momentWords, mark: markWords };
  protected readonly problem = signal('');
  private readonly formName = computed(() => `clip-mark.${this.visitId()}`);
  protected readonly form = linkedSignal<string, Form>({
    source: this.formName,
    computation: (name) => this.drafts.read(name, isForm) ?? EMPTY,
  });
  protected readonly view = computed(() => this.review.marked()?.view ?? 'side');

  /** Items by screen, those that can be seen from here. */
  protected readonly groups = computed(() => {
    const by = new Map<string, { readonly name: string; readonly items: { readonly key: string; readonly name: string }[] }>();
    for (const { screen, item } of itemsSeenFrom(this.view())) {
      const group = by.get(screen.id) ?? { name: screen.name, items: [] };
      group.items.push({ key: `${screen.id}/${item.id}`, name: item.name });
      by.set(screen.id, group);
    }
    return [...by.values()];
  });
  private readonly item = computed(() =>
    itemsSeenFrom(this.view()).find(({ screen, item }) => `${screen.id}/${item.id}` === this.form().item),
  );
  protected readonly faults = computed(() => {
    const found = this.item();
    if (!found || this.form().tells === 'strength') return [];
    return found.item.faults
      .filter(({ views }) => views.length === 0 || views.includes(this.view()))
      .map(({ id }) => ({ id, name: FAULTS[id] }));
  });
  /** What the marks say of items of screens. */
  protected readonly tries = computed(() => {
    const marked = this.review.marked();
    if (!marked || this.wrong()) return [];
    return triesIn(marked).map((one) => {
      const { item } = itemsSeenFrom(marked.view).find(({ screen, item }) => screen.id === one.screen && item.id === one.item)!;
      const name = upper(itemName({ name: item.name, side: one.side, view: one.view, with: [] }));
      const faults = one.try.faults ?? [];
      const seen = faults.length > 0 ? faults.map((id) => FAULTS[id]).join(', ') : 'none of its faults seen';
      const key = JSON.stringify(one);
      return { one, name, seen, key, isTaken: marked.taken.includes(key) };
    });
  });
  /** What of the marks would be refused, in words. */
  protected readonly wrong = computed(() => {
    const marked = this.review.marked();
    const [first] = marked ? checkReview(marked) : [];
    if (!first) return '';
    const at = typeof first.path[1] === 'number' ? marked!.marks[first.path[1]] : undefined;
    return at ? `The mark at ${momentWords(at.t)}: ${String(first.path[2])} ${first.message}.` : `It ${first.message}.`;
  });
  protected readonly most = MOST_TO_WORK_ON;

  protected set(change: Partial<Form>): void {
    this.problem.set('');
    this.form.update((form) => ({ ...form, ...change }));
    this.drafts.keep(this.formName(), this.form());
  }

  protected setView(view: string): void {
    this.review.change({ view: view as View });
    this.set({ item: '', fault: '' });
  }

  protected add(): void {
    const { tells, item, fault, side, sure, words, angle: chosen, withStill } = this.form();
    const marked = this.review.marked();
    if (!marked) return this.problem.set('Open a clip first: a mark belongs to a moment of it.');
    const [screen, itemId] = item.split('/') as [string, string?];
    const size = this.size();
    const angles = this.marking
      .values()
      .filter(({ angle }) => angle.id === chosen)
      .map((value) => ({
        label: value.angle.label,
        degrees: Math.round(value.degrees * 10) / 10,
        error: Math.round(atLeastOff(value, 0.1) * 10) / 10,
      }));
    const share = (value: number, of: number): number => Math.min(1, Math.max(0, Math.round((value / of) * 10_000) / 10_000));
    const mark: ClipMark = {
      id: crypto.randomUUID(),
      t: this.marking.at(),
      tells,
      side,
      shows: itemId ? { screen, item: itemId, fault: tells === 'strength' ? null : ((fault || null) as FaultId | null) } : null,
      words: words.trim(),
      sure,
      lines: size
        ? this.marking.lines().map(({ from, to }) => [
            [share(from[0], size.width), share(from[1], size.height)],
            [share(to[0], size.width), share(to[1], size.height)],
          ])
        : [],
      angles,
      still: null,
    };
    const alone = checkReview({ ...marked, marks: [...marked.marks, mark] }).find(
      ({ path }) => path[1] === marked.marks.length || path.length === 1,
    );
    if (alone) return this.problem.set(`${String(alone.path[2] ?? 'It')} ${alone.message}.`);
    this.review.put(mark);
    // Said once it is kept: the next mark begins with the same item.
    this.set({ words: '', fault: '', withStill: false });
    const still = withStill ? this.snap()() : null;
    if (still) this.review.attach(still, `${marked.file}, ${momentWords(mark.t)}`, (id) => this.review.put({ ...mark, still: id }));
  }

  protected attachShown(): void {
    const still = this.snap()();
    if (!still) return this.problem.set('Open a still or a clip first: what is shown is attached.');
    const file = this.marking.file();
    this.review.attach(still, this.marking.at() > 0 ? `${file}, ${momentWords(this.marking.at())}` : file);
  }

  protected take({ one, name, key }: { readonly one: ClipTry; readonly name: string; readonly key: string }): void {
    this.review.toScreen(one, name);
    this.review.change({ taken: [...(this.review.marked()?.taken ?? []), key] });
  }
}
