/** A picture in rich text that was brought from elsewhere: where it can be had, and what is said of it there. */
export interface OfferedPicture {
  /** An http(s) address, a `data:` address of a picture, or empty for what lies on another machine. */
  readonly address: string;
  /** Its alt text there, or the name of its file; empty for neither. */
  readonly words: string;
}

/** The parts of an `img` that say where its picture is, as they stand in the text; `sources` are those of its `picture`. */
export interface ImageParts {
  readonly src: string;
  readonly srcset: string;
  readonly lazy: string;
  readonly alt: string;
  readonly sources: readonly string[];
}

const MOST_ADDRESS = 2000;
/** A picture that is written into the text itself: 8 MB of bytes are some 11 MB of letters. */
const MOST_DATA = 11_000_000;

/**
 * What is offered for an image of pasted text (HTML, `img`, `srcset`): the largest picture of the web that it names,
 * else one that lies in the text itself, else its words alone.
 */
export function offeredPicture(image: ImageParts): OfferedPicture {
  const { src, srcset, lazy, alt, sources } = image;
  const largest = [srcset, ...sources].map(largestOf).find((address) => webAddress(address) !== '') ?? '';
  const address = [lazy, largest, src].map(webAddress).find(Boolean) ?? (isPictureData(src) ? src : '');
  const words = (alt.trim() || fileNameOf(address || src)).replace(/\s+/g, ' ').slice(0, 200);
  return { address, words };
}

/** The address with the largest descriptor of a `srcset`: pixels across (`w`) or density (`x`). */
function largestOf(srcset: string): string {
  const candidates = srcset
    .slice(0, 20_000)
    .split(/,\s+/)
    .map((candidate) => {
      const [address = '', size = '1x'] = candidate.trim().split(/\s+/);
      return { address, size: Number.parseFloat(size) || 1 };
    });
  return candidates.reduce((best, next) => (next.size > best.size ? next : best), { address: '', size: 0 })
    .address;
}

function webAddress(text: string): string {
  const address = text.trim().startsWith('//') ? `https:${text.trim()}` : text.trim();
  const isWeb = /^https?:\/\//i.test(address) && address.length <= MOST_ADDRESS && URL.canParse(address);
  return isWeb ? address : '';
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
