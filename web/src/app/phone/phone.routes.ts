import { provideEnvironmentInitializer } from '@angular/core';
import type { Routes } from '@angular/router';
import { localeOf, speak } from '@dial-gauge/core';
import { PhonePage } from './phone';

/** A phone as an inclinometer: outside the door, for whoever holds a code. */
export const PHONE: Routes = [
  { path: '', providers: [provideEnvironmentInitializer(() => speak(localeOf(navigator.language)))], component: PhonePage },
];
