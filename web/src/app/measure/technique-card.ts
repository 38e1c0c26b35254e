import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { bandAround, flagWords, formatNumber, formatSize, placementLines, rounded, type Instrument } from '@dial-gauge/core';
import { Exam } from './exam';

/** Lines of other instruments than the one in hand. */
const HIDDEN: Readonly<Partial<Record<Instrument, readonly string[]>>> = {
  goniometer: ['Inclinometer', 'Plane'],
  inclinometer: ['Still arm', 'Moving arm'],
};

/** Where axis and arms go, what to hold still, and how the name misleads. */
@Component({
  selector: 'dg-technique-card',
  // A long card scrolls, so the keyboard must reach it.
  host: { tabindex: '0', role: 'region', 'aria-label': 'How to measure' },
  template: `
    @let p = exam.record.protocol();
    <h2>How to measure</h2>
    <dl>
      <dt>Start</dt>
      <dd>{{ p.startingPosition }}</dd>
      @for (line of place(); track line.label) {
        <dt>{{ line.label }}</dt>
        <dd>{{ line.text }}</dd>
      }
      <dt>Hold still</dt>
      <dd>{{ p.stabilise }}</dd>
      @if (p.twoJoint) {
        <dt>Two-joint muscle</dt>
        <dd>{{ p.twoJoint }}</dd>
      }
    </dl>
    @if (p.caution) {
      <p class="trap">{{ p.caution }}</p>
    }
    @if (p.namingTrap) {
      <p class="trap">{{ p.namingTrap }}</p>
    }
    <dl>
      @if (p.dial) {
        <dt>The dial is seen</dt>
        <dd>{{ p.dial.seenFrom }}</dd>
      }
      @if (p.endFeel.length) {
        <dt>End feel, usually</dt>
        <dd>{{ p.endFeel.join(' or ') }}</dd>
      }
      <dt>Expected here</dt>
      <dd>{{ expected() }}</dd>
    </dl>
    <p class="soft"><kbd>i</kbd> opens the library: figure, all norms, error.</p>
    <p class="soft">Stop where it hurts. The surgeon’s limits and local rules come first.</p>
  `,
  styleUrl: './technique-card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TechniqueCard {
  protected readonly exam = inject(Exam);

  protected readonly place = computed(() =>
    placementLines(this.exam.record.protocol()).filter((line) => !(HIDDEN[this.exam.record.instrument()] ?? []).includes(line.label)),
  );

  protected readonly expected = computed(() => {
    const norm = this.exam.record.normFor(0);
    if (!norm) return 'no norm that may be compared: not judged';
    const { low, high } = norm.expectedBand;
    const { unit } = this.exam.record.motion();
    const figure =
      low < high
        ? `${formatNumber(rounded(low, unit))}–${formatSize(high, unit)}`
        : `${formatSize(norm.expected, unit)} ± ${formatSize(bandAround(this.exam.sources.sem()), unit)}`;
    const misfits = flagWords(norm.flags);
    return `${figure} · ${norm.setName}, ${norm.band}${misfits.length ? ` (${misfits.join('; ')})` : ''}`;
  });
}
