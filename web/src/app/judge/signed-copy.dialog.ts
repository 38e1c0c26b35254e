import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import { JUDGEMENT, type SignatureView, type SignedCopy } from '@dial-gauge/contract';
import { saidOf, type Said } from '@dial-gauge/core';
import { Api } from '../data/api';
import { fullMoment } from '../caseload/words';

/** What was signed, as it stood then. */
@Component({
  selector: 'dg-signed-copy',
  imports: [MatButtonModule, MatDialogModule],
  template: `
    <h2 mat-dialog-title>Signed by {{ signature.by }}, {{ moment }}</h2>
    <mat-dialog-content tabindex="0">
      <p class="text">{{ signature.summary }}</p>
      @if (copy.hasValue()) {
        <h3>Findings as they stood ({{ judgedBy(copy.value()) }})</h3>
        <ol>
          @for (finding of said(copy.value()); track $index) {
            <li>
              <strong>{{ finding.subject }}</strong>: {{ finding.verdict }}
            </li>
          }
        </ol>
      } @else {
        <p class="soft">{{ copy.error() ? 'The copy could not be read. Try again in a moment.' : 'Reading the copy …' }}</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button matButton="filled" mat-dialog-close cdkFocusInitial>Close</button>
    </mat-dialog-actions>
  `,
  styles: `
    .text {
      white-space: pre-wrap;
    }
    h3 {
      padding: 12px 0 4px;
      font-size: 15px;
    }
    p,
    h3,
    li {
      color: var(--ink);
    }
    li {
      padding: 3px 0;
      border-bottom: 1px solid var(--line);
      font-size: 14px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignedCopyDialog {
  private readonly api = inject(Api);
  protected readonly signature = inject<SignatureView>(MAT_DIALOG_DATA);
  protected readonly moment = fullMoment(this.signature.at);
  protected readonly judgedBy = ({ judgement }: SignedCopy): string =>
    judgement.judgedBy.map((set) => set.short).join(', ') || 'judged against no norm';
  protected readonly said = ({ judgement }: SignedCopy): Said[] => judgement.findings.map(saidOf);
  protected readonly copy = rxResource({ stream: () => this.api.call(JUDGEMENT.signedCopy, { id: this.signature.id }) });
}
