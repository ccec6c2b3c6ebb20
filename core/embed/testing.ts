import { PLAIN_RULES } from '../page/testing.ts';
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
