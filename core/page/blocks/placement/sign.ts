import { escapeHtml } from '../../escape.ts';
import type { Piece } from '../../piece.ts';
import type { Room } from '../../room.ts';
import type { HouseRules } from '../../target.ts';
import { altHere, captionHere, creditUnder } from '../../words.ts';
import { figureClass, figureStyle, styleClass } from './figure.ts';
import type { Placement } from './schema.ts';

/** The attribute by which the sign of a piece names its placement. */
export const SIGN_ATTRIBUTE = 'data-placement';
/** The class of the sign that stands for a credit. */
export const CREDIT_SIGN = 'credit';

/** What a placement says of itself in source, so that what was changed there is told from what was not. */
export interface Sign {
  readonly className: string;
  readonly style: string;
  /** Null where it has none to be said: of what is no picture, and of a picture that nobody described. */
  readonly alt: string | null;
  readonly caption: string;
  readonly isCredited: boolean;
}

/** A placement that source may name, and what it said there before. */
export interface KnownPlacement {
  readonly placement: Placement;
  readonly sign: Sign;
  /** The classes of the picture styles that its target has. */
  readonly styles: readonly string[];
}

interface SignContext {
  readonly rules: HouseRules;
  readonly pieces: ReadonlyMap<string, Piece>;
  readonly room: Room;
}

/** A placement as it stands in a room (`standing.ts`). */
export function signOf(placement: Placement, { rules, pieces, room }: SignContext): Sign {
  const piece = pieces.get(placement.asset);
  const alt = piece ? altHere(rules, placement, piece) : placement.alt;
  const isFilled = room.sort === 'filled';
  const isPicture = piece === undefined || piece.kind === 'picture';
  return {
    // What fills the place that it has in a row has no side and no width of its own.
    className: isFilled
      ? `placed${styleClass(placement, rules.pictureStyles)}`
      : figureClass(placement, room, rules),
    style: isFilled ? '' : figureStyle(placement),
    alt: isPicture && alt ? altIn(alt) : null,
    caption: inLine(piece ? captionHere(rules, placement, piece) : (placement.caption ?? '')),
    isCredited: piece !== undefined && creditUnder(rules, placement, piece, room).runs.length > 0,
  };
}

function altIn(alt: NonNullable<Placement['alt']>): string | null {
  if (alt.kind === 'text') return inLine(alt.text);
  return alt.kind === 'decorative' ? '' : null;
}

/** Words as they stand in a line of source. */
export const inLine = (words: string): string => words.replace(/\s+/g, ' ').trim();

/**
 * A placement as its sign: where and how wide it stands, what it says, and where it leads. Its files and what is owed for it
 * are written by Placard when the page goes out.
 */
export function writeSign(placement: Placement, context: SignContext): string {
  const { className, style, alt, caption, isCredited } = signOf(placement, context);
  const said = alt === null ? '' : ` alt="${escapeHtml(alt)}"`;
  const sign = `<img${said} ${SIGN_ATTRIBUTE}="${escapeHtml(placement.id)}">`;
  const words = [escapeHtml(caption), isCredited ? `<span class="${CREDIT_SIGN}"></span>` : '']
    .filter(Boolean)
    .join(' ');
  return [
    `<figure class="${className}"${style === '' ? '' : ` style="${style}"`}>`,
    clicked(placement, sign),
    ...(words === '' ? [] : [`<figcaption>${words}</figcaption>`]),
    '</figure>',
  ].join('\n');
}

function clicked({ click }: Placement, sign: string): string {
  switch (click.kind) {
    case 'link':
      return `<a href="${escapeHtml(click.href)}">${sign}</a>`;
    case 'larger':
      return `<a class="larger">${sign}</a>`;
    case 'nothing':
      return sign;
  }
}
