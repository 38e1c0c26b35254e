import { run } from './run.js';

const answer = (args: readonly string[], text = '') => {
  const outcome = run(args, () => text);
  if (outcome.exitCode !== 0) throw new Error(outcome.problems.join('\n'));
  return JSON.parse(outcome.output);
};
const refusal = (args: readonly string[], text = '') => {
  const outcome = run(args, () => text);
  return outcome.exitCode === 2 ? outcome.problems : outcome.output;
};

describe('gauge angle', () => {
  it('reads two, three and four points, and says how wrong a view may make them', () => {
    expect(answer(['angle', '0,-10 0,0 10,0'])).toEqual({ degrees: 90, side: 'clockwise', error: { atView5: 0.22, atView10: 0.88 } });
    expect(answer(['angle', '120,80 150,200 260,210']).degrees).toBeCloseTo(109.23, 2);
    expect(answer(['angle', '0,0 5,0'])).toEqual({ vertical: 90, horizontal: 0, error: { atView5: 0, atView10: 0 } });
    expect(answer(['angle', '0,0 0,-5 9,9 14,9'])).toEqual(jasmine.objectContaining({ degrees: 90, side: 'clockwise' }));
  });

  it('refuses what is no point, too few, too many and two at one place', () => {
    expect(refusal(['angle'])).toEqual([jasmine.stringContaining('takes one quoted list')]);
    expect(refusal(['angle', '1,2 3'])).toEqual(['point 2: "3" is no point; allowed: x,y as 120,80']);
    expect(refusal(['angle', '1,2 a,b 3,4'])).toEqual([jasmine.stringContaining('point 2: "a,b"')]);
    expect(refusal(['angle', '1,2'])).toEqual(['angle: 1 points; allowed: 2, 3 or 4']);
    expect(refusal(['angle', '1,2 1,3 1,4 1,5 1,6'])).toEqual(['angle: 5 points; allowed: 2, 3 or 4']);
    expect(refusal(['angle', '1,2 1,2 3,4'])).toEqual(['angle: points 1 and 2 lie at one place; allowed: two places']);
  });
});

describe('gauge tilt', () => {
  const FOR = ['--motion', 'knee.flexion', '--side', 'left'];
  /** Held at one tilt, moved over in two seconds, held at another. */
  const stream = (from: number, to: number, out = 0): string => {
    const rows = Array.from({ length: 51 }, (_, n) => {
      const tilt = n < 15 ? from : n < 35 ? from + ((to - from) * (n - 15)) / 20 : to;
      const [t, o] = [(tilt * Math.PI) / 180, (out * Math.PI) / 180];
      return [n / 10, Math.cos(o) * Math.cos(t), Math.cos(o) * Math.sin(t), Math.sin(o)].join(',');
    });
    return ['t,gx,gy,gz', ...rows].join('\n');
  };

  it('reads a movement over the jump of the scale, with what was held', () => {
    expect(answer(['tilt', 'a.csv', ...FOR], stream(170, 250))).toEqual({
      ...{ zero: 170, end: -110, excursion: 80, peak: 80, outOfPlane: 0, verdict: 'good' },
      holds: [
        { t: 1, degrees: 0 },
        { t: 4.5, degrees: 80 },
      ],
    });
    expect(answer(['tilt', 'a.csv', ...FOR], stream(0, -60, 15))).toEqual(
      jasmine.objectContaining({ excursion: 60, outOfPlane: 15, verdict: 'warn' }),
    );
    expect(answer(['tilt', 'a.csv', ...FOR], stream(0, 60, 40)).verdict).toBe('refused');
  });

  it('refuses by place: options, columns, cells, times, and what the motion cannot hold', () => {
    const wrong = (args: readonly string[], text = stream(0, 60)) => refusal(['tilt', 'a.csv', ...args], text);
    expect(wrong([])).toEqual(['--motion: is missing; allowed: one such as knee.flexion']);
    expect(wrong(['--motion', 'knee.bend', '--side', 'left'])).toEqual([jasmine.stringContaining('"knee.bend" is no motion')]);
    expect(wrong(['--motion', 'distance.kneeToWall', '--side', 'left'])).toEqual([jasmine.stringContaining('cannot be read by gravity')]);
    expect(wrong(['--motion', 'knee.flexion'])).toEqual(['--side: is missing; allowed: left, right']);
    expect(wrong(['--motion', 'knee.flexion', '--side', 'midline'])).toEqual([
      jasmine.stringContaining('"midline" does not fit knee.flexion'),
    ]);
    expect(wrong(['--colour', 'red'])).toEqual([jasmine.stringContaining('arguments:')]);
    expect(wrong(FOR, 't,gx,gy\n0,1,0')).toEqual(['a.csv: has no column gz; allowed: t,gx,gy,gz in the first line']);
    expect(wrong(FOR, 't,gx,gy,gz\n0,1,0,0\n1,x,,0')).toEqual([
      'line 3, gx: "x" is no number; allowed: a number',
      'line 3, gy: is empty; allowed: a number',
    ]);
    expect(wrong(FOR, 't,gx,gy,gz\n0,1,0,0\n0,1,0,0')).toEqual(['line 3, t: 0 is not after 0; allowed: times that rise']);
    expect(wrong(FOR, 't,gx,gy,gz\n0,1,0,0\n1,0,0,0')).toEqual([jasmine.stringContaining('line 3, g: feels no gravity')]);
    expect(wrong(FOR, 't,gx,gy,gz\n0,1,0,0')).toEqual(['a.csv: 1 is too few; allowed: 2 or more']);
    expect(wrong(FOR, stream(0, 175))).toEqual([jasmine.stringMatching(/comes to 175°, which knee flexion cannot hold; allowed: /)]);
  });
});
