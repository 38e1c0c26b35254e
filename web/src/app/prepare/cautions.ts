import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import {
  answeredOf,
  asksWhere,
  BODY_PARTS,
  CAUTIONS,
  leftOutWords,
  NOT_A_DIAGNOSIS,
  withSigns,
  type BodyPart,
  type CautionWhere,
} from '@dial-gauge/core';
import { Preparing } from './preparing';
import { momentWords } from '../caseload/words';

/** Asked before anybody is touched. A yes may end the visit: do not measure, refer. */
@Component({
  selector: 'dg-cautions',
  imports: [FormsModule, MatButtonModule, MatCheckboxModule, MatFormFieldModule, MatInputModule],
  template: `
    @if (answered(); as a) {
      <div class="outcome" [class.refer]="a.outcome === 'refer'" role="status">
        <p>
          <strong>{{ verdict() }}</strong>
          <span class="soft"> · asked {{ moment(a.at) }}, {{ a.by }}</span>
        </p>
        @for (question of said(); track question.id) {
          <p>{{ question.ask }} <strong>Yes.</strong> {{ question.then }}</p>
        }
        @if (leftOut().length) {
          <p><strong>Left out at this visit, of what is measured, screened and prescribed:</strong> {{ leftOut().join('; ') }}.</p>
        }
        @if (a.note) {
          <p class="soft">{{ a.note }}</p>
        }
        @if (unasked().length) {
          <p>{{ unasked().length }} more to ask for what is to be measured now.</p>
        }
      </div>
    }
    @if (asking() || !answered() || unasked().length) {
      <p class="soft">Tick what applies. {{ notADiagnosis }}</p>
      <ul>
        @for (question of shown(); track question.id) {
          <li [class.sign]="question.follows">
            <mat-checkbox [checked]="yes().includes(question.id)" (change)="tick(question.id, $event.checked)">
              {{ question.ask }}
              @if (question.ifYes === 'refer') {
                <span class="ends" aria-hidden="true">refer</span>
              }
            </mat-checkbox>
            @if (yes().includes(question.id) && asksWhere(question.id)) {
              <div class="where" role="group" [attr.aria-label]="'Where: ' + question.ask">
                <span class="soft">Where? {{ whereOf(question.id).length ? '' : 'Until it is said, it holds everywhere.' }}</span>
                @for (part of parts; track part) {
                  <button
                    type="button"
                    class="chip"
                    [attr.aria-pressed]="whereOf(question.id).includes(part)"
                    (click)="place(question.id, part)"
                  >
                    {{ part }}
                  </button>
                }
              </div>
            }
          </li>
        }
      </ul>
      @if (lifting()) {
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <mat-label>Why the answer changed</mat-label>
          <input matInput maxlength="500" autocomplete="off" [ngModel]="note()" (ngModelChange)="note.set($event)" />
        </mat-form-field>
      }
      <p class="problem" role="alert" [hidden]="!problem()">{{ problem() }}</p>
      <button matButton="filled" type="button" (click)="record()">{{ label() }}</button>
    } @else {
      <button matButton="outlined" type="button" (click)="again()">Ask again</button>
    }
  `,
  styleUrl: './cautions.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Cautions {
  private readonly preparing = inject(Preparing);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly moment = momentWords;
  readonly answeredNow = output<{ readonly yes: readonly string[]; readonly note: string; readonly where: CautionWhere }>();
  protected readonly notADiagnosis = NOT_A_DIAGNOSIS;
  protected readonly parts = BODY_PARTS;
  protected readonly asksWhere = asksWhere;
  protected readonly yes = signal<readonly string[]>([]);
  private readonly where = signal<CautionWhere>({});
  protected readonly note = signal('');
  protected readonly problem = signal('');
  protected readonly asking = signal(false);

  protected readonly answered = this.preparing.cautions;
  protected readonly said = computed(() => CAUTIONS.filter((question) => this.answered()?.yes.includes(question.id)));
  protected readonly unasked = computed(() => {
    const asked = this.answered()?.asked ?? [];
    return this.answered() ? this.preparing.questions().filter((question) => !asked.includes(question.id)) : [];
  });
  /** Signs with which even care ends follow a question that was answered yes. */
  protected readonly shown = computed(() =>
    withSigns(this.answered() && !this.asking() ? this.unasked() : this.preparing.questions(), this.yes()),
  );
  /** The answers taken together with those that were given before. */
  private readonly together = computed(() =>
    this.answered() && !this.asking() ? [...(this.answered()?.yes ?? []), ...this.yes()] : this.yes(),
  );
  /** A visit that was ended is opened again only with a reason. */
  protected readonly lifting = computed(() => {
    const ends = (ids: readonly string[]) => CAUTIONS.some((question) => question.ifYes === 'refer' && ids.includes(question.id));
    return this.asking() && this.answered()?.outcome === 'refer' && !ends(this.together());
  });
  /** What the answers that were recorded leave out. */
  protected readonly leftOut = computed(() => leftOutWords(answeredOf({ yes: this.answered()?.yes ?? [] })));
  protected readonly verdict = computed(() => {
    const outcome = this.answered()?.outcome;
    if (outcome === 'refer') return 'Do not measure: refer';
    return outcome === 'measure-with-care' ? 'Measure with care' : 'Nothing stands against measuring';
  });
  protected readonly label = computed(() => {
    const count = this.yes().length;
    return count === 0 ? 'None of these' : `Record ${count} yes`;
  });

  protected tick(id: string, on: boolean): void {
    this.yes.update((yes) => (on ? [...yes, id] : yes.filter((other) => other !== id && other !== `${id}-signs`)));
  }

  protected whereOf(id: string): readonly BodyPart[] {
    return this.where()[id] ?? [];
  }

  protected place(id: string, part: BodyPart): void {
    const parts = this.whereOf(id);
    const now = parts.includes(part) ? parts.filter((one) => one !== part) : [...parts, part];
    this.where.update((where) => ({ ...where, [id]: now }));
  }

  /** Leads to the first question that is open. */
  lead(): void {
    const first = this.host.querySelector<HTMLInputElement>('mat-checkbox input');
    first?.scrollIntoView({ block: 'center' });
    first?.focus();
  }

  protected again(): void {
    this.yes.set(this.answered()?.yes ?? []);
    this.where.set((this.answered()?.where ?? {}) as CautionWhere);
    this.asking.set(true);
  }

  protected record(): void {
    if (this.lifting() && this.note().trim() === '') {
      return this.problem.set('This visit was ended for a reason: type why it may go on, as "seen by the physician today, cleared".');
    }
    this.problem.set('');
    const yes = this.together();
    const before = (this.answered()?.where ?? {}) as CautionWhere;
    const said = Object.entries({ ...before, ...this.where() }).filter(([id, parts]) => yes.includes(id) && parts.length > 0);
    this.answeredNow.emit({ yes, note: this.note().trim(), where: Object.fromEntries(said) });
    this.asking.set(false);
    this.yes.set([]);
    this.where.set({});
    this.note.set('');
  }
}
