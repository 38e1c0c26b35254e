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
  // counts[i]: share of the orders of the first values that have i inversions.
  let shares = [1];
  for (let size = 2; size <= n; size++) {
    const next = new Array<number>((size * (size - 1)) / 2 + 1).fill(0);
    shares.forEach((share, inversions) => {
      for (let more = 0; more < size; more++) next[inversions + more]! += share / size;
    });
    shares = next;
  }
  return shares.reduce((sum, share, inversions) => (pairs - 2 * inversions >= s ? sum + share : sum), 0);
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

function findLeast(n: number, p: number): number | undefined {
  const pairs = (n * (n - 1)) / 2;
  let least: number | undefined;
  for (let s = pairs; s >= 0; s -= 2) {
    if (chanceOfKendall(n, s) > p) break;
    least = s;
  }
  return least;
}
