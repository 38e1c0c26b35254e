/** Most messages a second of one connection, and how many may come at once: two instruments of sixty samples, with room. */
const RATE = 130;
const BURST = 260;

/** A bucket that fills with time: says whether one more may come now. */
export function meter(now: () => number = () => performance.now()): () => boolean {
  let [left, at] = [BURST, now()];
  return () => {
    const moment = now();
    left = Math.min(BURST, left + ((moment - at) / 1000) * RATE);
    at = moment;
    if (left < 1) return false;
    left -= 1;
    return true;
  };
}
