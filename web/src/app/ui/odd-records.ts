import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { OddRecord } from '@dial-gauge/contract';

/** Stored records that this version cannot read: shown as such, so that nobody takes them for absent. */
@Component({
  selector: 'dg-odd-records',
  template: `
    @if (records().length) {
      <section role="note" aria-label="Records that cannot be read">
        <strong>{{
          records().length === 1 ? 'One record cannot be read here.' : records().length + ' records cannot be read here.'
        }}</strong>
        <ul>
          @for (record of records(); track record.id + record.what) {
            <li>
              <strong>{{ record.what }}</strong>: {{ record.why }}
            </li>
          }
        </ul>
      </section>
    }
  `,
  styles: `
    section {
      margin: 8px 0;
      padding: 8px 12px;
      border: 2px solid var(--plum);
      background: var(--raised);
    }
    ul {
      margin-top: 4px;
      font-size: 14px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OddRecords {
  readonly records = input.required<readonly OddRecord[]>();
}
