import { decodeHTML } from 'entities/decode';
import * as v from 'valibot';
import { oneLine } from '../words/one-line.ts';
import { attributeText, type Piece, readMarkup } from './markup.ts';
import { safeOrNone } from './reading.ts';

/** What the page of a thing says of it. Empty and null for what it does not. */
export interface PageFacts {
  readonly title: string;
  readonly author: string;
  readonly thumbnail: string;
  readonly seconds: number | null;
  readonly captions: readonly string[];
  /** Whether it asks not to be listed, as pages do that are only for those who know their address. */
  readonly isUnlisted: boolean;
  /** Where it answers by oEmbed (oEmbed 1.0, section 4, discovery), JSON before XML; empty where it does not say. */
  readonly oembed: string;
}

const text = v.fallback(
  v.pipe(
    v.string(),
    v.transform((said) => oneLine(said)),
  ),
  '',
);
const list = v.fallback(
  v.union([
    v.array(v.unknown()),
    v.pipe(
      v.unknown(),
      v.transform((one) => [one]),
    ),
  ]),
  [],
);

/** schema.org MediaObject, as far as it is of use here. */
const MediaSchema = v.object({
  '@type': v.picklist(['VideoObject', 'AudioObject', 'MediaObject']),
  name: v.optional(text, ''),
  duration: v.optional(text, ''),
  thumbnailUrl: v.optional(list, []),
  author: v.optional(
    v.fallback(
      v.union([
        v.pipe(
          v.string(),
          v.transform((name) => ({ name })),
        ),
        v.object({ name: text }),
      ]),
      { name: '' },
    ),
    { name: '' },
  ),
  caption: v.optional(list, []),
});
const CaptionSchema = v.object({ inLanguage: v.pipe(v.string(), v.regex(/^[A-Za-z0-9-]{2,20}$/)) });

const NO_MEDIA = { name: '', duration: '', thumbnailUrl: [], author: { name: '' }, caption: [] };

/** Reads a page's discovery links, JSON-LD and robots wishes. Linear in its length. Never throws. */
export function readPageFacts(html: string, base: string): PageFacts {
  const pieces = [...readMarkup(html)];
  const media = mediaIn(html, pieces) ?? NO_MEDIA;
  return {
    title: media.name || titleIn(html, pieces),
    author: media.author.name,
    thumbnail: safeOrNone(absolute(String(media.thumbnailUrl[0] ?? ''), base)),
    seconds: readDuration(media.duration),
    captions: [
      ...new Set(
        media.caption.flatMap((one) => {
          const read = v.safeParse(CaptionSchema, one);
          return read.success ? [read.output.inLanguage] : [];
        }),
      ),
    ].slice(0, 60),
    isUnlisted: pieces.some(isNoIndex),
    oembed: safeOrNone(absolute(oembedLink(pieces), base)),
  };
}

function mediaIn(html: string, pieces: readonly Piece[]): v.InferOutput<typeof MediaSchema> | undefined {
  for (const [at, piece] of pieces.entries()) {
    if (
      piece.kind !== 'start' ||
      piece.name !== 'script' ||
      attributeText(piece, 'type') !== 'application/ld+json'
    )
      continue;
    const read = v.safeParse(MediaSchema, parsed(html.slice(piece.to, pieces[at + 1]?.from)));
    if (read.success) return read.output;
  }
  return undefined;
}

function parsed(json: string): unknown {
  try {
    return JSON.parse(json);
  } catch {
    return undefined;
  }
}

/** What stands between the tags of the page's title, as text. */
function titleIn(html: string, pieces: readonly Piece[]): string {
  const at = pieces.findIndex((piece) => piece.kind === 'start' && piece.name === 'title');
  const open = pieces[at];
  if (!open) return '';
  return oneLine(decodeHTML(html.slice(open.to, pieces[at + 1]?.from)));
}

function isNoIndex(piece: Piece): boolean {
  return (
    piece.kind === 'start' &&
    piece.name === 'meta' &&
    attributeText(piece, 'name').toLowerCase() === 'robots' &&
    /\b(noindex|none)\b/i.test(attributeText(piece, 'content'))
  );
}

function oembedLink(pieces: readonly Piece[]): string {
  const links = pieces.flatMap((piece) => (piece.kind === 'start' && piece.name === 'link' ? [piece] : []));
  const of = (type: string) => links.find((link) => attributeText(link, 'type').toLowerCase() === type);
  const link = of('application/json+oembed') ?? of('text/xml+oembed') ?? of('application/xml+oembed');
  return link ? attributeText(link, 'href') : '';
}

function absolute(address: string, base: string): string {
  return address !== '' && URL.canParse(address, base) ? new URL(address, base).href : '';
}

/** Seconds of a duration (ISO 8601-1, 5.5.2): "PT3M20S", "PT1H2M". Null for anything else. */
export function readDuration(said: string): number | null {
  const found = /^P(?:(\d{1,3})D)?T(?:(\d{1,3})H)?(?:(\d{1,4})M)?(?:(\d{1,6})(?:\.\d{1,6})?S)?$/.exec(said);
  if (!found || said.endsWith('T')) return null;
  const [days = 0, hours = 0, minutes = 0, seconds = 0] = found.slice(1).map((part) => Number(part ?? 0));
  return ((days * 24 + hours) * 60 + minutes) * 60 + seconds;
}
