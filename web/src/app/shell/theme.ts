import { DOCUMENT, effect, inject, Injectable, signal } from '@angular/core';

export type Theme = 'auto' | 'light' | 'dark';
const ORDER: readonly Theme[] = ['auto', 'light', 'dark'];
const KEY = 'dial-gauge.theme';

/** Light, dark, or as the machine says. Kept on this device. */
@Injectable({ providedIn: 'root' })
export class ThemeChoice {
  private readonly root = inject(DOCUMENT).documentElement;
  readonly theme = signal<Theme>(ORDER.find((t) => t === localStorage.getItem(KEY)) ?? 'auto');

  constructor() {
    effect(() => {
      const theme = this.theme();
      localStorage.setItem(KEY, theme);
      if (theme === 'auto') this.root.removeAttribute('data-theme');
      else this.root.setAttribute('data-theme', theme);
    });
  }

  next(): void {
    this.theme.update((theme) => ORDER[(ORDER.indexOf(theme) + 1) % ORDER.length]!);
  }
}
