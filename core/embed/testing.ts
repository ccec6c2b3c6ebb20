import fc from 'fast-check';
import { PLAIN_RULES } from '../page/testing.ts';
import { CORPUS } from './corpus.ts';
import type { Hosts } from './host.ts';
import { madeUpHosts } from './made-up-hosts.ts';
import { type ReadEmbed, readPasted } from './reading.ts';
import type { EmbedTarget } from './target.ts';

/** The made-up hosts as they would stand on the web, and nothing decided. */
export const HOSTS: Hosts = {
  entries: madeUpHosts((name) => `https://${name}.example`),
  decisions: [],
};

export const TARGET: EmbedTarget = { ...PLAIN_RULES, siteAddress: 'https://reserve.example/' };

/** The one thing that is in a pasted text. */
export function readOne(pasted: string, hosts: Hosts = HOSTS): ReadEmbed {
  const { embeds, refusals } = readPasted(pasted, hosts);
  const [only, other] = embeds;
  if (!only || other) throw new Error(`${embeds.length} things were read. ${refusals.join(' ')}`);
  return only;
}

/** Texts of the corpus, cut, joined and with noise in them. */
export function mutations(): fc.Arbitrary<string> {
  const texts = Object.values(CORPUS)
    .flat()
    .map(({ text }) => text)
    .filter((text) => text !== '');
  const base = fc.constantFrom(...texts);
  return fc.tuple(base, fc.nat(), fc.nat(), base, fc.string()).map(([one, from, to, other, noise]) => {
    const [start = 0, end = 0] = [from % one.length, to % one.length].sort((a, b) => a - b);
    return one.slice(0, start) + noise + other.slice(0, (to % other.length) + 1) + one.slice(end);
  });
}
