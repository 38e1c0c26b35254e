import { Injectable } from '@angular/core';
import { gravityOf, type Gravity, type GravitySample } from '@dial-gauge/core';
import { filter, fromEvent, map, merge, type Observable, scan, share, switchMap, takeWhile, timer } from 'rxjs';

/** At most so many samples a second are used: more tells nothing of a limb. */
const RATE = 33;
const LEAST_GAP = 1000 / RATE - 4;

/** How often a tilt that does not change is told again, in milliseconds. */
const REPEAT_MS = 100;

interface AsksFirst {
  requestPermission?: () => Promise<'granted' | 'denied'>;
}

interface Told {
  readonly at: number;
  readonly g: Gravity;
  readonly from: 'orientation' | 'motion';
}

/** How this phone is tilted, as its browser tells it. */
@Injectable({ providedIn: 'root' })
export class TiltSensor {
  /** Whether the browser tells pages of this address anything: it does to those that came over https. */
  readonly isSecure = isSecureContext;

  /** Some browsers ask whoever holds the phone, and only when a button was pressed for it. */
  get mustAsk(): boolean {
    return typeof this.orientation?.requestPermission === 'function';
  }

  /** @returns whether it may be read */
  async ask(): Promise<boolean> {
    try {
      const answers = await Promise.all([this.orientation, this.motion].map((event) => event?.requestPermission?.() ?? 'granted'));
      return answers.every((answer) => answer === 'granted');
    } catch {
      return false;
    }
  }

  /** Angles where the browser works them out, and what its scale feels where it does not. */
  readonly samples: Observable<GravitySample> = merge(
    fromEvent<DeviceOrientationEvent>(window, 'deviceorientation').pipe(map(fromAngles)),
    fromEvent<DeviceMotionEvent>(window, 'devicemotion').pipe(map(fromScale)),
  ).pipe(
    filter((told): told is Told => told !== null),
    scan(
      (last: { told: Told | null; angles: boolean; isNew: boolean }, told) => {
        const angles = last.angles || told.from === 'orientation';
        // Of the two one is followed: they need not agree which way is up.
        const wanted = (told.from === 'orientation') === angles;
        const isNew = wanted && (!last.told || told.at - last.told.at >= LEAST_GAP);
        return { told: isNew ? told : last.told, angles, isNew };
      },
      { told: null, angles: false, isNew: false },
    ),
    filter(({ isNew }) => isNew),
    map(({ told }) => told!),
    // A browser says nothing while nothing changes: what it said last still holds, as long as the page is seen.
    switchMap((told) =>
      timer(0, REPEAT_MS).pipe(
        takeWhile((n) => n === 0 || document.visibilityState === 'visible'),
        map((n): GravitySample => ({ t: (told.at + n * REPEAT_MS) / 1000, g: told.g })),
      ),
    ),
    share(),
  );

  private get orientation(): AsksFirst | undefined {
    return (globalThis as { DeviceOrientationEvent?: AsksFirst }).DeviceOrientationEvent;
  }

  private get motion(): AsksFirst | undefined {
    return (globalThis as { DeviceMotionEvent?: AsksFirst }).DeviceMotionEvent;
  }
}

function fromAngles({ beta, gamma, timeStamp }: DeviceOrientationEvent): Told | null {
  return beta === null || gamma === null ? null : { at: timeStamp, g: gravityOf(beta, gamma), from: 'orientation' };
}

function fromScale({ accelerationIncludingGravity: felt, timeStamp }: DeviceMotionEvent): Told | null {
  const { x = null, y = null, z = null } = felt ?? {};
  return x === null || y === null || z === null ? null : { at: timeStamp, g: [x, y, z], from: 'motion' };
}
