import { type Named, namedFiles } from '../gather/image-source.ts';

/** A picture in rich text that was brought from elsewhere: where it can be had, and what is said of it there. */
export interface OfferedPicture {
  /** An http(s) address, a `data:` address of a picture, or empty for what lies on another machine. */
  readonly address: string;
  /** Its alt text there, or the name of its file; empty for neither. */
  readonly words: string;
}

/** An `img` of rich text as it says of itself, and the `source` elements of its `picture`. */
export type PastedImage = Omit<Named, 'link'>;

/** A picture that is written into the text itself: 8 MB of bytes are some 11 MB of letters. */
const MOST_DATA = 11_000_000;

/** Rich text says nothing of where it stood: what is not a whole address leads nowhere. */
const NOWHERE = 'https://nowhere.invalid/';

/**
 * What is offered for an image of pasted text: the best file of the web that it names, by the same rule as on a page that
 * is read for its pictures; else one that lies in the text itself, else its words alone.
 */
export function offeredPicture(image: PastedImage): OfferedPicture {
  const said = (name: string) => image.img.attributes.find((one) => one.name === name)?.value ?? '';
  const src = said('src').trim();
  const best = namedFiles({ ...image, link: null }, NOWHERE).find(
    ({ address }) => !address.startsWith(NOWHERE) && address.length <= MOST_DATA,
  );
  const address = best?.address ?? (isPictureData(src) ? src : '');
  const words = (said('alt').trim() || fileNameOf(address || src)).replace(/\s+/g, ' ').slice(0, 200);
  return { address, words };
}

function isPictureData(address: string): boolean {
  return (
    /^data:image\/(png|jpeg|gif|webp|avif|svg\+xml);base64,/i.test(address) && address.length <= MOST_DATA
  );
}

function fileNameOf(address: string): string {
  if (address.startsWith('data:')) return '';
  const name = address.split(/[?#]/)[0]?.split(/[/\\]/).at(-1) ?? '';
  try {
    return decodeURIComponent(name);
  } catch {
    return name;
  }
}
