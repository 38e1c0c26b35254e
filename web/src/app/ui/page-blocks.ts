import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Block } from '@dial-gauge/core';

/** A page of words and photographs on a screen: headings, paragraphs, lists, pictures. */
@Component({
  selector: 'dg-page-blocks',
  template: `
    @for (block of blocks(); track $index) {
      @switch (block.kind) {
        @case ('heading') {
          <h3>{{ block.text }}</h3>
        }
        @case ('paragraph') {
          <p [class]="block.tone ?? ''">{{ block.text }}</p>
        }
        @case ('list') {
          <ul>
            @for (item of block.items; track $index) {
              <li>{{ item }}</li>
            }
          </ul>
        }
        @case ('picture') {
          <img [src]="'data:image/jpeg;base64,' + block.jpeg" [alt]="block.alt" [width]="block.width" [height]="block.height" />
        }
      }
    }
  `,
  styles: `
    h3 {
      margin: 14px 0 4px;
      font-size: 17px;
    }
    p {
      margin: 4px 0;
    }
    .strong {
      font-weight: 700;
    }
    .quiet {
      color: var(--ink-soft);
    }
    .warning {
      margin-top: 12px;
      padding-left: 12px;
      border-left: 3px solid var(--ochre);
    }
    li {
      padding: 2px 0;
    }
    img {
      display: block;
      max-width: 100%;
      height: auto;
      margin: 6px 0 12px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PageBlocks {
  readonly blocks = input.required<readonly Block[]>();
}
