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
  /** Whether what text runs beside is the figure, or the picture itself for a site that keeps no figures. */
  sides: v.optional(v.picklist(['figure', 'picture']), 'figure'),
});
export type Sending = v.InferOutput<typeof SendingSchema>;

export const NOT_SENT: Sending = { by: 'none', address: '', captions: 'figcaption', sides: 'figure' };

/**
 * The HTML of a page, which is our own and has its styles in it, as this target keeps it. A caption in plain text is a `div`: what it
 * holds may be folded away, which no paragraph may hold.
 */
export function htmlFor({ captions, sides }: Pick<Sending, 'captions' | 'sides'>, html: string): string {
  const sided = sides === 'figure' ? html : html.split(BEFORE_FIGURE).map(sideOnPicture).join('');
  return captions === 'figcaption' ? sided : sided.replace(/<(\/?)figcaption\b/g, '<$1div');
}

const BEFORE_FIGURE = /(?=<figure\b)/;
const FLOATING = /^(<figure\b[^>]*?) style="(float:[^"]*)"/;
const OF_PICTURE = /(<img\b[^>]*?) style="[^"]*"/;

/** From one figure up to the next: its side, width and margins on its picture, which is as wide as it otherwise. */
function sideOnPicture(html: string): string {
  const [, head = '', side = ''] = FLOATING.exec(html) ?? [];
  if (side === '' || !OF_PICTURE.test(html)) return html;
  const picture = `$1 style="${side};height:auto"`;
  return html.replace(FLOATING, head).replace(OF_PICTURE, picture);
}
