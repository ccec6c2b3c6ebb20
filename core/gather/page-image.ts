import { attributeText, type Tag } from '../embed/markup.ts';
import { sizeOfData } from './data-picture.ts';
import type { NamedFile } from './image-source.ts';
import { pixels, widthInName } from './page-address.ts';
import type { Statement } from './statement.ts';

const LICENCE_LIMIT = 20;

/** A picture as it is found in the walk: more may be said of it until its figure ends. */
export interface Image {
  readonly files: NamedFile[];
  readonly declared: readonly [width: number, height: number];
  /** The file that is shown, or the empty text. */
  readonly shown: string;
  alt: string;
  caption: string;
  readonly licences: Statement[];
  said: readonly Statement[];
}

export function caption(images: readonly Image[], words: string): void {
  for (const image of images) image.caption ||= words;
}

export function addLicence({ licences }: Image, said: Statement): void {
  if (licences.length < LICENCE_LIMIT && !licences.some(({ value }) => value === said.value))
    licences.push(said);
}

/** Both edges in px or neither: one alone says no shape. A larger file than what is shown keeps its size to itself. */
export function sizeOf(
  { address, width, density, rank }: NamedFile,
  [shownWidth, shownHeight]: readonly [number, number],
): readonly [width: number, height: number] {
  if (address.startsWith('data:')) {
    const size = sizeOfData(address);
    return size ? [size.width, size.height] : [0, 0];
  }
  if (shownWidth === 0 || shownHeight === 0 || rank > 1) return [0, 0];
  if (width > 0) return [width, Math.round((width * shownHeight) / shownWidth)];
  const times = Math.max(1, density);
  return [Math.round(shownWidth * times), Math.round(shownHeight * times)];
}

/** A smaller file to look at: what the page shows, where that is no placeholder, nor a few blurred px of it. */
export function previewOf({ files, shown }: Image): string {
  const address = files[0]?.address ?? '';
  if (address.startsWith('data:')) return address;
  const smallestFirst = [...files].reverse().map((file) => file.address);
  const shownFirst = smallestFirst.includes(shown) ? [shown, ...smallestFirst] : smallestFirst;
  return shownFirst.find((one) => !one.startsWith('data:') && !isBlurred(one)) ?? address;
}

function isBlurred(address: string): boolean {
  const width = widthInName(address);
  return width > 0 && width < LEAST_PX;
}

const LEAST_PX = 48;
/** Fewer hold no picture in a format whose size is not read here. */
const LEAST_LETTERS = 1000;

/** A picture written into the page that is too small to be one, or whose size and words nobody says. */
export function isTinyData(address: string, tag: Tag): boolean {
  if (!address.startsWith('data:')) return false;
  if (isLateSource(tag)) return true;
  const size = sizeOfData(address);
  if (size) return Math.max(size.width, size.height) < LEAST_PX;
  const isSaid = pixels(attributeText(tag, 'width')) >= LEAST_PX || attributeText(tag, 'alt') !== '';
  return !isSaid || address.length < LEAST_LETTERS;
}

/** Whether something else is loaded in its place. */
function isLateSource(tag: Tag): boolean {
  return tag.attributes.some(({ name, value }) => /^data-.*src/.test(name) && !/^data:/i.test(value.trim()));
}

/** Whether it waits for a script, or holds the place for what comes without one. */
export function isLate(tag: Tag): boolean {
  return (
    /^data:/i.test(attributeText(tag, 'src')) ||
    /(?:^|\s)\S{0,40}(?:lazy|defer|unloaded)/i.test(attributeText(tag, 'class').slice(0, 1000))
  );
}
