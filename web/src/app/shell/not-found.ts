import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink } from '@angular/router';

@Component({
  selector: 'dg-not-found',
  imports: [RouterLink],
  template: `
    <main>
      <h1>There is nothing at this address</h1>
      <p>The page may have moved, or the address was cut short. <a routerLink="/caseload">Open the caseload</a></p>
    </main>
  `,
  styles: `
    main {
      display: grid;
      gap: 8px;
      padding: 48px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NotFoundPage {}
