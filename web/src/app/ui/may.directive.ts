import { Directive, effect, inject, input, TemplateRef, ViewContainerRef } from '@angular/core';
import type { Act } from '@dial-gauge/contract/roles';
import { May } from '../data/may';

/** Shows what whoever is signed in may do, and leaves out what their role does not go as far as. */
@Directive({ selector: '[dgMay]' })
export class IfMay {
  private readonly may = inject(May);
  private readonly template = inject<TemplateRef<unknown>>(TemplateRef);
  private readonly place = inject(ViewContainerRef);
  readonly dgMay = input.required<Act>();

  constructor() {
    effect(() => {
      const shown = this.may.do(this.dgMay());
      if (shown && this.place.length === 0) this.place.createEmbeddedView(this.template);
      if (!shown) this.place.clear();
    });
  }
}
