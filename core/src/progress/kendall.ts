import { probit } from 'simple-statistics';

/**
 * Chance that Kendall's S of n independent values without ties reaches at
 * least `s`: exact, from the number of orders with a given count of
 * inversions.
 *
 * @see Hollander M, Wolfe DA. Nonparametric Statistical Methods, table of Kendall's K (from memory); recomputed by
 *   counting all orders in the tests
 * @example chanceOfKendall(5, 8) // 0.0417, 5 of 120 orders
 */
export function chanceOfKendall(n: number, s: number): number {
  const pairs = (n * (n - 1)) / 2;
  return sharesOfInversions(n).reduce((sum, share, inversions) => (pairs - 2 * inversions >= s ? sum + share : sum), 0);
}

/** Share of the orders of n values that have so many inversions, by how many. */
function sharesOfInversions(n: number): readonly number[] {
  let shares = [1];
  for (let size = 2; size <= n; size++) {
    // The new value stands behind 0 to size − 1 of the others: a sum that moves along.
    const next = new Array<number>((size * (size - 1)) / 2 + 1);
    for (let inversions = 0, moving = 0; inversions < next.length; inversions++) {
      moving += (shares[inversions] ?? 0) - (shares[inversions - size] ?? 0);
      next[inversions] = Math.max(0, moving) / size;
    }
    shares = next;
  }
  return shares;
}

/**
 * Smallest S that is reached by chance in at most `p` of all orders.
 *
 * @returns undefined where even all pairs in order happen more often: too few values
 */
export function leastKendall(n: number, p: number): number | undefined {
  const key = `${n}|${p}`;
  if (!known.has(key)) known.set(key, findLeast(n, p));
  return known.get(key);
}

/** Asked for the same few numbers of visits again and again. */
const known = new Map<string, number | undefined>();

/** From here on S is as good as normal: the exact figure and this one are the same from 40 values on. */
const NORMAL_FROM = 120;

function findLeast(n: number, p: number): number | undefined {
  const pairs = (n * (n - 1)) / 2;
  if (n >= NORMAL_FROM) return leastByNormal(n, p, pairs);
  let chance = 0;
  let least: number | undefined;
  for (const [inversions, share] of sharesOfInversions(n).entries()) {
    const s = pairs - 2 * inversions;
    chance += share;
    if (s < 0 || chance > p) break;
    least = s;
  }
  return least;
}

/** @see Kendall MG 1938: variance n(n − 1)(2n + 5)/18, with a correction for continuity (from memory) */
function leastByNormal(n: number, p: number, pairs: number): number {
  const sd = Math.sqrt((n * (n - 1) * (2 * n + 5)) / 18);
  const least = Math.ceil(1 + probit(1 - p) * sd);
  // S goes in steps of two, from as odd or even as the pairs.
  return (least - pairs) % 2 === 0 ? least : least + 1;
}
