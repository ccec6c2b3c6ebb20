import { absolute, pixels, wholeLicence } from './page-address.ts';
import { maybeStatement, type Statement, statements } from './statement.ts';

/** A picture that a page shows, with all that the page says of it. Sizes in px, 0 where the page says none. */
export interface PagePicture {
  /**
   * Absolute web address of the largest file that is named; or the picture itself where it is written into the page
   * (`data:`, RFC 2397).
   */
  readonly address: string;
  /** A smaller file of the same picture to look at, or the same address. */
  readonly preview: string;
  readonly width: number;
  readonly height: number;
  readonly statements: readonly Statement[];
}

const OBJECT_LIMIT = 5000;
const IMAGE_LIMIT = 400;

/** What hangs on these is a mark of who speaks, and no picture of the page. */
const OF_SOMEBODY = new Set([
  'logo',
  'publisher',
  'author',
  'creator',
  'provider',
  'sourceorganization',
  'icon',
  'brand',
]);
/** Where the address of a picture may stand as a mere text (schema.org `image` and its like). */
const AS_TEXT = new Set(['image', 'images', 'photo', 'photos', 'primaryimageofpage']);

/** Every picture that a page's JSON-LD names, however deep, up to a bound: `ImageObject`, or the address of an `image`. */
export function imagesOfJsonLd(data: readonly unknown[], base: string): readonly PagePicture[] {
  const pictures: PagePicture[] = [];
  const waiting: { readonly key: string; readonly value: unknown }[] = data.map((value) => ({
    key: '',
    value,
  }));
  for (let seen = 0; seen < OBJECT_LIMIT; seen += 1) {
    const one = waiting.pop();
    if (!one) break;
    const { key, value } = one;
    if (Array.isArray(value)) for (const each of value.slice(0, 500)) waiting.push({ key, value: each });
    else if (typeof value === 'string') {
      const address = AS_TEXT.has(key) ? absolute(value, base) : '';
      if (address && pictures.length < IMAGE_LIMIT) pictures.push(plain(address));
    } else if (isRecord(value)) {
      const picture = isPicture(value, key) ? pictureOfObject(value, base) : null;
      if (picture && pictures.length < IMAGE_LIMIT) pictures.push(picture);
      for (const [name, inner] of Object.entries(value).slice(0, 500)) {
        const next = name.toLowerCase();
        // A picture's own thumbnail is no other picture.
        if (
          !OF_SOMEBODY.has(next) &&
          !(picture && next.startsWith('thumbnail')) &&
          (typeof inner === 'object' || AS_TEXT.has(next))
        )
          waiting.push({ key: next, value: inner });
      }
    }
  }
  return pictures.reverse();
}

const plain = (address: string): PagePicture => ({
  address,
  preview: address,
  width: 0,
  height: 0,
  statements: [],
});

function isPicture(object: Readonly<Record<string, unknown>>, key: string): boolean {
  return (
    isOfType(object, IMAGE_TYPE) ||
    (AS_TEXT.has(key) && object['@type'] === undefined && object.url !== undefined)
  );
}

/** schema.org types whose `contentUrl` is a picture. */
export const IMAGE_TYPE = /^(?:https?:\/\/schema\.org\/)?(?:ImageObject|Photograph|ImageObjectSnapshot)$/;

/** A picture described by schema.org's names for it, as JSON-LD or microdata hold them; null where no file is named. */
export function pictureOfObject(object: Readonly<Record<string, unknown>>, base: string): PagePicture | null {
  const address = absolute(textValue(object.contentUrl) || textValue(object.url), base);
  if (!address) return null;
  return {
    address,
    preview: absolute(textValue(firstOf(object.thumbnailUrl ?? object.thumbnail)), base) || address,
    width: pixels(textValue(object.width)),
    height: pixels(textValue(object.height)),
    statements: saidByObject(object, base),
  };
}

/** What such an object says, whichever file it is of. */
export function saidByObject(object: Readonly<Record<string, unknown>>, base: string): readonly Statement[] {
  const creator = firstOf(object.creator ?? object.author);
  const say = (about: Statement['about'], value: unknown) =>
    maybeStatement('json-ld', about, textValue(value));
  const licence = isRecord(object.license) ? (object.license.url ?? object.license['@id']) : object.license;
  return statements(
    say('title', object.name ?? object.headline),
    say('maker', creator),
    maybeStatement(
      'json-ld',
      'maker-address',
      isRecord(creator) ? absolute(textValue(creator.url), base) : '',
    ),
    maybeStatement('json-ld', 'licence', wholeLicence(textValue(licence), base)),
    say('notice', object.copyrightNotice),
    say('credit', object.creditText),
    say('caption', object.caption),
    say('source-id', object.identifier),
    say('taken', object.dateCreated),
    say('source', object.provider ?? object.publisher ?? object.sourceOrganization),
  );
}

function isOfType(object: Readonly<Record<string, unknown>>, type: RegExp): boolean {
  const types = object['@type'];
  return (Array.isArray(types) ? types : [types]).some((one) => typeof one === 'string' && type.test(one));
}

function isRecord(value: unknown): value is Readonly<Record<string, unknown>> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

function firstOf(value: unknown): unknown {
  return Array.isArray(value) ? value[0] : value;
}

const NAME_DEPTH = 5;

/** A text or number, or what an object is called. */
function textValue(value: unknown, depth = 0): string {
  const one = firstOf(value);
  if (typeof one === 'string') return one;
  if (typeof one === 'number') return String(one);
  if (isRecord(one) && depth < NAME_DEPTH)
    return textValue(one.name ?? one.value ?? one['@value'] ?? one.url ?? one['@id'] ?? '', depth + 1);
  return '';
}
