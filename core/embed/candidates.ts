import { readOembed } from '../formats/oembed.ts';
import { fromMarkup } from './from-markup.ts';
import { fromData, fromOembed } from './from-oembed.ts';
import { fromText } from './from-text.ts';
import type { Gathered } from './gathered.ts';
import type { Hosts } from './host.ts';
import { unwrap, unwrapWithin } from './unwrap.ts';

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
  if (!HAS_TAG.test(source.text)) return fromText(source);
  const gathered = fromMarkup(source, hosts);
  if (gathered.candidates.length > 0) return gathered;
  const within = unwrapWithin(pasted);
  const inner = within && fromMarkup(within, hosts);
  if (inner && inner.candidates.length > 0) return inner;
  // What was copied short of its last letter is read as if that were there.
  const ended = CUT_OFF.test(source.text) ? fromMarkup({ ...source, text: `${source.text}>` }, hosts) : null;
  return ended && ended.candidates.length > 0 ? ended : gathered;
}

const CUT_OFF = /<(?:iframe|frame|object|embed|video|audio)\b[^<>]{0,5000}$/i;

/** A tag, and not an address in pointed brackets. */
const HAS_TAG = /<(?:[a-z][a-z0-9-]*(?:[\s/>]|$)|[!/])/i;
