import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { MeasurementView, NewRetest } from '@dial-gauge/contract';
import { describeEnd, MARKERS, modedName, motion, rounded, summarise, protocolOf, storedTrial, endPosition } from '@dial-gauge/core';
import { Drafts, isTexts } from '../data/drafts';

interface Choice {
  readonly key: string;
  readonly name: string;
  readonly value: string;
  readonly pain: string;
  readonly marker: NewRetest['markers'][number];
}

/** What was measured at this visit, to pick the markers from. */
@Component({
  selector: 'dg-marker-picker',
  imports: [MatButtonModule],
  template: `
    <ul>
      @for (choice of choices(); track choice.key) {
        <li>
          <label [class.off]="isFull() && !picked().has(choice.key)">
            <input
              type="checkbox"
              [checked]="picked().has(choice.key)"
              [disabled]="isFull() && !picked().has(choice.key)"
              (change)="toggle(choice.key)"
            />
            <span>{{ choice.name }}</span>
            <strong class="figure">{{ choice.value }}</strong>
            <span class="pain">{{ choice.pain }}</span>
          </label>
        </li>
      }
    </ul>
    <div class="foot">
      <button matButton="filled" type="button" [disabled]="picked().size === 0" (click)="go()">Read the baseline</button>
      <span class="soft" role="status">{{ picked().size }} of at most {{ most }} picked</span>
    </div>
  `,
  styles: `
    ul {
      columns: 2;
      column-gap: 28px;
    }
    li {
      break-inside: avoid;
      border-bottom: 1px solid var(--line);
    }
    label {
      display: grid;
      grid-template-columns: auto minmax(0, 1fr) auto;
      align-items: center;
      gap: 0 10px;
      min-height: 44px;
      cursor: pointer;
    }
    .off {
      color: var(--ink-soft);
      cursor: default;
    }
    input {
      width: 20px;
      height: 20px;
      accent-color: var(--petrol);
    }
    .pain {
      grid-column: 2 / -1;
      color: var(--plum);
      font-size: 13px;
    }
    .foot {
      display: flex;
      align-items: center;
      gap: 14px;
      padding-top: 14px;
    }
    @media (max-width: 700px) {
      ul {
        columns: 1;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MarkerPicker {
  private readonly drafts = inject(Drafts);
  readonly measured = input.required<readonly MeasurementView[]>();
  /** Under which name the choice is kept until it is begun with. */
  readonly draft = input.required<string>();
  readonly begin = output<NewRetest['markers']>();
  protected readonly most = MARKERS.most;
  protected readonly choices = computed(() => this.measured().map(choiceOf));
  protected readonly picked = linkedSignal<readonly Choice[], ReadonlySet<string>>({
    source: this.choices,
    computation: (choices, before) => before?.value ?? this.left(choices),
  });
  protected readonly isFull = computed(() => this.picked().size >= this.most);

  protected toggle(key: string): void {
    this.picked.update((picked) => {
      const next = new Set(picked);
      if (!next.delete(key)) next.add(key);
      return next;
    });
    this.drafts.keep(this.draft(), [...this.picked()]);
  }

  /** What was picked before a reload, of what is still there to pick. */
  private left(choices: readonly Choice[]): ReadonlySet<string> {
    const kept = this.drafts.read(this.draft(), isTexts) ?? [];
    return new Set(kept.filter((key) => choices.some((choice) => choice.key === key)).slice(0, this.most));
  }

  protected go(): void {
    this.drafts.drop(this.draft());
    this.begin.emit(
      this.choices()
        .filter(({ key }) => this.picked().has(key))
        .map(({ marker }) => marker),
    );
  }
}

function choiceOf(m: MeasurementView): Choice {
  const about = motion(m.motion);
  const protocol = protocolOf(m);
  const value = summarise(
    m.trials.map((trial) => endPosition(storedTrial(m.motion, trial))),
    protocol.trials.summary,
    about.better,
  );
  const marker = {
    protocol: protocol.id,
    side: m.side,
    mode: m.mode,
    ...(m.digit ? { digit: m.digit } : {}),
    instrument: m.instrument,
  };
  return {
    key: [protocol.id, m.digit, m.side, m.mode].join(' '),
    name: modedName(m.motion, m.side, m.mode, m.digit) + (protocol.variant ? `, ${protocol.label}` : ''),
    value: describeEnd(about, rounded(value, about.unit)),
    pain: m.pain ? `hurts, ${m.pain} of 10` : '',
    marker,
  };
}
