import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import { Router, RouterLink, RouterLinkActive } from '@angular/router';
import type { Act } from '@dial-gauge/contract/roles';
import { concatMap, filter } from 'rxjs';
import { format, isToday } from 'date-fns';
import { AtHand } from '../data/at-hand';
import { CommandQueue } from '../data/command-queue';
import { Drafts } from '../data/drafts';
import { May } from '../data/may';
import { Session } from '../data/session';
import { Parts } from '../ui/parts';
import { NewVersion } from './new-version';
import { SignOutDialog, type SignOutChoice } from './sign-out.dialog';
import { ThemeChoice } from './theme';

const STEPS = [
  { path: 'prepare', name: 'Prepare' },
  { path: 'screen', name: 'Screen' },
  { path: 'measure', name: 'Measure' },
  { path: 'judge', name: 'Judge' },
  { path: 'progress', name: 'Progress' },
  { path: 'decide', name: 'Decide' },
  { path: 'report', name: 'Report' },
] as const;

/** The frame of every page: whose record this is, where in the visit we are, what is saved. */
@Component({
  selector: 'dg-frame',
  imports: [MatIconModule, MatMenuModule, MatTooltipModule, RouterLink, RouterLinkActive],
  templateUrl: './frame.html',
  styleUrl: './frame.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Frame {
  private readonly router = inject(Router);
  private readonly session = inject(Session);
  private readonly dialog = inject(MatDialog);
  protected readonly queue = inject(CommandQueue);
  protected readonly drafts = inject(Drafts);
  protected readonly parts = inject(Parts);
  protected readonly may = inject(May);
  private readonly atHand = inject(AtHand);
  /** Only pages behind the door know of it. */
  protected readonly version = inject(NewVersion, { optional: true });
  protected readonly theme = inject(ThemeChoice);
  protected readonly steps = STEPS;

  /** Patient or page. */
  readonly heading = input.required<string>();
  readonly about = input('');
  /** Where the heading leads, if anywhere. */
  readonly headingLink = input<string>();
  /** Set inside a visit: shows the strip of its steps. */
  readonly visitId = input<string>();
  /** Which step of the visit this belongs to, where the address does not say. */
  readonly within = input<string>();
  /** What is done on this page: whoever may not do it can read here, and nothing answers. */
  readonly act = input<Act>();
  protected readonly whyNot = computed(() => {
    const act = this.act();
    return act ? this.may.why(act) : '';
  });
  /** False where what is printed says itself whose it is. */
  readonly headOnPaper = input(true);
  protected readonly clinic = () => this.session.current()?.clinic.name ?? '';

  /** "10:42": what is shown is from then, since the server is away. */
  protected readonly asOf = computed(() => {
    const at = this.atHand.shownFrom();
    return at === null ? '' : format(at, isToday(at) ? 'HH:mm' : 'd MMM HH:mm');
  });

  /** The password was set with a link, and the person has not confirmed yet that it was them. */
  protected readonly passwordLink = computed(() => {
    const link = this.session.current()?.passwordLink;
    return link ? { on: format(link.usedAt, 'd MMM HH:mm'), madeBy: link.madeBy } : null;
  });

  protected passwordLinkSeen(): void {
    this.session.passwordLinkSeen().subscribe({ error: () => {} });
  }

  /** What becomes of entries that wait. */
  protected readonly waitingWords = computed(() => {
    const { queue } = this;
    // Above it stands already that the server is away.
    if (this.asOf() !== '' && queue.lasts) return 'kept in this browser';
    return queue.problem() || (queue.lasts ? 'kept in this browser, sending …' : 'sending …');
  });

  /** "Wren" */
  protected readonly you = () => this.session.current()?.user.name.split(/\s/)[0] ?? 'You';

  constructor() {
    this.drafts.forget(false);
  }

  /** What waits is asked about also where nothing can be fetched: the dialog came with the page. */
  protected signOut(): void {
    if (this.queue.waiting() === 0) return this.leave();
    this.dialog
      .open<unknown, unknown, SignOutChoice>(SignOutDialog, { width: '480px' })
      .afterClosed()
      .pipe(
        filter((choice) => choice === 'keep' || choice === 'discard'),
        concatMap(async (choice) => {
          if (choice !== 'discard') return;
          this.drafts.forget(true);
          await this.queue.discardAll();
        }),
      )
      .subscribe(() => this.leave());
  }

  /** Asks the server for this page again. */
  protected lookAgain(): void {
    const { url } = this.router;
    void this.router.navigateByUrl('/', { skipLocationChange: true }).then(() => this.router.navigateByUrl(url));
  }

  /** The session ends here even where the server cannot be told. */
  private leave(): void {
    // Where even the door cannot be fetched, nothing of what was shown stays either.
    const out = () => void this.router.navigateByUrl('/sign-in').catch(() => location.replace('/sign-in'));
    this.session.signOut().subscribe({ complete: out, error: out });
  }
}
