import * as v from 'valibot';
import { attribute, elementsIn, type HtmlElement, hasClass, textOf } from '../../html-tree.ts';
import { isLinkAddress } from '../../inline.ts';
import type { ReadElement, Reader } from '../../reading.ts';
import { DEFAULT_SHARE, marginsOf } from '../../target.ts';
import { type Placement, PlacementSchema, POSITIONS, type Position } from './schema.ts';
import { CREDIT_SIGN, inLine, type KnownPlacement, SIGN_ATTRIBUTE, type Sign } from './sign.ts';

/** The figure of a piece that the page has (`sign.ts`); null for any other. */
function placementIn(node: HtmlElement, reader: Reader): Placement | null {
  const sign = [...elementsIn(node)].find(
    (one) => one.name === 'img' && attribute(one, SIGN_ATTRIBUTE) !== '',
  );
  const known = sign && reader.placed(attribute(sign, SIGN_ATTRIBUTE));
  return sign && known ? changed(node, sign, known) : null;
}

/** The figure of a piece, where it is one; `other` reads it where it is not. */
export const readPlaced =
  (other: ReadElement): ReadElement =>
  (node, flow, reader, marks) => {
    const attrs = placementIn(node, reader);
    if (attrs) flow.putBlock({ type: 'placement', attrs });
    else other(node, flow, reader, marks);
  };

/** The placement with what its figure says otherwise than before; what cannot be stays as it was. */
function changed(figure: HtmlElement, img: HtmlElement, known: KnownPlacement): Placement {
  const { placement, sign } = known;
  const changes: Partial<Placement>[] = [
    attribute(figure, 'class') === sign.className ? {} : placeIn(figure, known),
    attribute(figure, 'style') === sign.style ? {} : measuresIn(figure, placement),
    altIn(img, sign),
    captionIn(figure, sign),
    { click: clickIn(figure, placement) },
  ];
  let now = placement;
  for (const change of changes) {
    const next = v.safeParse(PlacementSchema, { ...now, ...change });
    if (next.success) now = next.output;
  }
  return now;
}

function placeIn(figure: HtmlElement, { placement, styles }: KnownPlacement): Partial<Placement> {
  const style = styles.find((one) => hasClass(figure, one)) ?? null;
  // One that the target does not have is no class of the figure, and stays.
  const isShown = placement.pictureStyle === null || styles.includes(placement.pictureStyle);
  const position: Position | undefined = POSITIONS.find((one) => hasClass(figure, one));
  const stack = /(?:^|\s)stack-(\d{1,5})(?:\s|$)/.exec(attribute(figure, 'class'))?.[1];
  return {
    ...(position ? { position } : {}),
    stackBelow: stack === undefined ? null : Number(stack),
    ...(isShown ? { pictureStyle: style } : {}),
  };
}

function measuresIn(figure: HtmlElement, placement: Placement): Partial<Placement> {
  const style = attribute(figure, 'style').slice(0, 2000);
  const px = (name: string) => {
    const said = new RegExp(`(?:^|;)\\s{0,9}--${name}:\\s{0,9}(\\d{1,4})px`).exec(style)?.[1];
    return said === undefined ? undefined : Number(said);
  };
  const before = marginsOf(placement);
  const margins = {
    top: px('t') ?? before.top,
    right: px('r') ?? before.right,
    bottom: px('b') ?? before.bottom,
    left: px('l') ?? before.left,
  };
  const isSame = Object.entries(margins).every(([side, value]) => Reflect.get(before, side) === value);
  const width = /(?:^|;)\s{0,9}--w:\s{0,9}(\d{1,4}(?:\.\d{1,6})?)(px|%)/.exec(style);
  return { ...(isSame ? {} : { margins }), ...(width ? widthOf(Number(width[1]), width[2], placement) : {}) };
}

function widthOf(value: number, unit: string | undefined, placement: Placement): Partial<Placement> {
  const isUsual = unit === '%' && value === DEFAULT_SHARE[placement.position] * 100;
  if (isUsual && placement.width === null) return {};
  return { width: unit === 'px' ? { unit: 'px', value } : { unit: '%', value } };
}

function altIn(img: HtmlElement, sign: Sign): Partial<Placement> {
  const said = img.attributes.find(({ name }) => name === 'alt')?.value;
  const alt = said === undefined ? null : inLine(said);
  if (alt === sign.alt) return {};
  if (alt === null) return { alt: null };
  return { alt: alt === '' ? { kind: 'decorative' } : { kind: 'text', text: alt } };
}

function captionIn(figure: HtmlElement, sign: Sign): Partial<Placement> {
  const element = [...elementsIn(figure)].find(({ name }) => name === 'figcaption');
  const words = (element?.children ?? []).filter(
    (child) => typeof child === 'string' || !hasClass(child, CREDIT_SIGN),
  );
  const caption = inLine(words.map(textOf).join(''));
  return caption === sign.caption ? {} : { caption };
}

function clickIn(figure: HtmlElement, { click }: Placement): Placement['click'] {
  const link = [...elementsIn(figure)].find(
    (one) => one.name === 'a' && [...elementsIn(one)].some(({ name }) => name === 'img'),
  );
  if (!link) return { kind: 'nothing' };
  if (hasClass(link, 'larger')) return { kind: 'larger' };
  const href = attribute(link, 'href').trim();
  return isLinkAddress(href) ? { kind: 'link', href } : click;
}
