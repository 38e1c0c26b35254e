import { BreakpointObserver } from '@angular/cdk/layout';
import { inject, Injectable, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { map } from 'rxjs';

const THUMB = 'dial-gauge.thumb';
export type Thumb = 'left' | 'right';

/** Who works with a thumb wants other things under it than who works with keys. */
@Injectable({ providedIn: 'root' })
export class ScreenKind {
  private readonly breakpoints = inject(BreakpointObserver);
  /** A finger points: there may be no keys. */
  readonly isTouched = this.matches('(pointer: coarse)');
  readonly isPhone = this.matches('(max-width: 640px)');
  private readonly thumbOf = signal<Thumb>(localStorage.getItem(THUMB) === 'left' ? 'left' : 'right');
  /** Which thumb holds; remembered on this device. */
  readonly thumb = this.thumbOf.asReadonly();

  changeThumb(): void {
    this.thumbOf.update((thumb) => (thumb === 'left' ? 'right' : 'left'));
    localStorage.setItem(THUMB, this.thumb());
  }

  private matches(query: string) {
    return toSignal(this.breakpoints.observe(query).pipe(map(({ matches }) => matches)), {
      initialValue: this.breakpoints.isMatched(query),
    });
  }
}
