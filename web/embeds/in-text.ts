import { NOTHING_THERE } from '#core/embed/gathered.ts';
import type { Hosts } from '#core/embed/host.ts';
import type { Embed } from '#core/embed/model.ts';
import { type EmbedReading, readPasted } from '#core/embed/reading.ts';

/** What a text is that was brought to where text is written. */
export type InText =
  | { readonly kind: 'text' }
  | { readonly kind: 'embeds'; readonly embeds: readonly Embed[] }
  /** Embed code of which nothing can be taken; `why` is a sentence that says what to ask for instead. */
  | { readonly kind: 'refused'; readonly why: string };

/**
 * Reads a text that was brought to where text is written: embed code, or the address of a thing at a known host and
 * nothing else. Other addresses are links, as anybody expects of them, and all else is text.
 */
export function readInText(text: string, hosts: Hosts): InText {
  const reading = readPasted(text, hosts);
  const embeds = reading.embeds.map(({ embed }) => embed);
  if (reading.embeds.some(({ from }) => from !== 'address' && from !== 'link'))
    return { kind: 'embeds', embeds };
  if (embeds.length > 0) return isNothingElse(text, reading) ? { kind: 'embeds', embeds } : { kind: 'text' };
  const [why] = reading.refusals.filter((sentence) => sentence !== NOTHING_THERE);
  return why !== undefined && looksLikeCode(text) ? { kind: 'refused', why } : { kind: 'text' };
}

/** Whether a text is addresses of known things from its first letter to its last. */
function isNothingElse(text: string, { embeds }: EmbedReading): boolean {
  const isOnlyThings = embeds.every(
    ({ from, embed, notes }) => from === 'address' && embed.host !== null && notes.length === 0,
  );
  return isOnlyThings && text.trim().split(/\s+/).length === embeds.length;
}

/** Tags as they are, or escaped. */
export const looksLikeCode = (text: string) => text.includes('<') || text.includes('&lt;');
