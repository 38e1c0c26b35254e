import { provideEnvironmentInitializer } from '@angular/core';
import type { Routes } from '@angular/router';
import { localeOf, speak } from '@dial-gauge/core';
import { provideIcons } from './ui/icons';

/** The pages of whoever is signed in. */
export const INSIDE: Routes = [
  {
    path: '',
    // Figures and days as whoever reads them writes them.
    providers: [provideIcons(), provideEnvironmentInitializer(() => speak(localeOf(navigator.language)))],
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'caseload' },
      { path: 'caseload', title: 'Caseload', loadComponent: () => import('./caseload/caseload').then((m) => m.CaseloadPage) },
      { path: 'library', title: 'Library', loadComponent: () => import('./library/library').then((m) => m.LibraryPage) },
      {
        path: 'library/:region/:motionName/:way',
        title: 'Protocol',
        loadComponent: () => import('./library/protocol').then((m) => m.ProtocolPage),
      },
      { path: 'norms', title: 'Norms and thresholds', loadComponent: () => import('./norms/norms').then((m) => m.NormsPage) },
      { path: 'steadiness', title: 'Steadiness', loadComponent: () => import('./steadiness/steadiness').then((m) => m.SteadinessPage) },
      { path: 'patients/:id', title: 'Patient', loadComponent: () => import('./caseload/patient').then((m) => m.PatientPage) },
      { path: 'visits/:id/prepare', title: 'Prepare', loadComponent: () => import('./prepare/prepare').then((m) => m.PreparePage) },
      { path: 'visits/:id/measure', title: 'Measure', loadComponent: () => import('./measure/measure').then((m) => m.MeasurePage) },
      { path: 'visits/:id/judge', title: 'Judge', loadComponent: () => import('./judge/judge').then((m) => m.JudgePage) },
      { path: 'visits/:id/retest', title: 'Retest', loadComponent: () => import('./retest/retest').then((m) => m.RetestPage) },
      { path: 'visits/:id/progress', title: 'Progress', loadComponent: () => import('./progress/progress').then((m) => m.ProgressPage) },
    ],
  },
];
