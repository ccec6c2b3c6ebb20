import * as v from 'valibot';
import { WebAddressSchema } from '../rights/web-address.ts';

/** How pages come to a target: not at all by themselves, or by Micropub (W3C Recommendation, 23 May 2017). */
export const WAYS = ['none', 'micropub'] as const;
export type WayName = (typeof WAYS)[number];

export const WAY_WORDS: Readonly<Record<WayName, string>> = {
  none: 'Taken away by hand',
  micropub: 'Micropub',
};

/** How pages are sent to a target, and what has to be written otherwise so that it survives there. */
export const SendingSchema = v.strictObject({
  by: v.picklist(WAYS),
  /** Where pages are taken; the empty text asks the site itself, which names it at its head. */
  address: WebAddressSchema,
  /** Whether captions go as HTML has them (`figcaption`), or as plain text for a site that drops those. */
  captions: v.picklist(['figcaption', 'plain']),
});
export type Sending = v.InferOutput<typeof SendingSchema>;

export const NOT_SENT: Sending = { by: 'none', address: '', captions: 'figcaption' };

/**
 * The HTML of a page, which is our own, as this target keeps it. A caption in plain text is a `div`: what it holds may be folded
 * away, which no paragraph may hold.
 */
export function htmlFor({ captions }: Pick<Sending, 'captions'>, html: string): string {
  return captions === 'figcaption' ? html : html.replace(/<(\/?)figcaption\b/g, '<$1div');
}
