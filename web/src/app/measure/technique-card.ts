import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { bandAround, flagWords, formatWhole, placementLines } from '@dial-gauge/core';
import { Exam } from './exam';

/** Where axis and arms go, what to hold still, and how the name misleads. */
@Component({
  selector: 'dg-technique-card',
  // A long card scrolls, so the keyboard must reach it.
  host: { tabindex: '0', role: 'region', 'aria-label': 'How to measure' },
  template: `
    @let p = exam.protocol();
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
    @if (p.namingTrap) {
      <p class="trap">{{ p.namingTrap }}</p>
    }
    <dl>
      <dt>The dial is seen</dt>
      <dd>{{ p.dial?.seenFrom }}</dd>
      <dt>End feel, usually</dt>
      <dd>{{ p.endFeel.join(' or ') }}</dd>
      <dt>Expected here</dt>
      <dd>{{ expected() }}</dd>
    </dl>
    <p class="soft"><kbd>l</kbd> opens the library: figure, all norms, error.</p>
    <p class="soft">Stop where it hurts. The surgeon’s limits and local rules come first.</p>
  `,
  styleUrl: './technique-card.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TechniqueCard {
  protected readonly exam = inject(Exam);

  protected readonly place = computed(() => placementLines(this.exam.protocol()).filter((line) => line.label !== 'Inclinometer'));

  protected readonly expected = computed(() => {
    const norm = this.exam.normFor(0);
    if (!norm) return `no norm in ${this.exam.normSetName()}`;
    const { low, high } = norm.expectedBand;
    const figure =
      low < high
        ? `${formatWhole(low)}–${formatWhole(high)}°`
        : `${formatWhole(norm.expected)}° ± ${formatWhole(bandAround(this.exam.sem()))}`;
    const misfits = flagWords(norm.flags);
    return `${figure} · ${norm.setName}, ${norm.band}${misfits.length ? ` (${misfits.join('; ')})` : ''}`;
  });
}
