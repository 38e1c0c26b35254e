import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatAutocompleteModule } from '@angular/material/autocomplete';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { explain, NewStudy } from '@dial-gauge/contract';
import { motion, protocolName, protocolOfId, type Instrument, type Mode, type Protocol } from '@dial-gauge/core';
import { searchProtocols } from '../library/search';
import { Tools } from '../measure/record/tools';
import { INSTRUMENT_WORDS } from '../ui/words';
import { studySize } from './words';

const MOST = 12;
/** Fingers have a joint each: a study is of one, the index where nothing else is said. */
const INDEX = 2;

/** Plans a study: what is measured how, by whom, on how many. */
@Component({
  selector: 'dg-plan-study',
  imports: [FormsModule, MatAutocompleteModule, MatButtonModule, MatFormFieldModule, MatInputModule, MatSelectModule],
  templateUrl: './plan-study.html',
  styles: `
    form {
      display: grid;
      grid-template-columns: repeat(6, minmax(0, 1fr));
      gap: 12px;
      max-width: 760px;
      padding-top: 12px;
    }
    .wide {
      grid-column: 1 / -1;
    }
    .third {
      grid-column: span 2;
    }
    .half {
      grid-column: span 3;
    }
    @media (max-width: 700px) {
      .third,
      .half {
        grid-column: 1 / -1;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlanStudy {
  private readonly tools = inject(Tools);
  readonly plan = output<NewStudy>();
  readonly leave = output();
  protected readonly instrumentWords = INSTRUMENT_WORDS;
  protected readonly words = signal<string | Protocol>('');
  protected readonly mode = signal<Mode | null>(null);
  protected readonly instrument = signal<Instrument | null>(null);
  protected readonly kind = signal<NewStudy['kind']>('repeats');
  protected readonly subjects = signal('12');
  protected readonly raters = signal('2');
  protected readonly named = signal<string | null>(null);
  protected readonly problems = signal<readonly string[]>([]);

  protected readonly found = computed(() => {
    const words = this.words();
    if (typeof words !== 'string') return [];
    return searchProtocols(words)
      .filter((protocol) => motion(protocol.motion).unit !== 'yesNo' && this.tools.choices(protocol).length > 0)
      .slice(0, MOST);
  });
  protected readonly protocol = computed((): Protocol | null => {
    const words = this.words();
    return typeof words === 'string' ? null : words;
  });
  protected readonly modes = computed(() => this.protocol()?.modes ?? []);
  protected readonly instruments = computed(() => {
    const protocol = this.protocol();
    return protocol ? this.tools.choices(protocol) : [];
  });
  protected readonly name = computed(() => this.named() ?? this.proposedName());
  protected readonly size = computed(() =>
    studySize({ kind: this.kind(), subjects: Number(this.subjects()), raters: Number(this.raters()) }),
  );
  protected readonly nameOf = (protocol: Protocol | string | null): string =>
    protocol === null || typeof protocol === 'string' ? (protocol ?? '') : protocolName(protocol);

  protected pick(protocol: Protocol): void {
    this.words.set(protocol);
    this.mode.set(protocol.modes.includes('passive') ? 'passive' : protocol.modes[0]!);
    this.instrument.set(this.tools.choices(protocol)[0] ?? null);
    this.problems.set([]);
  }

  /** Enter takes the first of the list also before the list has marked it: typing may be faster than drawing. */
  protected pickFirst(event: Event): void {
    const [first] = this.found();
    if (!first) return;
    event.preventDefault();
    this.pick(first);
  }

  protected go(): void {
    const protocol = this.protocol();
    if (!protocol) return this.problems.set(['Motion: choose one of the list, as “knee flexion”.']);
    const parsed = NewStudy.safeParse({
      id: crypto.randomUUID(),
      name: this.name(),
      protocol: protocol.id,
      ...(motion(protocol.motion).perDigit ? { digit: INDEX } : {}),
      mode: this.mode(),
      instrument: this.instrument(),
      kind: this.kind(),
      subjects: Number(this.subjects()),
      raters: Number(this.raters()),
      seed: crypto.getRandomValues(new Uint32Array(1))[0],
    });
    if (parsed.success) this.plan.emit(parsed.data);
    else this.problems.set(explain(parsed.error).map(({ path, message }) => `${FIELDS[path] ?? path}: ${message}.`));
  }

  private proposedName(): string {
    const id = this.protocol()?.id;
    const known = id ? protocolOfId(id) : undefined;
    return known ? motion(known.motion).name : '';
  }
}

const FIELDS: Readonly<Record<string, string>> = {
  name: 'Name',
  subjects: 'People or limbs',
  raters: 'Readings of each',
  mode: 'Mode',
  instrument: 'Instrument',
};
