import { FINDING_KINDS, kindOf, stageOf, type Judgement } from '@dial-gauge/core';
import { bodyMarks } from './body-marks';

const HIP = { motion: 'hip.flexion', side: 'left', mode: 'passive', position: 'supine' } as const;
const judged = (kind: string | null): Pick<Judgement, 'measurements' | 'findings' | 'notJudged'> =>
  ({ measurements: [{ measurement: HIP }], findings: kind === null ? [] : [{ ...HIP, kind }], notJudged: [] }) as never;
const leftHip = (kind: string | null) => bodyMarks(judged(kind)).find(({ joint, side }) => joint === 'hip' && side === 'left')!;

describe('marks on the body map', () => {
  it('call no joint fine at which something was found that matters', () => {
    const kinds = FINDING_KINDS.filter((kind) => !kindOf(kind)?.aside && !['screen', 'silence'].includes(stageOf(kind)));
    for (const kind of kinds) expect(leftHip(kind).state).withContext(kind).not.toBe('fine');
    expect(kinds).toContain('worse');
    expect(leftHip(null).state).toBe('fine');
  });

  it('say what got worse, though it is not short of anything', () => {
    expect(leftHip('worse')).toEqual({ joint: 'hip', side: 'left', state: 'short', words: 'worse than at the last visit' });
  });

  it('say where nothing was measured', () => {
    const knee = bodyMarks(judged(null)).find(({ joint, side }) => joint === 'knee' && side === 'left')!;
    expect(knee.state).toBe('not-measured');
  });
});
