import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { PATIENTS, VISITS, type EpisodeView } from '@dial-gauge/contract';
import { dayWords } from '@dial-gauge/core';
import { Api } from '../data/api';
import { May } from '../data/may';
import { describeFailure, toFailure } from '../data/problem';
import { Frame } from '../shell/frame';
import { Pending } from '../shell/pending';
import { episodeWords, fullName, personWords, today } from './words';
import { IfMay } from '../ui/may.directive';

/** One patient: episodes of care, their visits, and the button that starts the next one. */
@Component({
  selector: 'dg-patient',
  imports: [Frame, MatButtonModule, Pending, RouterLink, IfMay],
  templateUrl: './patient.html',
  styleUrl: './patient.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PatientPage {
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly may = inject(May);
  readonly id = input.required<string>();
  protected readonly record = rxResource({
    params: () => this.id(),
    stream: ({ params }) => this.api.call(PATIENTS.patient, { id: params }),
  });
  protected readonly words = { dayWords, episodeWords, fullName, personWords };
  protected readonly problem = signal('');

  protected startVisit(episode: EpisodeView): void {
    const id = crypto.randomUUID();
    this.api
      .call(VISITS.startVisit, {
        id: episode.id,
        body: { id, assessedOn: today() },
      })
      .subscribe({
        // Whoever plans begins with the plan; whoever runs screens with those.
        next: () => void this.router.navigate(['/visits', id, this.may.do('measure') ? 'prepare' : 'screen']),
        error: (error: unknown) => this.problem.set(describeFailure(toFailure(error))),
      });
  }
}
