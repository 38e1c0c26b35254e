import { Component } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCardModule } from '@angular/material/card';
import { MatToolbarModule } from '@angular/material/toolbar';
import { bootstrapApplication } from '@angular/platform-browser';
import { provideRouter, RouterOutlet } from '@angular/router';
import { provideHttpClient } from '@angular/common/http';

/** The least page of the same versions: what Angular and Material cost before anything is built on them. */
@Component({
  selector: 'empty-root',
  imports: [MatButtonModule, MatCardModule, MatToolbarModule, RouterOutlet],
  template: `<mat-toolbar>Empty</mat-toolbar><mat-card><button matButton="filled">Nothing</button></mat-card><router-outlet />`,
})
class Empty {}

void bootstrapApplication(Empty, { providers: [provideRouter([]), provideHttpClient()] });
