import { APP_BASE_HREF } from '@angular/common';
import { provideHttpClient, withInterceptors } from '@angular/common/http';
import { inject, type ApplicationConfig } from '@angular/core';
import { provideRouter, TitleStrategy, withComponentInputBinding, withNavigationErrorHandler } from '@angular/router';
import { PageTitle } from './shell/page-title';
import { routes } from './app.routes';
import { askToSignInAgain } from './shell/sign-in-again';
import { Parts } from './ui/parts';

export const appConfig: ApplicationConfig = {
  providers: [
    provideRouter(
      routes,
      withComponentInputBinding(),
      withNavigationErrorHandler(() => inject(Parts).miss()),
    ),
    provideHttpClient(withInterceptors([askToSignInAgain])),
    { provide: TitleStrategy, useClass: PageTitle },
    // The page has no base of its own, so that none can be planted.
    { provide: APP_BASE_HREF, useValue: '/' },
  ],
};
