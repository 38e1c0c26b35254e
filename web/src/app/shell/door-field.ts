import { ChangeDetectionStrategy, Component, ElementRef, inject, input, model, signal } from '@angular/core';

let count = 0;

/**
 * A field at the door: plain, because the door is the first thing that is
 * fetched and carries nothing it does not need. Says below itself what is
 * wrong and what is allowed.
 */
@Component({
  selector: 'dg-door-field',
  template: `
    <label [for]="id">{{ label() }}</label>
    <span class="box">
      <input
        [id]="id"
        [type]="type() === 'password' && shown() ? 'text' : type()"
        [name]="name()"
        [attr.autocomplete]="autocomplete()"
        [attr.maxlength]="most()"
        [attr.inputmode]="digits() ? 'numeric' : null"
        required
        [value]="value()"
        (input)="value.set($any($event.target).value)"
        [attr.aria-invalid]="!!wrong()"
        [attr.aria-describedby]="wrong() ? id + '-wrong' : hint() ? id + '-hint' : null"
      />
      @if (type() === 'password') {
        <button type="button" [attr.aria-pressed]="shown()" (click)="shown.set(!shown())">{{ shown() ? 'Hide' : 'Show' }}</button>
      }
    </span>
    @if (wrong(); as text) {
      <p class="wrong" [id]="id + '-wrong'">{{ text }}</p>
    } @else if (hint()) {
      <p class="soft" [id]="id + '-hint'">{{ hint() }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
    }
    .box {
      position: relative;
    }
    input {
      box-sizing: border-box;
      width: 100%;
      height: 48px;
      padding: 0 14px;
      border: 1px solid var(--line-strong);
      border-radius: 6px;
      background: var(--raised);
      color: var(--ink);
      font: inherit;
      font-size: 16px;
    }
    input[type='password'],
    input[name*='assword'] {
      padding-right: 72px;
    }
    input[aria-invalid='true'] {
      border: 2px solid var(--plum);
    }
    button {
      position: absolute;
      top: 2px;
      right: 2px;
      height: 44px;
      min-width: 60px;
      border: 0;
      background: none;
      color: var(--petrol);
      font: inherit;
      cursor: pointer;
    }
    p {
      font-size: 13px;
    }
    .wrong {
      color: var(--plum);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DoorField {
  protected readonly id = `door-field-${(count += 1)}`;
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly label = input.required<string>();
  readonly name = input.required<string>();
  readonly type = input<'text' | 'email' | 'password'>('text');
  readonly autocomplete = input<string>('off');
  readonly most = input(200);
  readonly digits = input(false);
  readonly value = model('');
  readonly hint = input('');
  /** What is wrong and what is allowed; empty: nothing is. */
  readonly wrong = input('');
  protected readonly shown = signal(false);

  focus(): void {
    this.host.querySelector('input')?.focus();
  }
}
