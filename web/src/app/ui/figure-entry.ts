import { ChangeDetectionStrategy, Component, type ElementRef, input, model, output, viewChild } from '@angular/core';

/** The big field that one figure after another is typed into; Enter holds it. */
@Component({
  selector: 'dg-figure-entry',
  template: `
    <input
      #field
      type="text"
      inputmode="text"
      autocomplete="off"
      spellcheck="false"
      maxlength="24"
      placeholder="···"
      [attr.aria-label]="label()"
      [value]="typed()"
      (input)="typed.set(field.value)"
      (keydown.enter)="$event.preventDefault(); held.emit()"
    />
  `,
  styles: `
    input {
      width: 300px;
      padding: 4px 16px;
      border: 0;
      border-bottom: 3px solid var(--petrol);
      border-radius: 4px 4px 0 0;
      background: var(--raised);
      color: var(--ink);
      font: 700 64px/1.2 var(--figures);
    }

    @media (max-width: 700px) {
      input {
        width: 200px;
        font-size: 46px;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FigureEntry {
  readonly label = input.required<string>();
  readonly typed = model.required<string>();
  readonly held = output();
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');

  focus(): void {
    this.field().nativeElement.focus();
  }

  /** At once, not with the next drawing: fast hands type the next figure before it. */
  clear(): void {
    this.typed.set('');
    this.field().nativeElement.value = '';
  }
}
