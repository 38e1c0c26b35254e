import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { DomSanitizer, type SafeHtml } from '@angular/platform-browser';
import { PATIENT_PAGES, type MadePage } from '@dial-gauge/contract';
import { dayWords } from '@dial-gauge/core';
import { Api } from '../data/api';
import { describeFailure, toFailure } from '../data/problem';

/** How long a page may be open. */
const DAYS = [14, 30, 60, 90] as const;

/** Makes and closes the person's own page. Link and code are shown once: they are not kept. */
@Component({
  selector: 'dg-own-link',
  imports: [MatButtonModule],
  template: `
    <h2>Their own page</h2>
    <p class="soft">Drills to tick, three questions, what is better: on their own phone, by link and code, for this episode alone.</p>
    <div class="row" role="group" aria-label="Open for">
      @for (days of choices; track days) {
        <button type="button" class="chip" [attr.aria-pressed]="lasts() === days" (click)="lasts.set(days)">{{ days }} days</button>
      }
      <button matButton="outlined" type="button" [disabled]="busy()" (click)="make()">Make a page</button>
    </div>
    @if (made(); as page) {
      <div class="made" role="status">
        <p><strong>Told once: hand it over now.</strong></p>
        <div class="qr" role="img" aria-label="The link as a picture for a phone's camera" [innerHTML]="picture()"></div>
        <p class="link">{{ link() }}</p>
        <p>
          Code <strong class="code">{{ page.code }}</strong>
        </p>
        <p class="soft">Open until {{ dayWords(page.expiresAt.slice(0, 10)) }}.</p>
        <button matButton type="button" (click)="made.set(null)">Done</button>
      </div>
    }
    <ul>
      @for (page of open(); track page.id) {
        <li>
          <span>
            made {{ dayWords(page.madeAt.slice(0, 10)) }} by {{ page.madeBy }}, open until {{ dayWords(page.expiresAt.slice(0, 10)) }};
            {{ page.openedAt ? 'opened ' + dayWords(page.openedAt.slice(0, 10)) : 'not opened yet' }}
          </span>
          <button
            matButton
            type="button"
            [disabled]="busy()"
            [attr.aria-label]="'Close it: the page of ' + dayWords(page.madeAt.slice(0, 10))"
            (click)="close(page.id)"
          >
            Close it
          </button>
        </li>
      }
    </ul>
    @if (problem() || failure(); as text) {
      <p class="problem" role="alert">{{ text }}</p>
    }
  `,
  styles: `
    @use '../ui/chip';

    h2 {
      margin: 14px 0 6px;
      font-size: 15px;
    }
    p.soft,
    li {
      font-size: 13px;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      margin: 8px 0;
    }
    .chip {
      @include chip.chip;
    }
    .made {
      padding: 10px 12px;
      border: 2px solid var(--brass);
      background: var(--raised);
    }
    .qr {
      width: 148px;
      height: 148px;
      margin: 6px 0;
      background: #fff;
    }
    .link {
      overflow-wrap: anywhere;
      font-size: 13px;
    }
    .code {
      font: 700 22px var(--figures);
      letter-spacing: 0.12em;
    }
    li {
      display: flex;
      align-items: center;
      justify-content: space-between;
      gap: 8px;
      padding: 4px 0;
      border-bottom: 1px solid var(--line);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OwnLink {
  private readonly api = inject(Api);
  private readonly sanitizer = inject(DomSanitizer);
  readonly episodeId = input.required<string>();
  protected readonly choices = DAYS;
  protected readonly lasts = signal<(typeof DAYS)[number]>(30);
  protected readonly busy = signal(false);
  protected readonly problem = signal('');
  protected readonly made = signal<MadePage | null>(null);
  protected readonly picture = signal<SafeHtml>('');
  protected readonly dayWords = dayWords;
  private readonly loaded = rxResource({
    params: () => this.episodeId(),
    stream: ({ params }) => this.api.call(PATIENT_PAGES.patientPages, { id: params }),
  });
  protected readonly failure = computed(() => (this.loaded.error() ? toFailure(this.loaded.error()).message : ''));
  protected readonly open = computed(() => {
    const now = new Date().toISOString();
    const pages = this.loaded.hasValue() ? this.loaded.value().pages : [];
    return pages.filter(({ revokedAt, expiresAt }) => revokedAt === null && expiresAt > now);
  });
  protected readonly link = computed(() => `${location.origin}/p/${this.made()?.token ?? ''}`);

  protected make(): void {
    this.busy.set(true);
    this.problem.set('');
    this.api.call(PATIENT_PAGES.makePage, { id: this.episodeId(), body: { id: crypto.randomUUID(), days: this.lasts() } }).subscribe({
      next: (page) => {
        this.made.set(page);
        void this.draw();
        this.loaded.reload();
      },
      error: (error: unknown) => this.fail(error),
      complete: () => this.busy.set(false),
    });
  }

  protected close(id: string): void {
    this.busy.set(true);
    this.problem.set('');
    this.api.call(PATIENT_PAGES.revokePage, { id, body: {} }).subscribe({
      next: () => {
        if (this.made()?.id === id) this.made.set(null);
        this.loaded.reload();
      },
      error: (error: unknown) => this.fail(error),
      complete: () => this.busy.set(false),
    });
  }

  /** Drawn here: the link goes to nobody else. */
  private async draw(): Promise<void> {
    const { default: qrcode } = await import('qrcode');
    this.picture.set(this.sanitizer.bypassSecurityTrustHtml(await qrcode.toString(this.link(), { type: 'svg', margin: 2 })));
  }

  private fail(error: unknown): void {
    this.problem.set(describeFailure(toFailure(error)));
    this.busy.set(false);
  }
}
