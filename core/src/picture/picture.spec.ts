import fc from 'fast-check';
import { sampleStandardDeviation } from 'simple-statistics';
import type { Point } from '../angle/points.js';
import { seededRandom } from '../error/index.js';
import { angleIn, atLeastOff, lengthsIn, pictureError, scaleOf, valuesIn, type Placing } from './angles.js';
import { PICTURE_SETS, pictureSet } from './sets.js';

const rad = (degrees: number) => (degrees * Math.PI) / 180;
const from = ([x, y]: Point, length: number, up: number, right = 1): Point => [
  x + right * length * Math.sin(rad(up)),
  y - length * Math.cos(rad(up)),
];
/** A squat as it is drawn from its angles: shin and trunk against plumb, the knee between them. */
function squat(shin: number, thigh: number, trunk: number): Placing {
  const ankle: Point = [400, 700];
  const knee = from(ankle, 200, shin);
  const hip = from(knee, 210, -thigh);
  return { ankle, knee, hip, shoulder: from(hip, 240, trunk) };
}
const degree = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const value = (id: string, of: string, placing: Placing) =>
  angleIn(
    pictureSet(id)!.angles.find((angle) => angle.id === of)!,
    placing,
  )!;

describe('angles in a picture', () => {
  it('are those from which it was drawn', () => {
    fc.assert(
      fc.property(degree(1, 60), degree(10, 100), degree(1, 80), (shin, thigh, trunk) => {
        const drawn = squat(shin, thigh, trunk);
        const close = (of: string, expected: number) => Math.abs(value('squatSide', of, drawn) - expected) < 1e-6;
        return close('knee', shin + thigh) && close('trunk', trunk) && close('shin', shin) && close('parallel', Math.abs(shin - trunk));
      }),
    );
    const leg: Placing = { hip: [100, 500], knee: [250, 400], ankle: [400, 300] };
    // By hand: two up for three along.
    expect(value('legRaise', 'raise', leg)).toBeCloseTo((Math.atan2(2, 3) * 180) / Math.PI, 9);
    expect(value('legRaise', 'knee', leg)).toBeCloseTo(0, 9);
    expect(value('overheadReach', 'arm', { hip: [0, 100], shoulder: [0, 0], elbow: [0, -60] })).toBeCloseTo(180, 9);
  });

  it('are none where a landmark is missing or two lie at one place', () => {
    const [corner] = pictureSet('corner')!.angles;
    expect(angleIn(corner!, { first: [0, 0], middle: [1, 1] })).toBeNull();
    expect(angleIn(corner!, { first: [1, 1], middle: [1, 1], last: [2, 1] })).toBeNull();
    expect(angleIn(corner!, { first: [0, 0], middle: [1, 1], last: [1, 1] })).toBeNull();
    expect(valuesIn(pictureSet('corner')!, [{}], 5)).toEqual([]);
  });

  it('are the mean of their placings, and tell how steady the hand is and what the view may hide', () => {
    const placed = (off: number): Placing => ({ first: [0, 100], middle: [0, 0], last: [100, off] });
    const [corner] = valuesIn(pictureSet('corner')!, [placed(0), placed(5), placed(-5)], 10);
    expect(corner!.degrees).toBeCloseTo(90, 9);
    expect(corner!.placings).toBe(3);
    // By hand: atan 0.05 is 2.8624°, and of three that is the standard deviation of −, 0 and +.
    expect(corner!.byPlacing).toBeCloseTo(2.8624, 3);
    // The bound of core/angle: a right angle seen 10° off square is off by 0.88° at the most.
    expect(corner!.byView).toBeCloseTo(0.88, 2);
    expect(valuesIn(pictureSet('corner')!, [placed(0)], 10)[0]!.byPlacing).toBeNull();
    // A half-finished placing spoils none of the others.
    expect(valuesIn(pictureSet('corner')!, [placed(0), { first: [0, 1] }], 10)[0]!.placings).toBe(1);
  });

  it('name their landmarks, and no landmark is placed for nothing', () => {
    for (const { id, landmarks, angles, lengths } of PICTURE_SETS) {
      const ids = landmarks.map((landmark) => landmark.id);
      expect(new Set(ids).size).withContext(id).toBe(ids.length);
      for (const { of, kind } of angles) {
        expect(of.every((one) => ids.includes(one)))
          .withContext(id)
          .toBeTrue();
        expect(of.length).withContext(id).toBe({ corner: 3, bend: 3, plumb: 2, level: 2, between: 4 }[kind]);
      }
      expect(lengths.every(({ of }) => of.every((one) => ids.includes(one))))
        .withContext(id)
        .toBeTrue();
      expect(ids.filter((one) => !angles.some(({ of }) => of.includes(one))))
        .withContext(id)
        .toEqual([]);
    }
  });

  it('take a scale from a known length', () => {
    expect(scaleOf([0, 0], [30, 40], 25)).toBeCloseTo(0.5, 9);
    expect([scaleOf([1, 1], [1, 1], 25), scaleOf([0, 0], [3, 4], 0), scaleOf([0, 0], [3, 4], NaN)]).toEqual([null, null, null]);
  });

  it('measure lengths by it, with the error of the view, and make one error of both', () => {
    const set = pictureSet('squatSide')!;
    const placed = (x: number): Placing => ({ ankle: [100, 700], knee: [100 + x, 500] });
    const [travel] = lengthsIn(set, [placed(50), placed(54)], 0.2, 10);
    // By hand: 52 units of 0.2 cm; the cosine of 10° is 0.98481.
    expect(travel!.cm).toBeCloseTo(10.4, 9);
    expect(travel!.byView).toBeCloseTo(10.4 * (1 / 0.984807753 - 1), 6);
    expect(travel!.byPlacing).toBeCloseTo(0.2 * Math.sqrt(8), 9);
    expect(lengthsIn(set, [{}], 0.2, 10)).toEqual([]);
    const [own] = lengthsIn(pictureSet('segment')!, [{ first: [0, 0], last: [30, 40] }], 0.5, 5);
    expect(own!.cm).toBeCloseTo(25, 9);
    expect(own!.landmarks.bySkin).toBeCloseTo(Math.SQRT2 * 0.5, 9);
    expect(own!.landmarks.byHand).toBeCloseTo(Math.SQRT2 * 2 * 0.5, 9);
    // By hand: 3/√3 and 2/√4 are √3 and 1; together 2.
    const landmarks = { byHand: 5, bySkin: 0 };
    expect(pictureError({ byView: 3, byPlacing: 2, placings: 4, landmarks })).toBeCloseTo(2, 9);
    expect(pictureError({ byView: 3, byPlacing: null, placings: 1, landmarks })).toBeCloseTo(Math.sqrt(28), 9);
    // The spot on the skin is no better for being pointed at again.
    expect(pictureError({ byView: 3, byPlacing: 0, placings: 9, landmarks: { byHand: 5, bySkin: 1 } })).toBeCloseTo(2, 9);
  });

  it('are never without an error: landmarks are off by default, by hand and on the skin', () => {
    const set = pictureSet('segment')!;
    const upright: Placing = { first: [0, 400], last: [0, 0] };
    // By hand: 2 px at both ends of 400, across it: atan(2√2 / 400) = 0.4051°. On the skin 5 mm of 40 cm: 5 px, 2.5 times as much.
    const [plumb] = valuesIn(set, [upright], 0);
    expect(plumb!.byView).toBe(0);
    expect(plumb!.landmarks.byHand).toBeCloseTo(0.4051, 3);
    expect(plumb!.landmarks.bySkin).toBeCloseTo(2.5 * 0.4051, 3);
    expect(atLeastOff(plumb!, 1)).toBe(3);
    // Of a segment of 20 cm the same 5 mm are twice as much.
    expect(valuesIn(set, [upright], 0, 20 / 400)[0]!.landmarks.bySkin).toBeCloseTo(2 * plumb!.landmarks.bySkin, 3);
    for (const one of PICTURE_SETS)
      for (const angle of one.angles) {
        const placing = Object.fromEntries(angle.of.map((id, at): [string, Point] => [id, [100 * at + 7, 60 * at * at]]));
        const found = valuesIn(one, [placing, placing], 0).find((value) => value.angle === angle);
        if (found) expect(atLeastOff(found, 1)).withContext(`${one.id} ${angle.id}`).toBeGreaterThanOrEqual(1);
      }
  });

  it('have the error that placing again at random shows', () => {
    const random = seededRandom(5);
    const noise = () => 2 * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const drawn = squat(25, 80, 40);
    const set = pictureSet('squatSide')!;
    for (const angle of set.angles) {
      const found = Array.from({ length: 4000 }, () =>
        angleIn(angle, Object.fromEntries(Object.entries(drawn).map(([id, point]) => [id, [point![0] + noise(), point![1] + noise()]]))),
      ) as number[];
      const told = valuesIn(set, [drawn], 0).find((value) => value.angle === angle)!;
      expect(sampleStandardDeviation(found) / told.landmarks.byHand)
        .withContext(angle.id)
        .toBeCloseTo(1, 1);
    }
  });
});
