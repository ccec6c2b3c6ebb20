import { transliterate } from './letters.ts';

/** What cameras and programs put before the number of a picture; none of them is a word. */
const CAMERA =
  /^(?:img|imag|dsc|dscn|dscf|dsf|pxl|pict|gopr|mvi|vid|mov|pano|sam|cimg|hpim|kimg|rimg|wp|p|k)$/;

/** Words for a picture or a file, which name nothing where a number, a date or nothing else stands beside them. */
const FILE_WORDS = new Set(
  'image images photo photos picture pictures pic scan screenshot screenshots screen shot screencap untitled unnamed noname download downloads file files document video film clip foto fotos bild bilder bildschirmfoto imagen immagine capture untitled1 new copy'.split(
    ' ',
  ),
);

/** Words that say what was done to a file, where they stand at the end of its name. In front they may be part of it. */
const HANDLED = new Set(
  'copy kopie copie copia kopia final finals finale edit edited edits new old small medium large big xs xl thumb thumbnail crop cropped resized scaled web draft export exported version ver rev hdr raw orig original lowres hires low high res retouched compressed optimized'.split(
    ' ',
  ),
);
const EXTENSIONS = new Set(
  'jpeg jpg jpe png tif tiff webp avif gif nef dng arw raf cr2 cr3 heic heif psd pdf svg bmp'.split(' '),
);

const YEAR = '(?:18|19|20)\\d{2}';
const [MONTH, DAY] = ['(?:0[1-9]|1[0-2])', '(?:0[1-9]|[12]\\d|3[01])'];
const TIME = '\\d{1,2}[-.:_h ]?\\d{2}(?:[-.:_m ]?\\d{2}(?:[-.]?\\d{1,3})?)?(?: ?[ap]\\.?m\\b\\.?)?';
/** A date of taking or downloading (ISO 8601, or day first), and the time beside it: "2024-05-11 at 14.32.09". */
const STAMP = new RegExp(
  `(?<!\\d)(?:${YEAR}[-._ ]?${MONTH}[-._ ]?${DAY}|${DAY}[-._]${MONTH}[-._]${YEAR})(?!\\d(?!\\d{3}))(?:[-_t ,]*(?:at|um|kl|om|alle|a las|a)?[-_ .]*${TIME})?(?!\\d)`,
  'g',
);
/** What a program calls a thing that nobody named: 32 hexadecimal digits, in groups or not, and shorter marks of that kind. */
const MARK =
  /(?<![a-z0-9])(?:[0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12}|(?=[0-9a-f]*\d)(?=[0-9a-f]*[a-f])[0-9a-f]{10,})(?![a-z0-9])/g;

/**
 * The words of a file name that a person wrote: without extensions, camera prefixes and numbers, "copy", "final" and
 * "(1)" at the end, sizes such as 1920x1080, and dates and times of taking or downloading. Often none are left. A word
 * like "new" or "old" in front is part of what it says, and so is a small number before or after a word, and a year.
 */
export function wordsOfFileName(fileName: string, language = ''): readonly string[] {
  const base = (fileName.split(/[/\\]/).at(-1) ?? '').slice(0, MOST_READ).replace(/\.[A-Za-z0-9]{1,5}$/, '');
  const plain = transliterate(splitHumps(base.normalize('NFC')), language)
    .replace(/['`]/g, '')
    .replace(/[([{]\d+[)\]}]/g, ' ')
    .replace(MARK, ' ')
    .replace(STAMP, ' ');
  const words = plain.split(/[^a-z0-9]+/).filter(Boolean);
  return withoutNothing(withoutMiddle(withoutEnd(withoutBeginning(words))));
}

const MOST_READ = 500;

/** Whether a stem says nothing of the picture: a camera's number, a date, "picture-2". */
export function isUnnamed(stem: string): boolean {
  return wordsOfFileName(`${stem}.jpg`).length === 0;
}

/** "HeronAtDawn" as "Heron At Dawn". */
function splitHumps(text: string): string {
  return text.replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2');
}

const isNumber = (word: string | undefined): boolean => word !== undefined && /^\d+$/.test(word);
const isYear = (word: string): boolean => /^(18|19|20)\d{2}$/.test(word);
/** "dsc0091", "p1190422": a camera's prefix and its number in one word; "rose2024" is none. */
function isNumbered(word: string): boolean {
  const [, prefix = '', number = ''] = /^([a-z]{1,4})(\d{3,})[a-z]?$/.exec(word) ?? [];
  return number !== '' && (CAMERA.test(prefix) || (number.length > 3 && !isYear(number)));
}

/** "IMG 1234", "copy of", "photo 12" and counted places in front ("003 heron") go; "3 herons" and "new gate" stay. */
function withoutBeginning(words: readonly string[]): readonly string[] {
  const [first, second] = words;
  if (first === undefined) return words;
  if (/^(copy|kopie|copie|copia)$/.test(first) && /^(of|von|de|di|av)$/.test(second ?? ''))
    return withoutBeginning(words.slice(2));
  const isPrefix = CAMERA.test(first) && first.length > 1;
  if (isPrefix || (CAMERA.test(first) && isNumber(second)))
    return withoutBeginning(words.slice(isNumber(second) ? 2 : 1));
  if (isNumbered(first)) return withoutBeginning(words.slice(1));
  if (FILE_WORDS.has(first) && isNumber(second)) return withoutBeginning(words.slice(2));
  const isCounted = isNumber(first) && (first.startsWith('0') || (first.length > 2 && !isYear(first)));
  return isCounted ? withoutBeginning(words.slice(1)) : words;
}

/** What was done to the file, its size and its numbers at the end; a small number after a word stays ("hide 3"). */
function withoutEnd(words: readonly string[]): readonly string[] {
  const last = words.at(-1);
  const before = words.at(-2);
  if (last === undefined) return words;
  const isSaid = !isNumber(last) || (before !== undefined && !isHandled(before) && !isNumber(before));
  if (isHandled(last) || !isSaid || isLong(last)) return withoutEnd(words.slice(0, -1));
  return words;
}

const isHandled = (word: string): boolean =>
  HANDLED.has(word) ||
  EXTENSIONS.has(word) ||
  /^v\d+$/.test(word) ||
  /^\d+x\d+$/.test(word) ||
  /^\d+(px|dpi)$/.test(word);
const isLong = (word: string): boolean => isNumber(word) && word.length > 2 && !isYear(word);

function withoutMiddle(words: readonly string[]): readonly string[] {
  return words.filter((word) => !isLong(word) && !/^\d+x\d+$/.test(word) && !isNumbered(word));
}

/** Words for a file alone, and numbers alone, say nothing. */
function withoutNothing(words: readonly string[]): readonly string[] {
  const says = words.some(
    (word) => !isNumber(word) && !FILE_WORDS.has(word) && !/^(at|of|the|a)$/.test(word),
  );
  return says ? words : [];
}
