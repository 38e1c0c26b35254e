import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { STALE_SECONDS } from '@dial-gauge/core';
import { interval } from 'rxjs';
import { PLANE_WORDS, PlaneRing } from '../ui/plane-ring';
import { PhoneStore } from './phone-store';
import { TiltSensor } from './tilt';

/** A browser that tells nothing by then will not. */
const SILENT_MS = 2_500;

/** A phone held against the limb: huge digits, level and plane, and a hold by touching it anywhere. */
@Component({
  selector: 'dg-phone',
  imports: [PlaneRing],
  templateUrl: './phone.html',
  styleUrl: './phone.scss',
  providers: [PhoneStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PhonePage {
  protected readonly store = inject(PhoneStore);
  protected readonly sensor = inject(TiltSensor);
  protected readonly code = signal(codeInAddress());
  protected readonly busy = signal(false);
  protected readonly may = signal(!this.sensor.mustAsk);
  protected readonly isDenied = signal(false);
  private readonly felt = signal(0);
  private readonly now = signal(performance.now());
  private readonly begun = performance.now();

  protected readonly tilt = this.store.tilt;
  protected readonly digits = computed(() => {
    const degrees = this.tilt()?.degrees;
    return degrees === null || degrees === undefined ? '–' : `${Math.round(degrees) + 0}°`;
  });
  protected readonly zeroWords = computed(() => {
    if ((this.tilt()?.degrees ?? null) === null) return 'no zero yet';
    return this.store.isZeroElsewhere() ? 'zero was set for another measurement: set it here' : 'from zero';
  });
  protected readonly isSilent = computed(() => this.may() && this.now() - Math.max(this.felt(), this.begun) > SILENT_MS);
  protected readonly isStale = computed(() => this.felt() > 0 && this.now() - this.felt() > STALE_SECONDS * 1000);
  protected readonly plane = computed(() => {
    const tilt = this.tilt();
    return tilt ? `${Math.round(tilt.outOfPlane)}° out of plane: ${PLANE_WORDS[tilt.verdict]}` : '';
  });
  constructor() {
    this.sensor.samples.pipe(takeUntilDestroyed()).subscribe((sample) => {
      this.felt.set(performance.now());
      this.now.set(performance.now());
      if (this.may()) this.store.feel(sample);
    });
    interval(300)
      .pipe(takeUntilDestroyed())
      .subscribe(() => this.now.set(performance.now()));
    void this.stayAwake();
    if (this.code() && !this.store.isPaired()) void this.pair();
  }

  protected async pair(): Promise<void> {
    this.busy.set(true);
    await this.store.pair(this.code());
    this.busy.set(false);
    // Used or wrong, it is worth nothing: it does not stay in the address.
    history.replaceState(null, '', '/phone');
    if (this.store.isPaired()) this.code.set('');
  }

  protected async ask(): Promise<void> {
    const may = await this.sensor.ask();
    this.may.set(may);
    this.isDenied.set(!may);
  }

  /** A phone that sleeps measures nothing. */
  private async stayAwake(): Promise<void> {
    const lock = async () => {
      try {
        await navigator.wakeLock?.request('screen');
      } catch {
        // Where it is not allowed it goes to sleep as it always does.
      }
    };
    const again = () => document.visibilityState === 'visible' && void lock();
    document.addEventListener('visibilitychange', again);
    inject(DestroyRef).onDestroy(() => document.removeEventListener('visibilitychange', again));
    await lock();
  }
}

function codeInAddress(): string {
  const found = /^#(\d{6})$/.exec(location.hash);
  return found?.[1] ?? '';
}
