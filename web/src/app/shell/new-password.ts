import { ChangeDetectionStrategy, Component, input, model } from '@angular/core';
import { DoorField } from './door-field';

const HINT = '12 to 64 characters that are hard to guess, as four words that do not belong together';

/** What a password that is being chosen wants before it is sent; how hard it is to guess is judged by the server. */
export function passwordWants(password: string): string {
  if (password.length < 12) return `Has ${password.length} characters; allowed: ${HINT}`;
  return '';
}

/** A password that is being chosen. */
@Component({
  selector: 'dg-new-password',
  imports: [DoorField],
  template: `
    <dg-door-field
      name="newPassword"
      type="password"
      autocomplete="new-password"
      [label]="label()"
      [most]="64"
      [hint]="hint"
      [(value)]="value"
      [wrong]="wrong()"
    />
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewPassword {
  protected readonly hint = HINT;
  readonly label = input('Password');
  readonly value = model('');
  readonly wrong = input('');
}
