import { isDataPicture } from './data-picture.ts';
import { absolute, isPictureFile, pixels, widthInName } from './page-address.ts';

/** A file of a picture that a page names. Sizes in px; 0 where it is not said. */
export interface NamedFile {
  readonly address: string;
  readonly width: number;
  /** How many of its pixels stand on one of the page's; 0 where it is not said. */
  readonly density: number;
  /** How much larger than what is shown its place says it is: a link that opens it, a name for zooming. */
  readonly rank: number;
}

/** An element by what it says, however it was read. */
interface Said {
  readonly attributes: readonly { readonly name: string; readonly value: string }[];
}

function saidBy({ attributes }: Said, name: string): string {
  return attributes.find((one) => one.name === name)?.value.trim() ?? '';
}

/** What is told of one picture: its own element, and the `source` elements about it. */
export interface Named {
  readonly img: Said;
  readonly sources: readonly Said[];
  /** What a link round it opens, or null. */
  readonly link: string | null;
  /** The elements closest about it, which may name its larger file for a script. */
  readonly around?: readonly Said[];
}

/** How many of a `srcset` are looked at, and how many letters of it. */
const SOURCE_LIMIT = 50;
const SRCSET_LIMIT = 100_000;

const SHOWN = 1;
const SMALLER = 0;
const LARGER = 2;
const LINKED = 3;

/**
 * All files that a picture has by its attributes, the best to be taken first: what a link opens, what is named for a
 * closer look, then the widest (HTML, `srcset`), the densest, the one that is shown.
 */
export function namedFiles({ img, sources, link, around = [] }: Named, base: string): readonly NamedFile[] {
  const shown = pixels(saidBy(img, 'width'));
  const files: NamedFile[] = [];
  const linked = link === null ? '' : absolute(link, base);
  if (linked && isPictureFile(linked))
    files.push({ address: withoutFragment(linked), width: 0, density: 0, rank: LINKED });
  for (const attribute of img.attributes.slice(0, 60))
    files.push(...filesIn(attribute.name, attribute.value, base));
  for (const { attributes } of around)
    for (const { name, value } of attributes.slice(0, 30))
      if (NAMES_LARGER.test(name)) files.push(...fileIfPicture(value, base, LARGER));
  for (const source of sources)
    for (const { name, value } of source.attributes.slice(0, 20))
      if (name.endsWith('srcset')) files.push(...filesOfSource(source, value, base));
  return files.filter(({ address }) => !isPlaceholder(address)).sort((a, b) => compared(a, b, shown));
}

/** Where a link or an entry of a list keeps what it opens, for a script. */
const NAMES_LARGER = /^data-(?:src|href|url|image|img|full|large|original|zoom|big|hi-?res)/;

/** The order of two files of one picture, the better first; `shown` is the width at which it is shown, or 0. */
export function compared(a: NamedFile, b: NamedFile, shown: number): number {
  if (a.rank !== b.rank) return b.rank - a.rank;
  // What is written into a page while another file is named only holds its place.
  if (isData(a) !== isData(b)) return isData(a) ? 1 : -1;
  // Of files that say no width, what is shown stands for one pixel on one.
  const denser = (b.density || 1) - (a.density || 1);
  if (a.width === 0 && b.width === 0 && denser !== 0) return denser;
  // One whose width is known comes before one of which nothing is known.
  return widthOf(b, shown) - widthOf(a, shown);
}

const isData = ({ address }: NamedFile) => address.startsWith('data:');

/** Its width: as said, by its density and what is shown, by its name, or as it is shown. */
function widthOf({ address, width, density }: NamedFile, shown: number): number {
  if (width > 0) return width;
  if (density > 0) return density * shown;
  return (address.startsWith('data:') ? 0 : widthInName(address)) || shown;
}

/** Attributes that hold an address, by what they are called: `src`, and what scripts read in its place. */
function filesIn(name: string, value: string, base: string): readonly NamedFile[] {
  if (name === 'srcset' || /^data-[a-z0-9-]*srcset$/.test(name))
    return filesOfSet(value, base).map((file) => ({ ...file, rank: SHOWN }));
  if (name === 'src') return fileAt(value, base, SHOWN);
  if (!name.startsWith('data-') || value.length > 4000) return [];
  if (/thumb|small|preview|placeholder|lqip|tiny|mini|blur/.test(name))
    return fileIfPicture(value, base, SMALLER);
  if (/full|large|orig(?!inal$)|zoom|hi-?res|big|max|retina|2x/.test(name))
    return fileIfPicture(value, base, LARGER);
  if (/src|original/.test(name)) return fileAt(value, base, SHOWN);
  return /lazy|echo|image|img|url|file/.test(name) ? fileIfPicture(value, base, SHOWN) : [];
}

function fileAt(value: string, base: string, rank: number): readonly NamedFile[] {
  const text = value.trim();
  if (/^data:/i.test(text)) return isDataPicture(text) ? [{ address: text, width: 0, density: 0, rank }] : [];
  const address = absolute(text, base);
  return address ? [{ address, width: 0, density: 0, rank }] : [];
}

function fileIfPicture(value: string, base: string, rank: number): readonly NamedFile[] {
  return fileAt(value, base, rank).filter(
    ({ address }) => !address.startsWith('data:') && isPictureFile(address),
  );
}

/** Of two that are the same but for their format, the page's own file is nearer to the original than a source of it. */
const BESIDE_ITS_OWN = 0.99;

/** A source of a `picture`: without sizes of its own it is as wide as the screens that it is for. */
function filesOfSource(source: Said, value: string, base: string): readonly NamedFile[] {
  const media = saidBy(source, 'media');
  const least = pixels(/min-width\s{0,9}:\s{0,9}(\d{1,5}(?:\.\d{1,5})?px)/i.exec(media)?.[1] ?? '');
  const isForSmall = least === 0 && /max-width/i.test(media);
  return filesOfSet(value, base).map((file) => {
    if (file.width > 0) return file;
    if (isForSmall) return { ...file, rank: SMALLER };
    if (least > 0) return { ...file, width: Math.round(least * (file.density || 1)) };
    return { ...file, density: file.density || BESIDE_ITS_OWN };
  });
}

/**
 * The files of a `srcset` (HTML, "parse a srcset attribute"): addresses end at a blank, or at commas before one; a comma
 * straight before the next address parts them too, as pages write it that were pressed together.
 */
function filesOfSet(srcset: string, base: string): readonly NamedFile[] {
  const files: NamedFile[] = [];
  const text = srcset.slice(0, SRCSET_LIMIT);
  let at = 0;
  while (files.length < SOURCE_LIMIT) {
    at = skip(text, at, /[\s,]/);
    if (at >= text.length) break;
    let end = skip(text, at, /\S/);
    // A descriptor may stand pressed against the comma and the next address: "a.jpg 1x,b.jpg 2x", "a.jpg,b.jpg 2x".
    const pressed = pressedEnd(text, at, end);
    if (pressed !== null) end = pressed;
    let address = text.slice(at, end);
    let descriptor = '';
    if (address.endsWith(',')) address = address.replace(/,{1,99}$/, '');
    else if (pressed === null) {
      const comma = text.indexOf(',', end);
      const to = comma < 0 ? text.length : comma;
      descriptor = text.slice(end, to).trim().split(/\s+/)[0] ?? '';
      end = to;
    }
    const whole = absolute(address, base);
    if (whole) files.push({ address: whole, ...sizeIn(descriptor), rank: SHOWN });
    at = end;
  }
  return files;
}

function skip(text: string, from: number, which: RegExp): number {
  let at = from;
  while (at < text.length && which.test(text.charAt(at))) at += 1;
  return at;
}

/** Where an address ends that a comma and another address follow without a blank; null where none does. Data has commas. */
function pressedEnd(text: string, from: number, to: number): number | null {
  if (/^data:/i.test(text.slice(from, from + 5))) return null;
  const run = text.slice(from, Math.min(to, from + 4000));
  const comma = /\.(?:jpe?g|png|webp|avif|gif)(?:\?[^,\s]{0,500})?(?=,[^,\s])/i.exec(run);
  return comma ? from + comma.index + comma[0].length : null;
}

function sizeIn(descriptor: string): { readonly width: number; readonly density: number } {
  const found = /^(\d{1,6}(?:\.\d{1,6})?)([wx])$/.exec(descriptor);
  if (!found) return { width: 0, density: 0 };
  const number = Number(found[1]);
  return found[2] === 'w' ? { width: Math.round(number), density: 0 } : { width: 0, density: number };
}

function withoutFragment(address: string): string {
  const url = new URL(address);
  url.hash = '';
  return url.href;
}

/** What stands in a picture's place until it is loaded, or holds a place open, by what it is called. */
function isPlaceholder(address: string): boolean {
  if (address.startsWith('data:')) return false;
  const name = new URL(address).pathname.split('/').at(-1) ?? '';
  return PLACEHOLDER.test(name);
}

const PLACEHOLDER =
  /^(?:(?:img|image|lazy|grey|gray|white|black|clear|bg)?[-_]?)?(?:spacer|blank|clear|transparent|pixel|dot|shim|trans|1x1|1px|empty|placeholder|loading|loader|spinner|lazy|lazyload|preload|grey|gray|white|fallback|noimage|no-image|default)(?:[-_]?(?:img|image|gif|pixel|\d{1,4}(?:x\d{1,4})?))?\.(?:gif|png|svg|jpe?g|webp)$/i;
