import { nameInAllSizes } from './page-address.ts';
import { imagesOfJsonLd, type PagePicture } from './page-data.ts';
import { PageWalk } from './page-walk.ts';
import { statements } from './statement.ts';

export type { PagePicture };

export interface PageReading {
  readonly title: string;
  readonly pictures: readonly PagePicture[];
  /** How many pictures were left out because a page may only have so many. */
  readonly leftOut: number;
}

const PICTURE_LIMIT = 200;
const STATEMENT_LIMIT = 60;
/** All pictures that are written into one page, in letters of base64: 10 MB of bytes. */
const DATA_LETTERS = 13_500_000;

/**
 * Reads an HTML page for the pictures on it, largest first, and for what it says about each: `img` with its `srcset`,
 * `picture` and the attributes that scripts read, `noscript`, posters, drawn and background pictures, JSON-LD and
 * microdata (schema.org `ImageObject`), `rel="license"` (HTML, RDFa), Open Graph, captions, alternative texts. What only
 * furnishes the page is left out, and the same picture in several sizes is one. A licence is only said of the picture it
 * stands beside. Linear in the length. Never throws for odd HTML; malformed JSON-LD is passed over. `base` is the address
 * that the page was read from.
 */
export function readPagePictures(html: string, base: string): PageReading {
  const page = new PageWalk(html, base).walk();
  const found = new Joining();
  for (const picture of [...page.images, ...imagesOfJsonLd(page.jsonLd, page.base), ...page.previews])
    found.add(picture);
  const all = found.pictures().map((picture) => ({
    ...picture,
    statements: statements(...picture.statements, ...page.licences),
  }));
  const largestFirst = withinData(all).sort((a, b) => b.width * b.height - a.width * a.height);
  return {
    title: page.title,
    pictures: largestFirst.slice(0, PICTURE_LIMIT),
    leftOut: all.length - Math.min(PICTURE_LIMIT, largestFirst.length) + page.leftOut,
  };
}

/** The same picture is one, whether it is named by the same address or in another of its sizes. */
class Joining {
  readonly #all: PagePicture[] = [];
  readonly #at = new Map<string, number>();

  add(picture: PagePicture): void {
    const keys = picture.address.startsWith('data:')
      ? [picture.address]
      : [picture.address, picture.preview, nameInAllSizes(picture.address)];
    const known = keys.map((key) => this.#at.get(key)).find((at) => at !== undefined);
    const at = known ?? this.#all.length;
    const before = this.#all[at];
    this.#all[at] = before ? joined(before, picture) : picture;
    for (const key of keys) if (!this.#at.has(key)) this.#at.set(key, at);
  }

  pictures(): readonly PagePicture[] {
    return this.#all;
  }
}

const SMALL_NAME = /thumb|small|preview|mini|tiny|low-?res/i;

function joined(one: PagePicture, other: PagePicture): PagePicture {
  const larger = isLarger(other, one) ? other : one;
  return {
    ...larger,
    preview: one.preview.startsWith('data:') ? other.preview : one.preview,
    statements: [...one.statements, ...other.statements].slice(0, STATEMENT_LIMIT),
  };
}

/** By the sizes that are said; where one is not, a name that says "small" gives way. */
function isLarger(one: PagePicture, than: PagePicture): boolean {
  if (one.width > 0 && than.width > 0) return one.width * one.height > than.width * than.height;
  if (one.address === than.address) return one.width > 0;
  return SMALL_NAME.test(than.address) && !SMALL_NAME.test(one.address);
}

/** Pictures that are written into the page, up to what is taken of them together. */
function withinData(pictures: readonly PagePicture[]): PagePicture[] {
  let letters = 0;
  return pictures.filter(({ address }) => {
    if (!address.startsWith('data:')) return true;
    letters += address.length;
    return letters <= DATA_LETTERS;
  });
}
