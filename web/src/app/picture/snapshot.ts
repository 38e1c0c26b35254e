import type { Point } from '@dial-gauge/core';

/** Longest side of a still that is attached, in pixels. */
const LONGEST = 1_600;

/** A still with the lines drawn on it, as JPEG in base64. */
export function snapshot(
  from: CanvasImageSource,
  size: { readonly width: number; readonly height: number },
  lines: readonly { readonly from: Point; readonly to: Point }[],
): string {
  const scale = Math.min(1, LONGEST / Math.max(size.width, size.height));
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [Math.round(size.width * scale), Math.round(size.height * scale)];
  const context = canvas.getContext('2d')!;
  context.drawImage(from, 0, 0, canvas.width, canvas.height);
  const unit = Math.max(1, Math.max(canvas.width, canvas.height) / 700);
  // Light under dark: a line that is seen on any picture.
  for (const [colour, width] of [
    ['#ffffff', 6],
    ['#0f5560', 3],
  ] as const) {
    context.strokeStyle = colour;
    context.lineWidth = width * unit;
    context.lineCap = 'round';
    for (const line of lines) {
      context.beginPath();
      context.moveTo(line.from[0] * scale, line.from[1] * scale);
      context.lineTo(line.to[0] * scale, line.to[1] * scale);
      context.stroke();
    }
  }
  return canvas.toDataURL('image/jpeg', 0.85).split(',')[1]!;
}
