import { ChangeDetectionStrategy, Component, computed, signal, viewChild, type ElementRef, afterNextRender } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatIconModule } from '@angular/material/icon';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { RouterLink } from '@angular/router';
import {
  motion,
  POSITION_WORDS,
  POSITIONS,
  PROTOCOLS,
  regionName,
  REGIONS,
  type Motion,
  type Position,
  type Protocol,
  type Region,
} from '@dial-gauge/core';
import { Frame } from '../shell/frame';
import { ProtocolFigure } from '../ui/figure/figure';
import { protocolPath } from './address';
import { searchProtocols } from './search';

interface Group {
  readonly motion: Motion;
  readonly protocols: readonly Protocol[];
}

/** Every way of measuring, to be searched and leafed through by joint and position. */
@Component({
  selector: 'dg-library',
  imports: [FormsModule, Frame, MatFormFieldModule, MatIconModule, MatInputModule, MatSelectModule, ProtocolFigure, RouterLink],
  templateUrl: './library.html',
  styleUrl: './library.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LibraryPage {
  protected readonly words = signal('');
  protected readonly region = signal<Region | null>(null);
  protected readonly position = signal<Position | null>(null);
  protected readonly positions = POSITIONS;
  protected readonly positionWords = POSITION_WORDS;
  protected readonly regionName = regionName;
  protected readonly path = protocolPath;

  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');

  private readonly found = computed(() => {
    const position = this.position();
    return searchProtocols(this.words()).filter((p) => position === null || p.position === position);
  });

  /** Regions with how many protocols each has under the words and the position in hand. */
  protected readonly regions = computed(() =>
    REGIONS.map((id) => ({ id, name: regionName(id), count: this.found().filter((p) => motion(p.motion).joint === id).length })),
  );

  protected readonly total = computed(() => this.found().length);
  protected readonly all = PROTOCOLS.length;

  protected readonly groups = computed((): Group[] => {
    const region = this.region();
    const groups = new Map<string, Protocol[]>();
    for (const protocol of this.found()) {
      if (region !== null && motion(protocol.motion).joint !== region) continue;
      groups.set(protocol.motion, [...(groups.get(protocol.motion) ?? []), protocol]);
    }
    return [...groups.values()].map((protocols) => ({ motion: motion(protocols[0]!.motion), protocols }));
  });

  constructor() {
    afterNextRender(() => this.field().nativeElement.focus());
  }

  protected choose(region: Region | null): void {
    this.region.set(this.region() === region ? null : region);
  }
}
