import type { Size } from '../../../media/dimensions.ts';
import { advanceOf } from '../../../media/letters.ts';
import {
  brokenAt,
  LINE_HEIGHT,
  OVER_MARGIN,
  type OverPlace,
  type PixelBox,
} from '../../../media/over-words.ts';
import { plainText } from '../../inline.ts';
import type { Banner, BannerWords } from './schema.ts';

/** A banner that is narrower than this in px has no room for words: they stand under its picture. */
export const LEAST_BANNER_PX = 600;

/** Sizes of the words: a share of the banner's width, in px between two bounds. */
interface TextSize {
  readonly least: number;
  readonly share: number;
  readonly most: number;
}
export const HEADING_SIZE: TextSize = { least: 24, share: 0.044, most: 56 };
export const WORDS_SIZE: TextSize = { least: 16, share: 0.02, most: 22 };

/** Px between a heading and the words under it. */
export const WORDS_GAP = 10;
/** Px of a plate round the words, at the sides and above. */
export const PLATE_EDGE = { side: 20, rise: 14 } as const;
/** How much of the banner's width words take: in the middle of it more than at a side. */
export const WORDS_SHARE = { side: 0.6, middle: 0.84 } as const;

const sizeAt = ({ least, share, most }: TextSize, width: number) =>
  Math.min(most, Math.max(least, share * width));

export const isMiddle = (place: OverPlace) => !/left|right/.test(place);

/** Words of a banner as they lie over its picture, in px of the picture as it is shown. */
interface SetBanner {
  readonly lines: readonly { readonly em: number; readonly box: PixelBox }[];
  /** Whether they are higher than the picture, which is then cropped to reach as far as they do. */
  readonly isTall: boolean;
}

/**
 * Where the words of a banner lie over a picture that is shown at a size. Measured as words that are drawn over pictures are
 * (`letters.ts`); `kind.ts` says the same in CSS.
 */
export function setBanner({ attrs, content }: Banner, { width, height }: Size): SetBanner {
  const { place, plate } = attrs;
  const edge = plate ? PLATE_EDGE : { side: 0, rise: 0 };
  const margin = OVER_MARGIN * width;
  const most = WORDS_SHARE[isMiddle(place) ? 'middle' : 'side'] * width - 2 * edge.side;
  let high = 0;
  const rows = content
    .flatMap((part): BannerWords['content'] => (part.type === 'bannerWords' ? part.content : []))
    .flatMap((block, at) => {
      const em = sizeAt(block.type === 'heading' ? HEADING_SIZE : WORDS_SIZE, width);
      if (at > 0) high += WORDS_GAP;
      return brokenAt(plainText(block.content), most / em).map((text) => {
        const row = { em, top: high, width: Math.min(most, advanceOf(text) * em) };
        high += LINE_HEIGHT * em;
        return row;
      });
    });
  const all = high + 2 * edge.rise;
  const top = place.startsWith('top')
    ? margin
    : place.startsWith('bottom')
      ? height - margin - all
      : (height - all) / 2;
  return {
    isTall: all + 2 * margin > height,
    lines: rows.map(({ em, top: down, width: wide }) => ({
      em,
      box: {
        left: leftOf(place, wide, width, margin + edge.side),
        top: top + edge.rise + down,
        width: wide,
        height: LINE_HEIGHT * em,
      },
    })),
  };
}

function leftOf(place: OverPlace, wide: number, width: number, margin: number): number {
  if (place.endsWith('left')) return margin;
  return place.endsWith('right') ? width - margin - wide : (width - wide) / 2;
}
