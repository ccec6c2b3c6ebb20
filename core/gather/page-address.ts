/** Longer ones are no addresses that anybody could be sent to. */
const ADDRESS_LIMIT = 4000;

/** A web address made whole; empty for anything that is not one. Blanks round it do not count (URL standard). */
export function absolute(address: string, base: string): string {
  const text = address.trim();
  if (text === '' || text.length > ADDRESS_LIMIT || !URL.canParse(text, base)) return '';
  const url = new URL(text, base);
  return url.protocol === 'http:' || url.protocol === 'https:' ? url.href : '';
}

/** What a licence is called by: an address made whole where it is one, else its words. */
export function wholeLicence(said: string, base: string): string {
  const text = said.trim();
  const isAddress =
    /^(?:https?:)?\/\//i.test(text) || /^(?:\/|\.{1,2}\/|#|[\w-]{1,60}(?:\/|\.html?$))\S*$/i.test(text);
  return isAddress ? absolute(text, base) : text;
}

/** A number of px as pages write it ("1600", "1600px", "1600.5"); 0 for anything else, such as a share. */
export function pixels(text: string): number {
  const number = Number(/^(\d{1,6})(?:\.\d{1,9})?\s{0,3}(?:px)?$/i.exec(text.slice(0, 40).trim())?.[1] ?? 0);
  return number <= 100_000 ? number : 0;
}

const PICTURE_FILE = /\.(?:jpe?g|jfif|png|webp|avif|gif|tiff?|heic|bmp)$/i;

/** Whether an address ends like a file with a picture in it, and not like a page about one ("/wiki/File:Heron.jpg"). */
export function isPictureFile(address: string): boolean {
  const { pathname } = new URL(address);
  if (!PICTURE_FILE.test(pathname)) return false;
  const segments = pathname.split('/');
  const isOfPage = segments.slice(0, -1).some((segment) => /\.(?:php|html?|aspx?|jsp|cgi)$/i.test(segment));
  return !isOfPage && !/:|%3a/i.test(segments.at(-1) ?? '');
}

/** The width in px that the name of a file says it has, as makers of sizes write it; 0 where it says none. */
export function widthInName(address: string): number {
  const { pathname, searchParams } = new URL(address);
  for (const name of ['w', 'width', 'resize']) {
    const said = pixels((searchParams.get(name) ?? '').split(/[,x]/)[0] ?? '');
    if (said > 0) return said;
  }
  const name = pathname.split('/').at(-1) ?? '';
  const found =
    /(?:^|[-_.@])(\d{2,4})(?:x\d{2,4}|w|px)(?=[-_.]|$)/i.exec(name) ??
    /[-_](\d{3,4})(?=\.[a-z]{3,4}$)/i.exec(name);
  return found ? Number(found[1]) : 0;
}

const SIZE_WORDS =
  /(?:[-_.](?:thumb(?:nail)?|small|medium|large|full(?:size)?|preview|orig(?:inal)?|big|mini|tiny|low(?:res)?|hi(?:res)?|high|scaled|retina|web|\d{2,4}x\d{2,4}|\d{2,4}(?:w|px)))+$|(?:@[123]x)$/i;

const SIZE_NAME = /^(?:w|h|width|height|size|resize|fit|crop|quality|q|dpr|format|fm|auto)$/i;
const SIZE_FOLDER = /^(?:thumbs?|thumbnails?|small|medium|large|full|previews?|originals?|big)$/i;

/** What the file of a picture is called in all its sizes: its address without what only says which size it is. */
export function nameInAllSizes(address: string): string {
  const { host, pathname, searchParams } = new URL(address);
  const dot = pathname.lastIndexOf('.');
  const path = dot > pathname.lastIndexOf('/') ? pathname.slice(0, dot) : pathname;
  const segments = path.replace(SIZE_WORDS, '').split('/');
  const folders = segments.slice(0, -1).filter((folder) => !SIZE_FOLDER.test(folder));
  const query = [...searchParams].filter(([name]) => !SIZE_NAME.test(name)).join('&');
  return `${host}${[...folders, ...segments.slice(-1)].join('/')}?${query}`.toLowerCase();
}
