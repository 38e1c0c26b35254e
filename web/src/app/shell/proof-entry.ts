import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import type { Proof } from '@dial-gauge/contract';
import type { Failure } from '../data/problem';
import { DoorField } from './door-field';
import type { DoorForm } from './door-form';

/** What proves who somebody is: the password, and the code of an authenticator where one is wanted. */
export class ProofEntry {
  readonly password = signal('');
  readonly code = signal('');
  private readonly askedFor = signal(false);
  readonly wantsCode = computed(() => this.hasFactor() || this.askedFor());

  /** @param hasFactor where that is known beforehand; otherwise the server asks for a code */
  constructor(
    private readonly hasFactor: () => boolean = () => false,
    private readonly missing = 'Type your password',
  ) {}

  readonly wants = {
    password: () => (this.password() ? '' : this.missing),
    code: () => (this.wantsCode() && this.code().trim().length < 6 ? 'Type the six digits, or a code for when it is lost' : ''),
  };

  given(): Proof {
    return { password: this.password(), ...(this.wantsCode() ? { code: this.code().trim() } : {}) };
  }

  /** Whether the server asks for a code: then there is a field for it, and nothing is wrong yet. */
  isAsked({ kind }: Failure, form: DoorForm): boolean {
    if (kind !== 'second-factor') return false;
    this.askedFor.set(true);
    form.tried.set(false);
    return true;
  }

  clear(): void {
    this.password.set('');
    this.code.set('');
  }
}

/** The fields of a proof. */
@Component({
  selector: 'dg-proof-fields',
  imports: [DoorField],
  template: `
    <dg-door-field
      type="password"
      autocomplete="current-password"
      [label]="label()"
      [name]="passwordName()"
      [(value)]="entry().password"
      [wrong]="form().wrong('password')"
    />
    @if (entry().wantsCode()) {
      <dg-door-field
        label="Code of your authenticator"
        autocomplete="one-time-code"
        [hint]="codeHint()"
        [most]="40"
        [name]="codeName()"
        [(value)]="entry().code"
        [wrong]="form().wrong('code')"
      />
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ProofFields {
  readonly entry = input.required<ProofEntry>();
  readonly form = input.required<DoorForm>();
  readonly label = input('Password');
  readonly passwordName = input('password');
  readonly codeName = input('code');
  readonly codeHint = input('');
}
