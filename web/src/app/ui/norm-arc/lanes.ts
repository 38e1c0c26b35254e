import { bandOf, describeEnd, formatNumber, type Motion, type NormChoice, type NormSet, type TaskNeed } from '@dial-gauge/core';

/** One set's value for a motion, ready to be drawn in a lane of its own. */
export interface NormLane {
  readonly number: number;
  readonly set: NormSet;
  readonly choice: NormChoice;
  /** True for the set the clinic judges by. */
  readonly chosen: boolean;
}

/** Expected figure or band in words, with the spread where there is one: "44.4° (SD 4.3)", "110–135°". */
export function valueWords(motion: Motion, { entry: { value } }: NormChoice): string {
  const plain = (figure: number) => describeEnd(motion, figure);
  switch (value.kind) {
    case 'point':
      return plain(value.expected);
    case 'cutoff':
      return motion.better === 'less' ? `${plain(value.at)} or less` : `${plain(value.at)} or more`;
    case 'range':
      return value.low < 0 || motion.plus || motion.pastZeroIsHyper
        ? `${plain(value.low)} to ${plain(value.high)}`
        : `${formatNumber(value.low)}–${plain(value.high)}`;
    case 'distribution':
    case 'skewed':
      return `${plain(value.mean)} (SD ${formatNumber(value.sd)})`;
    case 'mean':
      return `${plain(value.mean)} (mean; ${formatNumber(value.ciLow)} to ${formatNumber(value.ciHigh)})`;
  }
}

/** Least and most that has to be on the scale, rounded outward to its steps. */
export function scaleOf(motion: Motion, lanes: readonly NormLane[], needs: readonly TaskNeed[]): { from: number; to: number } {
  const bands = lanes.map((lane) => bandOf(lane.choice.entry.value));
  const values = [0, ...bands.flatMap((band) => [band.low, band.high]), ...needs.map((need) => need.atLeast)];
  const step = motion.unit === 'deg' ? 10 : Math.max(...values) > 100 ? 50 : 5;
  const to = Math.ceil((Math.max(...values) + step * 0.3) / step) * step;
  return { from: Math.floor(Math.min(...values) / step) * step, to: Math.max(to, step * 2) };
}
