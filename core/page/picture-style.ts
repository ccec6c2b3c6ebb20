import * as v from 'valibot';
import { ColourSchema } from '../media/colour.ts';

/** Classes that Placard writes itself on the figure of a piece. */
const OWN_CLASS = /^(?:placed|beside-left|beside-right|centred|column|breakout|bleed|stack-.*|is-.*)$/;

/** The class of a style on its site (HTML, `class`; CSS 2.2, 4.1.3, without escapes). */
export const StyleClassSchema = v.pipe(
  v.string(),
  v.trim(),
  v.regex(
    /^[a-z][a-z0-9_-]{0,39}$/i,
    'A class is of letters, digits, hyphens and low lines, and begins with a letter.',
  ),
  v.check((name) => !OWN_CLASS.test(name), 'Placard uses this class itself. Name another one.'),
);

export const SHADOWS = ['none', 'soft', 'deep'] as const;
export const TONES = ['as it is', 'grey', 'warm', 'pale'] as const;
const whole = (most: number) => v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(most));

/**
 * How pictures may look on a target, by a class of the target's own: a line round them, corners, a shadow and a tone. It lies
 * over the picture and is never drawn into its file. Px.
 */
const PictureStyleSchema = v.strictObject({
  className: StyleClassSchema,
  name: v.pipe(v.string(), v.trim(), v.minLength(1, 'Name the style.'), v.maxLength(40)),
  line: v.strictObject({ width: whole(20), colour: ColourSchema }),
  corners: whole(200),
  shadow: v.picklist(SHADOWS),
  tone: v.picklist(TONES),
});
export type PictureStyle = v.InferOutput<typeof PictureStyleSchema>;

/** Each class once: two styles of one class would be one. */
export const PictureStylesSchema = v.pipe(
  v.array(PictureStyleSchema),
  v.maxLength(12, 'A target has at most 12 picture styles.'),
  v.check(
    (styles) => new Set(styles.map(({ className }) => className)).size === styles.length,
    'Two picture styles have the same class. Give each one of its own.',
  ),
);

const SHADOW_CSS: Readonly<Record<PictureStyle['shadow'], string>> = {
  none: '',
  soft: 'box-shadow:0 1px 4px rgb(0 0 0/0.28)',
  deep: 'box-shadow:0 6px 22px rgb(0 0 0/0.34)',
};
const TONE_CSS: Readonly<Record<PictureStyle['tone'], string>> = {
  'as it is': '',
  grey: 'filter:grayscale(1)',
  warm: 'filter:sepia(0.35)',
  pale: 'filter:saturate(0.6) brightness(1.08)',
};

/**
 * A style as declarations for the picture itself. Its line lies inside the picture (CSS UI 4, `outline-offset`), so that it is
 * as wide with it as without, and what stands round it does not move.
 */
export function pictureStyleCss({ line, corners, shadow, tone }: PictureStyle): string {
  return [
    line.width > 0 ? `outline:${line.width}px solid ${line.colour};outline-offset:-${line.width}px` : '',
    corners > 0 ? `border-radius:${corners}px` : '',
    SHADOW_CSS[shadow],
    TONE_CSS[tone],
  ]
    .filter(Boolean)
    .join(';');
}

/** The style that a placement has on its target; null for none, and for one that the target does not have. */
export function styleOn(
  styles: readonly PictureStyle[],
  { pictureStyle }: { readonly pictureStyle: string | null },
): PictureStyle | null {
  return styles.find(({ className }) => className === pictureStyle) ?? null;
}
