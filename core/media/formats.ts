/** Formats of originals that Placard takes, with their real extension and type (IANA media types). */
export const ORIGINAL_FORMATS = {
  jpeg: { extension: 'jpg', mime: 'image/jpeg', says: 'JPEG' },
  png: { extension: 'png', mime: 'image/png', says: 'PNG' },
  webp: { extension: 'webp', mime: 'image/webp', says: 'WebP' },
  avif: { extension: 'avif', mime: 'image/avif', says: 'AVIF' },
  gif: { extension: 'gif', mime: 'image/gif', says: 'GIF' },
  tiff: { extension: 'tif', mime: 'image/tiff', says: 'TIFF' },
  svg: { extension: 'svg', mime: 'image/svg+xml', says: 'SVG' },
} as const;

export type OriginalFormat = keyof typeof ORIGINAL_FORMATS;

export const CUT_FORMATS = {
  avif: { extension: 'avif', mime: 'image/avif' },
  webp: { extension: 'webp', mime: 'image/webp' },
  jpeg: { extension: 'jpg', mime: 'image/jpeg' },
  png: { extension: 'png', mime: 'image/png' },
} as const;

export type CutFormat = keyof typeof CUT_FORMATS;

export function isOriginalFormat(name: string): name is OriginalFormat {
  return Object.hasOwn(ORIGINAL_FORMATS, name);
}

export function isCutFormat(name: string): name is CutFormat {
  return Object.hasOwn(CUT_FORMATS, name);
}

/** What of an original decides the formats of its cuts. */
export interface FormatFacts {
  readonly alpha: boolean;
  readonly animated: boolean;
  /** Width in px of the widest cut. */
  readonly widest: number;
}

/** Cuts this narrow weigh so little that a choice of formats costs more bytes than it saves. */
const TINY_WIDTH_PX = 64;

/**
 * The formats of a piece's cuts, the one every browser reads last. Transparency keeps an alpha channel;
 * movement is kept as WebP with a still to fall back on.
 */
export function cutFormats(facts: FormatFacts): readonly [...CutFormat[], CutFormat] {
  const fallback: CutFormat = facts.alpha ? 'png' : 'jpeg';
  if (facts.animated) return ['webp', fallback];
  if (facts.widest <= TINY_WIDTH_PX) return [fallback];
  return ['avif', 'webp', fallback];
}
