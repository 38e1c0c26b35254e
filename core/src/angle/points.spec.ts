import fc from 'fast-check';
import { againstEdges, angleAt, betweenSegments, PointsError, viewError, type Point } from './points.js';

const place = fc.tuple(fc.double({ min: -1000, max: 1000, noNaN: true }), fc.double({ min: -1000, max: 1000, noNaN: true }));
const degree = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const rad = (degrees: number) => (degrees * Math.PI) / 180;
const onCircle = ([x, y]: Point, degrees: number, radius: number): Point => [
  x + radius * Math.cos(rad(degrees)),
  y + radius * Math.sin(rad(degrees)),
];

describe('an angle in a picture', () => {
  // Right angles and the 3-4-5 triangle: school geometry.
  it('is what the drawing shows, and says which way it turns', () => {
    expect(angleAt([0, -10], [0, 0], [10, 0])).toEqual({ degrees: 90, turn: 'clockwise' });
    expect(angleAt([10, 0], [0, 0], [0, -10])).toEqual({ degrees: 90, turn: 'counterclockwise' });
    expect(angleAt([-5, 0], [0, 0], [5, 0]).degrees).toBe(180);
    expect(angleAt([5, 0], [0, 0], [9, 0])).toEqual({ degrees: 0, turn: 'none' });
    expect(angleAt([4, 0], [0, 0], [4, 3]).degrees).toBeCloseTo((Math.atan2(3, 4) * 180) / Math.PI, 10);
    expect(againstEdges([0, 0], [0, -7])).toEqual({ vertical: 0, horizontal: 90 });
    expect(againstEdges([3, 3], [-2, 3])).toEqual({ vertical: 90, horizontal: 0 });
    expect(
      betweenSegments(
        [
          [0, 0],
          [0, -5],
        ],
        [
          [9, 9],
          [14, 9],
        ],
      ),
    ).toEqual({ degrees: 90, turn: 'clockwise' });
  });

  it('is the one it was drawn from, wherever, however large and however turned the picture is', () => {
    fc.assert(
      fc.property(place, degree(0, 180), degree(0, 360), degree(1, 400), degree(1, 400), (middle, angle, turned, near, far) => {
        const seen = angleAt(onCircle(middle, turned, near), middle, onCircle(middle, turned + angle, far));
        return Math.abs(seen.degrees - angle) < 1e-6;
      }),
    );
  });

  it('is the same seen from the other end, and turned over turns the other way', () => {
    fc.assert(
      fc.property(place, place, place, (a, b, c) => {
        fc.pre(Math.hypot(a[0] - b[0], a[1] - b[1]) > 1e-3 && Math.hypot(c[0] - b[0], c[1] - b[1]) > 1e-3);
        const [there, back] = [angleAt(a, b, c), angleAt(c, b, a)];
        return Math.abs(there.degrees - back.degrees) < 1e-9 && (there.turn === 'none' || there.turn !== back.turn);
      }),
    );
  });

  it('is none where two points are one, and says which', () => {
    expect(() => angleAt([1, 1], [1, 1], [2, 2])).toThrowError(PointsError, /points 1 and 2 lie at one place; allowed: two places/);
    expect(() => angleAt([0, 1], [1, 1], [1, 1])).toThrowError(PointsError, /points 2 and 3/);
    expect(() => againstEdges([0, 0], [0, 0])).toThrowError(PointsError, /points 1 and 2/);
    expect(() =>
      betweenSegments(
        [
          [0, 0],
          [1, 0],
        ],
        [
          [2, 2],
          [2, 2],
        ],
      ),
    ).toThrowError(PointsError, /points 3 and 4/);
  });
});

describe('the error of a view', () => {
  it('is nothing from straight before, grows with the view, and is largest at a right angle', () => {
    expect([viewError(90, 0), viewError(0, 10), viewError(180, 10)].map((value) => Math.round(value * 1e9) / 1e9)).toEqual([0, 0, 0]);
    // A right angle seen 10° off: 2·atan(1/cos 10°) − 90° = 0.877°; 5° off: 0.219°.
    expect(viewError(90, 10)).toBeCloseTo(0.877, 3);
    expect(viewError(90, 5)).toBeCloseTo(0.218, 3);
    fc.assert(
      fc.property(
        degree(0, 180),
        degree(0, 60),
        degree(0, 20),
        (seen, view, more) => viewError(seen, view + more) >= viewError(seen, view) - 1e-9,
      ),
    );
  });

  // A camera turned about any axis in the picture's plane draws the plane together by the cosine across that axis.
  it('is never passed by a true angle that is seen so from any such view', () => {
    fc.assert(
      fc.property(degree(1, 179), degree(0, 360), degree(0, 180), degree(0, 30), (angle, turned, axis, view) => {
        const seenAs = ([x, y]: Point): Point => {
          const [c, s] = [Math.cos(rad(axis)), Math.sin(rad(axis))];
          const [along, across] = [x * c + y * s, (-x * s + y * c) * Math.cos(rad(view))];
          return [along * c - across * s, along * s + across * c];
        };
        const seen = angleAt(seenAs(onCircle([0, 0], turned, 1)), [0, 0], seenAs(onCircle([0, 0], turned + angle, 1))).degrees;
        return Math.abs(seen - angle) <= viewError(seen, view) + 1e-6;
      }),
      { numRuns: 1_000 },
    );
  });
});
