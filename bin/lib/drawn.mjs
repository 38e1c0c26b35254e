/** A figure that squats, drawn from its angles: what is measured in its picture is held against these. */
export const SIZE = { width: 960, height: 720 };
const LENGTHS = { shin: 170, thigh: 175, trunk: 210, arm: 150, head: 34 };
const rad = (degrees) => (degrees * Math.PI) / 180;
const from = ([x, y], length, fromUp) => [x + length * Math.sin(rad(fromUp)), y - length * Math.cos(rad(fromUp))];

/** Degrees: shin and trunk against plumb, the knee between shin and thigh. */
export const STANDING = { shin: 3, knee: 6, trunk: 3 };
export const DEEPEST = { shin: 32, knee: 112, trunk: 41 };
/** Seconds: down, held at the deepest, up. */
export const TIMES = { down: 0.6, deepest: 1.8, up: 2.8, end: 3.6 };

/** The angles at a moment of the clip. */
export function anglesAt(t) {
  const { down, deepest, up, end } = TIMES;
  const share = t <= down ? 0 : t < deepest ? (t - down) / (deepest - down) : t <= up ? 1 : t < end ? 1 - (t - up) / (end - up) : 0;
  const smooth = (1 - Math.cos(Math.PI * share)) / 2;
  const between = (name) => STANDING[name] + (DEEPEST[name] - STANDING[name]) * smooth;
  return { shin: between('shin'), knee: between('knee'), trunk: between('trunk') };
}

/** Where the landmarks lie, in pixels. */
export function landmarksOf({ shin, knee, trunk }) {
  const ankle = [430, 640];
  const kneeAt = from(ankle, LENGTHS.shin, shin);
  const hip = from(kneeAt, LENGTHS.thigh, shin - knee);
  const shoulder = from(hip, LENGTHS.trunk, trunk);
  return { ankle, knee: kneeAt, hip, shoulder, hand: from(shoulder, LENGTHS.arm, 95), head: from(shoulder, 62, trunk) };
}

/** Draws it on a canvas of a page. Given to the page as text: it may use nothing from outside. */
export function draw(context, { width, height }, points) {
  context.fillStyle = '#f6f1e9';
  context.fillRect(0, 0, width, height);
  context.strokeStyle = '#d8cfbd';
  context.lineWidth = 4;
  context.beginPath();
  context.moveTo(60, 672);
  context.lineTo(width - 60, 672);
  context.stroke();
  const limb = (colour, thick, ...through) => {
    context.strokeStyle = colour;
    context.lineWidth = thick;
    context.lineCap = context.lineJoin = 'round';
    context.beginPath();
    through.forEach(([x, y], n) => (n === 0 ? context.moveTo(x, y) : context.lineTo(x, y)));
    context.stroke();
  };
  const { ankle, knee, hip, shoulder, hand, head } = points;
  limb('#857b67', 34, ankle, [ankle[0] + 74, 658], [ankle[0] - 26, 658], ankle);
  limb('#a9c4c6', 46, ankle, knee, hip);
  limb('#dcd3c2', 70, hip, shoulder);
  limb('#857b67', 26, shoulder, hand);
  context.fillStyle = '#dcd3c2';
  context.beginPath();
  context.arc(head[0], head[1], 36, 0, 2 * Math.PI);
  context.fill();
  for (const [x, y] of [ankle, knee, hip, shoulder]) {
    context.fillStyle = '#1c2b33';
    context.beginPath();
    context.arc(x, y, 5, 0, 2 * Math.PI);
    context.fill();
  }
}
