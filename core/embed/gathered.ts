import type { Oembed } from '../formats/oembed.ts';
import type { Stretch, Tag } from './markup.ts';
import type { Source } from './unwrap.ts';

/** From what a thing was read. */
export type ReadFrom =
  | 'address'
  | 'frame'
  | 'player'
  | 'object'
  | 'applet'
  | 'widget'
  | 'quote'
  | 'link'
  | 'oembed'
  | 'data';

/** A part of what was pasted: what was kept of it as a fact, or what does not come along, with why. */
export interface Mark extends Stretch {
  readonly as: 'fact' | 'dropped';
  readonly why: string;
}

/** A stretch of pasted text that holds an address, as it stands there. */
interface AddressText extends Stretch {
  readonly raw: string;
}

/** Something that may become an embed, as it stood in what was pasted. */
export interface Candidate {
  readonly from: ReadFrom;
  readonly address: string;
  readonly addressText: AddressText | null;
  readonly tag: Tag | null;
  readonly width: number | null;
  readonly height: number | null;
  /** The share of its height in its width, in percent, where only a wrapper says it. */
  readonly heightPercent: number | null;
  readonly title: string;
  /** What stood under it as its caption. */
  readonly caption: string;
  readonly oembed: Oembed | null;
}

export interface Gathered {
  readonly source: Source;
  readonly candidates: readonly Candidate[];
  readonly marks: readonly Mark[];
  /** Sentences of what was there and is nothing that can be embedded. */
  readonly notes: readonly string[];
}

/** More things than these are not taken from one paste. */
export const MOST_THINGS = 50;

/** A candidate of which nothing is known but where it stands. */
export const PLAIN: Omit<Candidate, 'from' | 'address'> = {
  addressText: null,
  tag: null,
  width: null,
  height: null,
  heightPercent: null,
  title: '',
  caption: '',
  oembed: null,
};

/** Each address once. */
export function unlike(candidates: readonly Candidate[]): readonly Candidate[] {
  const seen = new Set<string>();
  return candidates.filter(({ address }) => !seen.has(address) && seen.add(address));
}

export const NOTHING_THERE =
  'No address and no embed code is in this text. Paste the address of the page that shows the thing, or the code that its host offers under Share or Embed.';
