/** Which loss comes first: schools differ, and a clinic says which one it follows. */
export const RANKINGS = ['largest-first', 'ground-up', 'nearest-complaint', 'painless-first'] as const;
export type Ranking = (typeof RANKINGS)[number];
export const DEFAULT_RANKING: Ranking = 'largest-first';

export const RANKING_NAMES: Readonly<Record<Ranking, string>> = {
  'largest-first': 'largest loss first',
  'ground-up': 'from the ground up',
  'nearest-complaint': 'nearest the complaint first',
  'painless-first': 'painless and short first, then painful',
};
