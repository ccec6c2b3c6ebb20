import { readOembed } from '../formats/oembed.ts';
import { fromMarkup } from './from-markup.ts';
import { fromData, fromOembed } from './from-oembed.ts';
import { fromText } from './from-text.ts';
import type { Gathered } from './gathered.ts';
import type { Hosts } from './host.ts';
import { unwrap } from './unwrap.ts';

/**
 * All things in a pasted text that may become embeds: data in oEmbed, markup in any condition, or addresses in plain
 * text. Linear in its length. Never throws.
 */
export function gatherCandidates(pasted: string, hosts: Hosts): Gathered {
  const start = pasted.trimStart();
  if (/^(\{|\[\s{0,99}[{\]])/.test(start)) return fromData(pasted, hosts);
  if (/^(<\?xml[^>]{0,200}>\s{0,99})?<oembed[\s>]/i.test(start))
    return fromOembed(pasted, [readOembed(pasted)], hosts);
  const source = unwrap(pasted);
  return HAS_TAG.test(source.text) ? fromMarkup(source, hosts) : fromText(source);
}

/** A tag, and not an address in pointed brackets. */
const HAS_TAG = /<(?:[a-z][a-z0-9-]*(?:[\s/>]|$)|[!/])/i;
