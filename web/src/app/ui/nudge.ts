const WAYS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] } as const;

/** How far an arrow key moves something that lies on a drawing: a step, with Shift ten; null for any other key. */
export function nudgeOf({ key, shiftKey }: KeyboardEvent, step: number): readonly [x: number, y: number] | null {
  const way = WAYS[key as keyof typeof WAYS] as readonly [number, number] | undefined;
  const far = (shiftKey ? 10 : 1) * step;
  return way ? [way[0] * far, way[1] * far] : null;
}
