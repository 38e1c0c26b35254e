import { ON_THE_WAY, type QueueStanding } from '@dial-gauge/core';

/** Where it stands was not told yet: what the column holds by itself. */
export const RANK_UNTOLD = String(ON_THE_WAY);

/** Nobody has measured them yet: before those on their way. */
export const RANK_NEW = `${ON_THE_WAY}0`;

/** What the queue is ordered by: urgency, then since when, oldest first. */
export const rankKeyOf = ({ urgency, since }: QueueStanding): string => `${urgency}${(since ?? '9999-12-31').replaceAll('-', '')}`;
