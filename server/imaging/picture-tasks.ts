import sharp from 'sharp';
import { type Size, sizeAsSeen } from '#core/media/dimensions.ts';
import { type CutOrder, makeCut } from './cut.ts';
import { type Draft, makeDraft } from './draft.ts';
import { type FirstLook, firstLook } from './first-look.ts';
import { measureCurve } from './likeness/curve.ts';
import { detailOf } from './likeness/detail.ts';
import { MEGAPIXEL_LIMIT, type OriginalFacts, readOriginal } from './read-original.ts';

/** A file from outside and the name that it came with. */
export interface NamedFile {
  readonly path: string;
  readonly name: string;
}

export interface DetailOrder {
  readonly path: string;
  readonly cut: Omit<CutOrder, 'animated'>;
  /** In fractions of the cut. */
  readonly at: { readonly x: number; readonly y: number };
}

export type DraftOrder = Pick<CutOrder, 'original' | 'recipe' | 'width'>;

const PIXEL_LIMIT = MEGAPIXEL_LIMIT * 1_000_000;

/** All that is done with the bytes of pictures from outside. Each runs in a process that can be killed. */
export const PICTURE_TASKS = {
  facts: ({ path, name }: NamedFile): Promise<OriginalFacts> => readOriginal(path, name),
  firstLook: ({ path, name, facts }: NamedFile & { readonly facts: OriginalFacts }): Promise<FirstLook> =>
    firstLook(path, name, facts),
  cut: ({ path, order }: { readonly path: string; readonly order: CutOrder }): Promise<Buffer> =>
    makeCut(path, order),
  draft: ({ path, order }: { readonly path: string; readonly order: DraftOrder }): Promise<Draft> =>
    makeDraft(path, order),
  detail: ({ path, cut, at }: DetailOrder): Promise<Buffer> => detailOf(path, cut, at),
  curve: measureCurve,

  /** A picture as WebP, at most so many px wide or high. */
  small: ({ bytes, edge }: { readonly bytes: Uint8Array; readonly edge: number }): Promise<Buffer> =>
    sharp(bytes, { limitInputPixels: PIXEL_LIMIT, failOn: 'none' })
      .autoOrient()
      .resize({ width: edge, height: edge, fit: 'inside', withoutEnlargement: true })
      .toColourspace('srgb')
      .webp({ quality: 78 })
      .toBuffer(),

  /** The size in px, as seen, that the beginning of a file says. */
  size: async ({ bytes }: { readonly bytes: Uint8Array }): Promise<Size> => {
    const metadata = await sharp(bytes, { failOn: 'none', limitInputPixels: false }).metadata();
    return sizeAsSeen(metadata, metadata.orientation ?? 1);
  },

  /** A picture as JPEG or PNG, which all that shows posters knows. */
  poster: async ({ bytes }: { readonly bytes: Uint8Array }): Promise<Uint8Array> => {
    const { format } = await sharp(bytes, { limitInputPixels: PIXEL_LIMIT }).metadata();
    if (format === 'jpeg' || format === 'png') return bytes;
    return sharp(bytes, { limitInputPixels: PIXEL_LIMIT }).jpeg({ quality: 90 }).toBuffer();
  },
} as const;
