import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { RouterLink } from '@angular/router';
import { VALUE_CHECKS } from '@dial-gauge/contract';
import { Api } from '../data/api';
import { ClinicNorms } from '../data/clinic-norms';
import { toFailure, type Failure } from '../data/problem';
import { handOver } from '../ui/hand-over';
import { countsOf } from './counts';

/** Tables beside the norm sets whose values can be looked up; and what was looked up, to hand over and to bring in. */
@Component({
  selector: 'dg-looked-up-list',
  imports: [MatButtonModule, MatIconModule, RouterLink],
  template: `
    <h2>Values looked up in the sources</h2>
    <p class="soft">
      {{ sum().checked }} of {{ sum().all }} values are checked. The others are from memory. Open a norm set, the errors or a procedure to
      look up its values.
    </p>
    <ul class="tables">
      <li>
        <a routerLink="/norms/errors/published">Published measuring errors: {{ words('errors published') }}</a>
      </li>
    </ul>
    <details>
      <summary>Usual limits after procedures: {{ procedures().checked }} of {{ procedures().all }} checked</summary>
      <ul class="tables">
        @for (one of procedures().list; track one.table.of) {
          <li>
            <a [routerLink]="['/norms', 'procedure', one.table.of]">{{ one.table.name }}: {{ one.checked }} of {{ one.all }} checked</a>
          </li>
        }
      </ul>
    </details>
    <p class="do">
      <button matButton="outlined" type="button" (click)="export()"><mat-icon svgIcon="download" />Write what was looked up (CSV)</button>
      <button matButton="outlined" type="button" (click)="file.click()"><mat-icon svgIcon="add" />Bring in another clinic’s (CSV)</button>
      <input #file type="file" accept=".csv,text/csv" hidden aria-label="CSV file of values looked up" (change)="bringIn($event)" />
    </p>
  `,
  styles: `
    .tables {
      margin: 0 0 8px;
      padding: 0;
      list-style: none;
    }
    h2 {
      font-size: 17px;
    }
    .tables a {
      display: inline-block;
      padding: 5px 0;
    }
    summary {
      padding: 5px 0;
      cursor: pointer;
    }
    .do {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      margin: 8px 0 20px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LookedUpList {
  private readonly api = inject(Api);
  private readonly norms = inject(ClinicNorms);
  readonly done = output<string>();
  readonly refused = output<Failure | null>();

  private readonly counts = computed(() => countsOf(this.norms.current()?.valueChecks ?? []));
  protected readonly sum = computed(() => sumOf([...this.counts().values()]));
  protected readonly procedures = computed(() => {
    const list = [...this.counts().values()].filter(({ table }) => table.kind === 'procedure');
    return { list, ...sumOf(list) };
  });

  protected words(name: string): string {
    const count = this.counts().get(name);
    return count ? `${count.checked} of ${count.all} checked` : '';
  }

  protected export(): void {
    this.api.call(VALUE_CHECKS.exportValueChecks).subscribe({
      next: ({ fileName, csv }) => {
        handOver(fileName, csv, 'text/csv;charset=utf-8');
        this.told(`${fileName} was written.`);
      },
      error: (error: unknown) => this.refused.emit(toFailure(error)),
    });
  }

  protected async bringIn(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    // The same file, corrected, must be taken again.
    const csv = file ? await file.text() : '';
    field.value = '';
    if (!file) return;
    this.norms.bringInLookedUp(csv).subscribe({
      next: (values) => this.told(`${file.name}: ${values === 1 ? '1 value was' : `${values} values were`} brought in.`),
      error: (error: unknown) => this.refused.emit(toFailure(error)),
    });
  }

  private told(words: string): void {
    this.refused.emit(null);
    this.done.emit(words);
  }
}

const sumOf = (counts: readonly { readonly checked: number; readonly all: number }[]) => ({
  checked: counts.reduce((sum, { checked }) => sum + checked, 0),
  all: counts.reduce((sum, { all }) => sum + all, 0),
});
