import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import { MatRadioModule } from '@angular/material/radio';
import { DomSanitizer, type SafeHtml } from '@angular/platform-browser';
import { RouterLink } from '@angular/router';
import { PAIRINGS, type DeviceKind } from '@dial-gauge/contract';
import { ZEROS, type ZeroAt } from '@dial-gauge/core';
import { Api } from '../data/api';
import { describeFailure, toFailure } from '../data/problem';
import type { Exam } from './exam';
import { HOLD_AFTER } from './sources/live';

const ZERO_WORDS: Readonly<Record<ZeroAt, string>> = {
  start: 'here, where it is',
  level: 'level: the horizontal it is nearest to',
  plumb: 'plumb: the vertical it is nearest to',
};

interface Code {
  readonly id: string;
  readonly shown: string;
  readonly until: number;
  readonly address: string;
  readonly picture: SafeHtml;
}

/** Connects instruments, sets how they are read, and lets them go. */
@Component({
  selector: 'dg-instruments-dialog',
  imports: [MatButtonModule, MatDialogModule, MatRadioModule, RouterLink],
  template: `
    <h2 mat-dialog-title>Instruments</h2>
    <mat-dialog-content>
      @if (live.trouble(); as why) {
        <p class="problem" role="status">{{ why }}</p>
      }
      <ul aria-label="Connected">
        @for (one of live.instruments(); track one.id; let index = $index) {
          <li>
            <span>
              <strong>{{ one.name }}</strong>
              {{ live.used().length > 1 ? (index === 0 ? 'at the upper site' : index === 1 ? 'at the lower site' : '') : '' }}
              {{ one.isHere ? '' : ' is gone' }}
              {{ one.battery === null ? '' : ' · battery ' + percent(one.battery) }}
            </span>
            <button matButton type="button" [attr.aria-label]="'Let go: ' + one.name" (click)="letGo(one.id, one.kind)">Let go</button>
          </li>
        } @empty {
          <li>Nothing is connected.</li>
        }
      </ul>
      @if (live.used().length > 1) {
        <button matButton="outlined" type="button" (click)="live.swap()">Upper and lower the other way round</button>
      }
      <h3>Connect</h3>
      <div class="row">
        <button matButton="outlined" type="button" [disabled]="busy()" (click)="pair()">A phone, by a code</button>
        <a matButton="outlined" [routerLink]="['/visits', visit, 'instruments']" target="_blank" rel="opener" (click)="listen()">
          A simulated inclinometer, in a tab of its own
        </a>
        <a matButton="outlined" [routerLink]="['/visits', visit, 'picture']" mat-dialog-close>A still or a clip</a>
        @if (live.isOn()) {
          <button matButton type="button" (click)="live.disconnect()">Read no instruments</button>
        } @else {
          <button matButton type="button" (click)="live.connect()">Read what is connected</button>
        }
      </div>
      @if (code(); as made) {
        <div class="code" role="status">
          <div class="qr" role="img" aria-label="The address as a picture for the phone's camera" [innerHTML]="made.picture"></div>
          <p>
            Open <strong class="address">{{ made.address }}</strong> on the phone, or take the picture with its camera. Code
            <strong class="digits">{{ made.shown }}</strong>
          </p>
          <p class="soft">Used once, for {{ left() }} more. The phone hears which motion is measured, and never whose it is.</p>
          @if (onlyHere) {
            <p class="warn">
              This page is open under an address of this machine alone ({{ host }}): no phone reaches it. Open it under the machine’s own
              name, over https, as docs/instruments.md tells.
            </p>
          } @else if (!isSecure) {
            <p class="warn">
              This page came over plain http: a phone tells its tilt to pages that came over https only. docs/instruments.md tells how to
              start the server with a certificate of its own.
            </p>
          }
        </div>
      }
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <fieldset>
        <legend>Set zero</legend>
        @for (at of zeros; track at) {
          <button matButton="outlined" type="button" [disabled]="!live.used().length" (click)="live.zero(at)">{{ zeroWords[at] }}</button>
        }
      </fieldset>
      <fieldset>
        <legend>Hold by itself when it is still for</legend>
        <mat-radio-group [value]="live.choices().holdAfter" (change)="live.change({ holdAfter: $event.value })">
          @for (seconds of holdAfter; track seconds) {
            <mat-radio-button [value]="seconds">{{ seconds === 0 ? 'never: by hand' : seconds + ' s' }}</mat-radio-button>
          }
        </mat-radio-group>
      </fieldset>
      <fieldset>
        <legend>A hold takes</legend>
        <mat-radio-group [value]="live.choices().peak" (change)="live.change({ peak: $event.value })">
          <mat-radio-button [value]="false">where it is</mat-radio-button>
          <mat-radio-button [value]="true">the furthest since zero</mat-radio-button>
        </mat-radio-group>
      </fieldset>
      <p class="soft">
        The needle is the middle of three samples: one sample late at the most. A hold is the middle of the last quarter second while the
        instrument is still. From 10° out of plane that is said and kept with the reading, from 30° nothing is read.
      </p>
    </mat-dialog-content>
    <mat-dialog-actions align="end"><button matButton="filled" mat-dialog-close>Back to the dial</button></mat-dialog-actions>
  `,
  styleUrl: './instruments.dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class InstrumentsDialog {
  private readonly api = inject(Api);
  private readonly sanitizer = inject(DomSanitizer);
  private readonly exam = inject<Exam>(MAT_DIALOG_DATA);
  protected readonly live = this.exam.live;
  protected readonly visit = this.exam.record.visit()!.visit.id;
  protected readonly zeros = ZEROS;
  protected readonly zeroWords = ZERO_WORDS;
  protected readonly holdAfter = HOLD_AFTER;
  protected readonly busy = signal(false);
  protected readonly problem = signal('');
  private readonly made = signal<Code | null>(null);
  private readonly now = signal(Date.now());
  /** Used, or run out, it is worth nothing: it is taken off the screen. */
  protected readonly code = computed(() => {
    const made = this.made();
    const used = made !== null && this.live.instruments().some(({ id }) => id === made.id);
    return made && !used && made.until > this.now() ? made : null;
  });
  protected readonly left = computed(() => {
    const seconds = Math.max(0, Math.round(((this.code()?.until ?? 0) - this.now()) / 1000));
    return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')} min`;
  });
  protected readonly host = location.host;
  protected readonly onlyHere = /^(localhost|127\.|\[::1\])/.test(location.host);
  protected readonly isSecure = location.protocol === 'https:';
  protected readonly percent = (share: number): string => `${Math.round(share * 100)} %`;

  constructor() {
    const ticking = setInterval(() => this.now.set(Date.now()), 1000);
    inject(DestroyRef).onDestroy(() => clearInterval(ticking));
  }

  protected listen(): void {
    if (!this.live.isOn()) this.live.connect();
  }

  protected pair(): void {
    this.listen();
    this.busy.set(true);
    this.problem.set('');
    this.api.call(PAIRINGS.pair, { id: this.visit, body: { id: crypto.randomUUID() } }).subscribe({
      next: (code) => void this.show(code),
      error: (error: unknown) => {
        this.busy.set(false);
        this.problem.set(`No code was made. ${describeFailure(toFailure(error))}`);
      },
    });
  }

  private async show({ id, code, expiresAt }: { id: string; code: string; expiresAt: string }): Promise<void> {
    const { default: qrcode } = await import('qrcode');
    const address = `${location.origin}/phone`;
    // The code stands behind the #: it reaches no log.
    const picture = await qrcode.toString(`${address}#${code}`, { type: 'svg', margin: 2 });
    this.made.set({
      id,
      shown: `${code.slice(0, 3)} ${code.slice(3)}`,
      until: Date.parse(expiresAt),
      address: address.replace(/^https?:\/\//, ''),
      picture: this.sanitizer.bypassSecurityTrustHtml(picture),
    });
    this.busy.set(false);
  }

  protected letGo(id: string, kind: DeviceKind): void {
    this.live.letGo(id);
    if (kind === 'phone')
      this.api.call(PAIRINGS.unpair, { id, body: {} }).subscribe({
        error: (error: unknown) => this.problem.set(`The phone may still be paired. ${describeFailure(toFailure(error))}`),
      });
  }
}
