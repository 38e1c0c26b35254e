import { ChangeDetectionStrategy, Component, effect, type ElementRef, input, output, untracked, viewChild } from '@angular/core';
import { formatNumber } from '@dial-gauge/core';

/** The figure that was read, in degrees; comma and point are both taken. */
@Component({
  selector: 'dg-degrees-field',
  template: `
    <label
      >{{ label() }}
      <input
        #field
        type="text"
        inputmode="decimal"
        autocomplete="off"
        spellcheck="false"
        maxlength="8"
        placeholder="···"
        [readOnly]="fixed()"
        (input)="read.emit(degreesIn(field.value))"
      />
      <span>°</span>
    </label>
  `,
  styles: `
    label {
      display: flex;
      flex-wrap: wrap;
      align-items: baseline;
      justify-content: center;
      gap: 10px;
    }
    input {
      width: 150px;
      padding: 2px 12px;
      border: 0;
      border-bottom: 3px solid var(--petrol);
      border-radius: 4px 4px 0 0;
      background: var(--raised);
      color: var(--ink);
      font: 700 40px/1.2 var(--figures);
      text-align: right;
    }
    span {
      font-size: 28px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DegreesField {
  readonly label = input.required<string>();
  readonly step = input(1);
  readonly value = input.required<number | undefined>();
  readonly fixed = input.required<boolean>();
  /** Undefined while it is no figure. */
  readonly read = output<number | undefined>();
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');

  constructor() {
    // What was typed stays as it was typed; only another figure than the typed one is written in.
    effect(() => {
      const value = this.value();
      const field = untracked(() => this.field().nativeElement);
      if (value !== undefined && this.degreesIn(field.value) !== value) field.value = formatNumber(value).replace('−', '-');
      if (value === undefined && this.degreesIn(field.value) !== undefined) field.value = '';
    });
  }

  protected degreesIn(text: string): number | undefined {
    const typed = text.trim().replace(',', '.').replace('−', '-');
    if (!/^-?\d{1,3}(\.\d)?$/.test(typed)) return undefined;
    const degrees = Number(typed);
    return degrees % this.step() === 0 && Math.abs(degrees) <= 360 ? degrees : undefined;
  }
}
