import { attributeText, type Tag } from './markup.ts';

/** What an element says of its size: lengths in px, and its height as a share of its width in percent. Null for what it does not say. */
export interface SaidSize {
  readonly width: number | null;
  readonly height: number | null;
  readonly heightPercent: number | null;
}

/** Longer styles are cut, since what holds a shape stands in few letters. */
const MOST_STYLE = 2000;

/** What an element says by its attributes, its style, its data for a script, or a class that names a shape. */
export function sizeOf(tag: Tag, byClass: ReadonlyMap<string, number>): SaidSize {
  return {
    width: FILLS_WIDTH.test(attributeText(tag, 'style')) ? null : lengthOf(tag, 'width'),
    height: lengthOf(tag, 'height'),
    heightPercent:
      percentOfStyle(attributeText(tag, 'style')) ?? percentOfData(tag) ?? percentOfClass(tag, byClass),
  };
}

/** A style is stronger than an attribute (HTML, presentational hints): what fills any width stands at a fixed height. */
const FILLS_WIDTH =
  /^(?=.{0,500}(?:^|[;\s])width\s{0,9}:\s{0,9}\d{1,3}%).{0,500}(?:^|[;\s])height\s{0,9}:\s{0,9}\d{1,5}px/i;

const NUMBER = String.raw`\d{1,5}(?:\.\d{1,9})?`;
const PADDING = new RegExp(
  `padding(?:-bottom|-top|-block|-block-start|-block-end)?\\s{0,9}:\\s{0,9}(?:0(?:px|%)?\\s{1,9}0(?:px|%)?\\s{1,9})?(?:calc\\(\\s{0,9})?(${NUMBER})%`,
  'i',
);
/** `calc(9 / 16 * 100%)`, `calc(100% * 9 / 16)`, `calc(100% / (16 / 9))`. */
const PADDING_SUM = new RegExp(
  `padding(?:-bottom|-top)?\\s{0,9}:\\s{0,9}calc\\(\\s{0,9}(?:\\(?\\s{0,9}(${NUMBER})\\s{0,9}/\\s{0,9}(${NUMBER})\\s{0,9}\\)?\\s{0,9}\\*\\s{0,9}100%|100%\\s{0,9}\\*\\s{0,9}\\(?\\s{0,9}(${NUMBER})\\s{0,9}/\\s{0,9}(${NUMBER})|100%\\s{0,9}/\\s{0,9}\\(\\s{0,9}(${NUMBER})\\s{0,9}/\\s{0,9}(${NUMBER}))`,
  'i',
);
/** `aspect-ratio`, or a name of one's own that a sheet of styles reads. */
const RATIO = new RegExp(
  `(?:aspect-ratio|--[a-z-]{0,30}ratio)\\s{0,9}:\\s{0,9}(?:auto\\s{1,9})?(${NUMBER})(%?)(?:\\s{0,9}[/:]\\s{0,9}(${NUMBER}))?`,
  'i',
);
/** A height in the width of the window, which is how a full width keeps its shape. */
const VIEWPORT = new RegExp(`(?:^|[;\\s])height\\s{0,9}:\\s{0,9}(${NUMBER})vw`, 'i');

/** The share of its height in its width, in percent, that a style holds; null where it holds none. */
export function percentOfStyle(style: string): number | null {
  const text = style.slice(0, MOST_STYLE);
  const sum = PADDING_SUM.exec(text);
  if (sum) {
    const [up, down, up2, down2, across3, down3] = sum.slice(1).map(Number);
    if (up !== undefined && up > 0) return percent(down, up);
    if (up2 !== undefined && up2 > 0) return percent(down2, up2);
    return percent(across3, down3);
  }
  const ratio = RATIO.exec(text);
  if (ratio)
    return ratio[2] === '%' ? likely(Number(ratio[1])) : percent(Number(ratio[1]), Number(ratio[3] ?? 1));
  return likely(Number(PADDING.exec(text)?.[1] ?? VIEWPORT.exec(text)?.[1] ?? 0));
}

function percent(across = 0, down = 0): number | null {
  return across > 0 ? likely((100 * down) / across) : null;
}

/** Less is a margin and no shape. */
function likely(said: number): number | null {
  return said >= 20 && said <= 500 ? said : null;
}

/** `data-ratio="16:9"`, `data-aspect-ratio="1.7778"`, `data-ratio="0.5625"`. */
function percentOfData(tag: Tag): number | null {
  for (const { name, value } of tag.attributes) {
    if (!/^data-(?:aspect-?|video-?)?ratio$/.test(name)) continue;
    const found = new RegExp(
      `^\\s{0,9}(${NUMBER})(%?)(?:\\s{0,9}[:/x]\\s{0,9}(${NUMBER}))?\\s{0,9}$`,
      'i',
    ).exec(value);
    if (!found) continue;
    const said = Number(found[1]);
    if (found[2] === '%') return likely(said);
    if (found[3]) return percent(said, Number(found[3]));
    // One number is the width in heights where it is over one, as `aspect-ratio` writes it, and the height in widths under it.
    return said >= 1 ? percent(said, 1) : likely(100 * said);
  }
  return null;
}

/** `ratio-16x9`, `aspect-4-3`, `embed-21by9`: a class that says a shape in two numbers; else one that a sheet of styles gave one. */
function percentOfClass(tag: Tag, byClass: ReadonlyMap<string, number>): number | null {
  const classes = attributeText(tag, 'class').slice(0, MOST_STYLE).split(/\s+/);
  for (const name of classes) {
    const said = byClass.get(name);
    if (said !== undefined) return said;
    const found =
      /(?:^|[-_])(\d{1,2})(?:x|by|to|:)(\d{1,2})$/i.exec(name) ??
      /(?:ratio|aspect)[-_]{0,2}(?:ratio[-_]{0,2})?\[?(\d{1,2})[-_/:](\d{1,2})\]?$/i.exec(name);
    if (found) return percent(Number(found[1]), Number(found[2]));
    if (/^aspect-(?:video)$/.test(name)) return percent(16, 9);
    if (/^aspect-(?:square)$/.test(name)) return 100;
  }
  return null;
}

/** The shapes that a sheet of styles gives to classes: `.box { padding-bottom: 56.25% }`. Linear in its length. */
export function shapesOfSheet(css: string): ReadonlyMap<string, number> {
  const shapes = new Map<string, number>();
  let at = 0;
  for (let times = 0; times < 500; times += 1) {
    const open = css.indexOf('{', at);
    const close = css.indexOf('}', open);
    if (open < 0 || close < 0) return shapes;
    const selector = css.slice(Math.max(at, open - 300), open);
    const percent = percentOfStyle(css.slice(open + 1, close));
    // The last class named is the one whose box it is, but for what only stands within it.
    const name = /\.([a-z0-9_-]{1,60})(?:::?(?:before|after))?\s*$/i.exec(selector)?.[1];
    if (name && percent !== null) shapes.set(name, percent);
    at = close + 1;
  }
  return shapes;
}

/**
 * A length in px: from the attribute (HTML, "rules for parsing dimension values"), from one that a script would read, or
 * from the style; null for percentages and nonsense.
 */
function lengthOf(tag: Tag, name: 'width' | 'height'): number | null {
  const styled = new RegExp(`(?:^|[;\\s])${name}\\s{0,9}:\\s{0,9}(\\d{1,5}(?:\\.\\d{1,9})?px)`, 'i');
  const said = [
    attributeText(tag, name),
    attributeText(tag, `data-${name}`),
    styled.exec(attributeText(tag, 'style').slice(0, MOST_STYLE))?.[1] ?? '',
  ];
  for (const text of said) {
    const found = /^(\d{1,5})(\.\d{1,9})?\s?(px)?;?$/i.exec(text);
    const length = found ? Math.round(Number(found[1])) : 0;
    if (length > 0) return length;
  }
  return null;
}
