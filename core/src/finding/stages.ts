/** What a kind of finding is about, in the order in which they are read. */
export const FINDING_STAGES = ['worse', 'pain', 'again', 'loss', 'pattern', 'screen', 'beyond', 'change', 'error', 'silence'] as const;
export type FindingStage = (typeof FINDING_STAGES)[number];

/** Why a stage stands where it stands; losses say it each for itself. */
export const STAGE_PLACES: Readonly<Record<FindingStage, string>> = {
  worse: 'what got worse since the last visit comes before everything else',
  pain: 'pain and an end that says stop are handled before range',
  again: 'readings to take again come before what they would say',
  loss: '',
  pattern: 'what several losses have in common follows the losses',
  screen: 'what a screen shows follows what was measured',
  beyond: 'more than expected follows what is short',
  change: 'change since the last visit follows what is found today',
  error: 'what measuring error covers comes late',
  silence: 'what no norm judges comes last',
};
