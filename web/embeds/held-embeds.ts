import * as v from 'valibot';
import { ArrivedSchema, type Asset } from '#api/assets.ts';
import type { Hosts } from '#core/embed/host.ts';
import type { Embed } from '#core/embed/model.ts';
import { readPasted } from '#core/embed/reading.ts';
import { ask, tell } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { putPieces } from '../pieces/pieces.ts';

export interface Kept {
  readonly asset: Asset;
  readonly isNew: boolean;
  readonly sentence: string;
}

/** Puts an embed on the shelf; the same thing is held once. */
export async function keepEmbed(embed: Embed): Promise<Kept> {
  const kept = await ask(v.pick(ArrivedSchema, ['asset', 'isNew', 'sentence']), '/embeds', {
    method: 'POST',
    body: { embed },
  });
  putPieces([kept.asset]);
  for (const key of ['shelf', 'desk', 'folders', 'embed-held'])
    void queryClient.invalidateQueries({ queryKey: [key] });
  return kept;
}

/** Records the decision to trust the host of an address. */
export async function trustHost(address: string, scope: 'address' | 'host', reason: string): Promise<void> {
  await tell('/embeds/decisions', { method: 'POST', body: { scope, address, reason } });
  await queryClient.invalidateQueries({ queryKey: ['embed-hosts'] });
}

/**
 * The embeds in a text that was pasted where text is written: code of any host that is trusted, or the address of a
 * thing at a known one and nothing else. Other addresses are links, as anybody expects of them.
 */
export function embedsInText(text: string, hosts: Hosts): readonly Embed[] {
  const { embeds } = readPasted(text, hosts);
  const isCode = embeds.some(({ from }) => from !== 'address' && from !== 'link');
  const isOnlyAddresses = embeds.every(
    ({ from, embed, notes }) => from === 'address' && embed.host !== null && notes.length === 0,
  );
  const words = text.trim().split(/\s+/).length;
  if (embeds.length === 0) return [];
  if (isCode) return embeds.filter(({ trust }) => trust !== 'none').map(({ embed }) => embed);
  return isOnlyAddresses && words === embeds.length ? embeds.map(({ embed }) => embed) : [];
}
