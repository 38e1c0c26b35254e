import type { Routes } from '@angular/router';
import { signedIn } from './shell/signed-in.guard';

export const routes: Routes = [
  { path: 'sign-in', title: 'Sign in', loadComponent: () => import('./shell/sign-in').then((m) => m.SignInPage) },
  { path: 'found', title: 'Found a clinic', loadComponent: () => import('./shell/found').then((m) => m.FoundPage) },
  { path: 'join', title: 'Join', loadComponent: () => import('./shell/join').then((m) => m.JoinPage) },
  {
    path: 'p/:token',
    title: 'Your page',
    loadChildren: () => import('./own/own.routes').then((m) => m.OWN),
  },
  { path: 'phone', title: 'Phone', loadChildren: () => import('./phone/phone.routes').then((m) => m.PHONE) },
  {
    path: '',
    canMatch: [signedIn],
    // What every page behind the door wants, and the door itself does not.
    loadChildren: () => import('./inside.routes').then((m) => m.INSIDE),
  },
  { path: '**', title: 'Not found', loadComponent: () => import('./shell/not-found').then((m) => m.NotFoundPage) },
];
