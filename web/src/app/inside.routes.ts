import { inject, provideEnvironmentInitializer } from '@angular/core';
import { NavigationStart, Router, type Routes } from '@angular/router';
import { provideServiceWorker } from '@angular/service-worker';
import { localeOf, speak } from '@dial-gauge/core';
import { filter } from 'rxjs';
import { AtHand } from './data/at-hand';
import { TakeAlong } from './data/take-along';
import { NewVersion } from './shell/new-version';
import { provideIcons } from './ui/icons';

/** The program and what is needed today stay on the device. */
function keepAtHand(): void {
  const atHand = inject(AtHand);
  inject(NewVersion);
  inject(TakeAlong).start();
  inject(Router)
    .events.pipe(filter((event) => event instanceof NavigationStart))
    .subscribe(() => atHand.turnPage());
}

/** The pages of whoever is signed in. */
export const INSIDE: Routes = [
  {
    path: '',
    // Figures and days as whoever reads them writes them.
    providers: [
      provideIcons(),
      provideEnvironmentInitializer(() => speak(localeOf(navigator.language))),
      provideServiceWorker('worker.js'),
      NewVersion,
      provideEnvironmentInitializer(keepAtHand),
    ],
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'caseload' },
      { path: 'caseload', title: 'Caseload', loadComponent: () => import('./caseload/caseload').then((m) => m.CaseloadPage) },
      { path: 'library', title: 'Library', loadComponent: () => import('./library/library').then((m) => m.LibraryPage) },
      {
        path: 'library/:region/:motionName/:way',
        title: 'Protocol',
        loadComponent: () => import('./library/protocol').then((m) => m.ProtocolPage),
      },
      { path: 'screens', title: 'Screens', loadComponent: () => import('./screens/screens').then((m) => m.ScreensPage) },
      {
        path: 'screens/:id/at-home',
        title: 'Sheet for at home',
        loadComponent: () => import('./screens/at-home').then((m) => m.AtHomePage),
      },
      { path: 'drills', title: 'Drills', loadComponent: () => import('./drills/drills').then((m) => m.DrillsPage) },
      { path: 'drills/:id', title: 'A drill', loadComponent: () => import('./drills/write').then((m) => m.WriteDrillPage) },
      { path: 'practice', title: 'Practice', loadComponent: () => import('./practice/practice').then((m) => m.PracticePage) },
      {
        path: 'practice/:id',
        title: 'A round of practice',
        loadComponent: () => import('./practice/round').then((m) => m.PracticeRoundPage),
      },
      { path: 'account', title: 'Your account', loadComponent: () => import('./staff/account').then((m) => m.AccountPage) },
      { path: 'staff', title: 'People of the clinic', loadComponent: () => import('./staff/staff').then((m) => m.StaffPage) },
      { path: 'audit', title: 'Who looked at what', loadComponent: () => import('./staff/audit').then((m) => m.AuditPage) },
      { path: 'class', title: 'Class', loadComponent: () => import('./class/class').then((m) => m.ClassPage) },
      { path: 'norms', title: 'Norms and thresholds', loadComponent: () => import('./norms/norms').then((m) => m.NormsPage) },
      {
        path: 'norms/:kind/:of',
        title: 'Values to look up',
        loadComponent: () => import('./looked-up/values').then((m) => m.ValuesPage),
      },
      { path: 'own-people', title: 'Our own people', loadComponent: () => import('./cohort/cohort').then((m) => m.CohortPage) },
      { path: 'steadiness', title: 'Steadiness', loadComponent: () => import('./steadiness/steadiness').then((m) => m.SteadinessPage) },
      { path: 'patients/:id', title: 'Patient', loadComponent: () => import('./caseload/patient').then((m) => m.PatientPage) },
      {
        path: 'patients/:id/past/:episodeId',
        title: 'Old readings',
        loadComponent: () => import('./past/past').then((m) => m.PastPage),
      },
      { path: 'visits/:id/prepare', title: 'Prepare', loadComponent: () => import('./prepare/prepare').then((m) => m.PreparePage) },
      { path: 'visits/:id/screen', title: 'Screen', loadComponent: () => import('./screen/screen').then((m) => m.ScreenPage) },
      { path: 'visits/:id/limits', title: 'What limits it', loadComponent: () => import('./reason/reason').then((m) => m.ReasonPage) },
      { path: 'visits/:id/measure', title: 'Measure', loadComponent: () => import('./measure/measure').then((m) => m.MeasurePage) },
      {
        path: 'visits/:id/instruments',
        title: 'Simulated instruments',
        loadComponent: () => import('./instruments/simulated').then((m) => m.SimulatedPage),
      },
      { path: 'visits/:id/picture', title: 'Picture', loadComponent: () => import('./picture/picture').then((m) => m.PicturePage) },
      {
        path: 'visits/:id/clip/:clip',
        title: 'Page for the sender',
        loadComponent: () => import('./picture/clip-page').then((m) => m.ClipPagePage),
      },
      { path: 'visits/:id/judge', title: 'Judge', loadComponent: () => import('./judge/judge').then((m) => m.JudgePage) },
      { path: 'visits/:id/retest', title: 'Retest', loadComponent: () => import('./retest/retest').then((m) => m.RetestPage) },
      { path: 'visits/:id/decide', title: 'Decide', loadComponent: () => import('./decide/decide').then((m) => m.DecidePage) },
      { path: 'visits/:id/report', title: 'Report', loadComponent: () => import('./report/report').then((m) => m.ReportPage) },
      { path: 'visits/:id/progress', title: 'Progress', loadComponent: () => import('./progress/progress').then((m) => m.ProgressPage) },
    ],
  },
];
