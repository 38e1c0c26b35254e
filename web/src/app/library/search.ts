import { motion, PROTOCOLS, protocolName, regionName, type Protocol } from '@dial-gauge/core';
import MiniSearch from 'minisearch';

interface Entry {
  readonly id: number;
  readonly name: string;
  readonly region: string;
  readonly how: string;
}

const index = new MiniSearch<Entry>({
  fields: ['name', 'region', 'how'],
  searchOptions: { boost: { name: 4, region: 2 }, combineWith: 'AND', prefix: true, fuzzy: (term) => (term.length > 4 ? 0.2 : false) },
});
index.addAll(
  PROTOCOLS.map((protocol, id) => ({
    id,
    name: protocolName(protocol),
    region: regionName(motion(protocol.motion).joint),
    how: [protocol.motion, protocol.startingPosition, protocol.twoJoint, protocol.instruments.join(' ')].join(' '),
  })),
);

/**
 * Protocols that hold every word, best first: beginnings of words count, and
 * longer words forgive a slip of the finger. Without a word, all of them.
 */
export function searchProtocols(words: string): readonly Protocol[] {
  if (words.trim() === '') return PROTOCOLS;
  return index.search(words).map((hit) => PROTOCOLS[hit.id as number]!);
}
