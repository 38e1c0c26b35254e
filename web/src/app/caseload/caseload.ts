import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { Router, RouterLink } from '@angular/router';
import { differenceInCalendarDays, parseISO } from 'date-fns';
import { Api } from '../data/api';
import { toFailure } from '../data/problem';
import { Frame } from '../shell/frame';
import { dayWords, episodeWords, fullName, personWords } from './words';

/** The door: who is in care, and when they were last measured. */
@Component({
  selector: 'dg-caseload',
  imports: [Frame, MatButtonModule, MatIconModule, RouterLink],
  templateUrl: './caseload.html',
  styleUrl: './caseload.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CaseloadPage {
  private readonly api = inject(Api);
  private readonly dialog = inject(MatDialog);
  private readonly router = inject(Router);
  protected readonly rows = rxResource({ stream: () => this.api.call('caseload') });
  protected readonly words = { dayWords, episodeWords, fullName, personWords };
  protected readonly failure = () => toFailure(this.rows.error()).message;

  protected ago(day: string): string {
    const days = differenceInCalendarDays(new Date(), parseISO(day));
    if (days <= 0) return 'today';
    if (days === 1) return 'yesterday';
    return days < 21 ? `${days} days ago` : `${Math.round(days / 7)} weeks ago`;
  }

  protected async addPatient(): Promise<void> {
    const { NewPatientDialog } = await import('./new-patient.dialog');
    this.dialog
      .open<unknown, unknown, string>(NewPatientDialog, { width: '560px', maxHeight: '92vh' })
      .afterClosed()
      .subscribe((id) => {
        if (id) void this.router.navigate(['/patients', id]);
      });
  }
}
