import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import { protocolName, type Mode, type Protocol } from '@dial-gauge/core';
import { ClinicNorms } from '../data/clinic-norms';
import { ProtocolCard, type Person } from './protocol-card';

/** What the library is opened at from the dial. */
export interface ProtocolAtTheDial {
  readonly protocol: Protocol;
  readonly person: Person;
  readonly mode: Mode;
}

/** The library's page of the motion in hand, over the dial: nothing held or typed is left behind. */
@Component({
  selector: 'dg-protocol-dialog',
  imports: [MatButtonModule, MatDialogModule, ProtocolCard],
  template: `
    <h2 mat-dialog-title>{{ name }}</h2>
    <mat-dialog-content tabindex="0">
      <dg-protocol-card [protocol]="data.protocol" [person]="data.person" [startMode]="data.mode" />
    </mat-dialog-content>
    <mat-dialog-actions align="end"
      ><button matButton mat-dialog-close>Back to the dial <kbd>Esc</kbd></button></mat-dialog-actions
    >
  `,
  styles: `
    mat-dialog-content {
      padding: 0 4px;
      outline-offset: -3px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProtocolDialog {
  protected readonly data = inject<ProtocolAtTheDial>(MAT_DIALOG_DATA);
  protected readonly name = protocolName(this.data.protocol);

  constructor() {
    const judging = inject(ClinicNorms);
    if (!judging.current()) judging.load().subscribe({ error: () => undefined });
  }
}
