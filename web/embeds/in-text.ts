import type { Hosts } from '#core/embed/host.ts';
import type { Embed } from '#core/embed/model.ts';
import { readPasted } from '#core/embed/reading.ts';

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
