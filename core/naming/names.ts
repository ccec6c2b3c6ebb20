/** The longest stem of a file name, in letters. */
export const STEM_LIMIT = 80;
/** Of longer texts only the beginning makes a name; even where most of it is left away, that is enough. */
const READ_LIMIT = 2000;

/** Names that some file systems keep for devices (Win32 "Naming Files, Paths, and Namespaces"). */
const DEVICE_NAME = /^(con|prn|aux|nul|com[0-9]|lpt[0-9]|conin\$?|conout\$?)$/;

/** Letters that Unicode does not take apart, as they are usually written in ASCII. */
const SPELLED_OUT: Readonly<Record<string, string>> = {
  ß: 'ss',
  æ: 'ae',
  œ: 'oe',
  ø: 'o',
  đ: 'd',
  ð: 'd',
  þ: 'th',
  ł: 'l',
  ı: 'i',
  ħ: 'h',
  ŋ: 'ng',
  ſ: 's',
  а: 'a',
  б: 'b',
  в: 'v',
  г: 'g',
  д: 'd',
  е: 'e',
  ж: 'zh',
  з: 'z',
  и: 'i',
  й: 'i',
  к: 'k',
  л: 'l',
  м: 'm',
  н: 'n',
  о: 'o',
  п: 'p',
  р: 'r',
  с: 's',
  т: 't',
  у: 'u',
  ф: 'f',
  х: 'kh',
  ц: 'ts',
  ч: 'ch',
  ш: 'sh',
  щ: 'shch',
  ъ: '',
  ы: 'y',
  ь: '',
  э: 'e',
  ю: 'iu',
  я: 'ia',
  і: 'i',
  ї: 'i',
  є: 'ie',
  ґ: 'g',
  α: 'a',
  β: 'v',
  γ: 'g',
  δ: 'd',
  ε: 'e',
  ζ: 'z',
  η: 'i',
  θ: 'th',
  ι: 'i',
  κ: 'k',
  λ: 'l',
  μ: 'm',
  ν: 'n',
  ξ: 'x',
  ο: 'o',
  π: 'p',
  ρ: 'r',
  σ: 's',
  ς: 's',
  τ: 't',
  υ: 'y',
  φ: 'f',
  χ: 'ch',
  ψ: 'ps',
  ω: 'o',
};

/** Letters that one language spells out otherwise than the rest do, by its primary subtag (BCP 47). */
const SPELLED_IN: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  de: { ä: 'ae', ö: 'oe', ü: 'ue' },
  da: { å: 'aa' },
  nb: { å: 'aa' },
  nn: { å: 'aa' },
  no: { å: 'aa' },
  uk: { г: 'h', и: 'y' },
};

/**
 * Lower-case ASCII for any text: accents dropped, known letters spelled out, the rest left away. `language` (BCP 47,
 * such as "de-AT") spells its own letters as its readers would.
 */
export function transliterate(text: string, language = ''): string {
  const own = SPELLED_IN[language.split('-')[0]?.toLowerCase() ?? ''] ?? {};
  const spelled = [...text.normalize('NFC').toLowerCase()].map((letter) => own[letter] ?? letter).join('');
  const plain = spelled.normalize('NFKD').replace(/\p{M}/gu, '');
  return [...plain]
    .map((letter) => SPELLED_OUT[letter] ?? letter)
    .join('')
    .replace(/[^\x20-\x7e]/g, ' ');
}

/**
 * A web-safe part of a name: lower-case ASCII letters, digits and single hyphens, none at either end, at most 80
 * letters, cut at a hyphen where one is near. Empty when nothing of the text can be kept.
 */
export function webSafe(text: string, language = ''): string {
  const joined = transliterate(text.slice(0, READ_LIMIT).replace(/['’ʼ]/g, ''), language)
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '');
  return shorten(joined);
}

const NEAR_LETTERS = 20;

function shorten(joined: string): string {
  if (joined.length <= STEM_LIMIT) return joined;
  const cut = joined.slice(0, STEM_LIMIT);
  const hyphen = cut.lastIndexOf('-');
  return (hyphen >= STEM_LIMIT - NEAR_LETTERS ? cut.slice(0, hyphen) : cut).replace(/-+$/, '');
}

export type NameFault = 'empty' | 'long' | 'letters' | 'hyphens' | 'device' | 'digits';

const FAULT_SENTENCES: Readonly<Record<NameFault, string>> = {
  empty: 'The name is empty.',
  long: `The name has over ${STEM_LIMIT} letters.`,
  letters: 'A name has only small letters a to z, digits and hyphens.',
  hyphens: 'Hyphens stand singly, and between words.',
  device: 'Some computers keep this name for a device.',
  digits: 'The name is only digits and says nothing of the picture.',
};

/** What is wrong with a stem, most telling first, or undefined for a good one. */
export function nameFault(stem: string): NameFault | undefined {
  if (stem === '') return 'empty';
  if (/[^a-z0-9-]/.test(stem)) return 'letters';
  if (/--|^-|-$/.test(stem)) return 'hyphens';
  if (stem.length > STEM_LIMIT) return 'long';
  if (DEVICE_NAME.test(stem)) return 'device';
  if (/^[0-9-]+$/.test(stem)) return 'digits';
  return undefined;
}

export function sayNameFault(fault: NameFault): string {
  return FAULT_SENTENCES[fault];
}

/**
 * A good stem from any text. A device name, an empty result or one of digits only gets `word` in front (a word
 * from the label, or the kind of piece).
 */
export function goodStem(text: string, word: string): string {
  const stem = webSafe(text);
  const fault = nameFault(stem);
  if (fault === undefined) return stem;
  return webSafe(`${webSafe(word) || 'piece'} ${stem}`);
}
