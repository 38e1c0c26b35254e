import { provideEnvironmentInitializer } from '@angular/core';
import type { Routes } from '@angular/router';
import { localeOf, speak } from '@dial-gauge/core';
import { OwnPagePage } from './own-page';

/** The person's own page. Figures and days as they write them. */
export const OWN: Routes = [
  { path: '', providers: [provideEnvironmentInitializer(() => speak(localeOf(navigator.language)))], component: OwnPagePage },
];
