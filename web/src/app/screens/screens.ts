import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { SCREENINGS, type ClinicScreensView, type NewScreenSettings } from '@dial-gauge/contract';
import { amountWords, findItem, itemId, SCREENS, suffixOf, type Screen, type ScreenItem } from '@dial-gauge/core';
import { Api } from '../data/api';
import { describeFailure, toFailure } from '../data/problem';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { screenMinutes } from '../screen/steps';

type Settings = Omit<NewScreenSettings, 'id'>;
const plain = ({ thresholds, hidden, own }: ClinicScreensView['settings']): Settings => ({ thresholds, hidden, own });

/** The screens as this clinic has them: thresholds, what is hidden, and screens put together from items. */
@Component({
  selector: 'dg-screens',
  imports: [Frame, MatButtonModule, Pending, RouterLink],
  templateUrl: './screens.html',
  styleUrl: './screens.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScreensPage {
  private readonly api = inject(Api);
  protected readonly loaded = rxResource({ stream: () => this.api.call(SCREENINGS.clinicScreens) });
  protected readonly settings = signal<Settings | null>(null);
  protected readonly problem = signal('');
  protected readonly status = signal('');
  protected readonly screens = SCREENS;
  protected readonly minutes = screenMinutes;
  protected readonly words = { amountWords, suffixOf };
  /** Items picked for a screen of one’s own. */
  protected readonly picked = signal<readonly string[]>([]);
  protected readonly own = computed(() => this.settings()?.own ?? []);

  constructor() {
    effect(() => {
      if (!this.loaded.hasValue()) return;
      const { settings } = this.loaded.value();
      untracked(() => this.settings.set(plain(settings)));
    });
  }

  protected idOf = ({ id }: Screen, item: ScreenItem): string => itemId(id, item.id);
  protected isHidden = (id: string): boolean => this.settings()?.hidden.includes(id) ?? false;
  protected thresholdOf = (id: string, item: ScreenItem): number | null => this.settings()?.thresholds[id] ?? item.threshold?.value ?? null;
  protected isOwn = (id: string): boolean => this.settings()?.thresholds[id] !== undefined;

  protected nameOf(id: string): string {
    const [screen, name] = id.split('.');
    const found = SCREENS.find((s) => s.id === screen);
    return (found && findItem(found, name!)?.name) ?? id;
  }

  protected setThreshold(id: string, item: ScreenItem, typed: string): void {
    const settings = this.settings()!;
    const rest = Object.fromEntries(Object.entries(settings.thresholds).filter(([other]) => other !== id));
    const value = Number(typed.trim().replace(',', '.'));
    if (typed.trim() !== '' && !Number.isFinite(value))
      return this.problem.set(
        `Threshold of ${item.name.toLowerCase()}: “${typed}” is no number; allowed: a number, or empty for the usual one.`,
      );
    this.save({ ...settings, thresholds: typed.trim() === '' || value === item.threshold?.value ? rest : { ...rest, [id]: value } });
  }

  protected hide(id: string, on: boolean): void {
    const settings = this.settings()!;
    this.save({ ...settings, hidden: on ? [...settings.hidden, id] : settings.hidden.filter((other) => other !== id) });
  }

  protected pick(id: string, on: boolean): void {
    this.picked.update((picked) => (on ? [...picked, id] : picked.filter((other) => other !== id)));
  }

  protected addOwn(name: string): void {
    const words = name.trim();
    if (words.length < 2) return this.problem.set('Name: two letters or more, so that the screen can be found again.');
    if (this.picked().length === 0) return this.problem.set('Items: tick the items that belong to it, then keep it.');
    const settings = this.settings()!;
    const slug = words
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 24);
    const id = `own-${slug || 'screen'}`;
    const before = settings.own.find((own) => own.id === id);
    const screen = { id, version: (before?.version ?? 0) + 1, name: words, purpose: '', items: [...this.picked()] };
    this.save({ ...settings, own: [...settings.own.filter((own) => own.id !== id), screen] }, () => this.picked.set([]));
  }

  protected removeOwn(id: string): void {
    const settings = this.settings()!;
    this.save({ ...settings, own: settings.own.filter((own) => own.id !== id) });
  }

  private save(settings: Settings, then: () => void = () => undefined): void {
    this.api.call(SCREENINGS.setScreens, { body: { id: crypto.randomUUID(), ...settings } }).subscribe({
      next: (view) => {
        this.problem.set('');
        this.status.set('saved, from today on');
        this.settings.set(plain(view.settings));
        then();
      },
      error: (error: unknown) => this.problem.set(describeFailure(toFailure(error))),
    });
  }
}
