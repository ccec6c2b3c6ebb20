import anyAscii from 'any-ascii';

/** Letters of Cyrillic and Greek as passports spell them (ICAO 9303-3, table of transliterations), where nobody says which language it is. */
const SPELLED_OUT: Readonly<Record<string, string>> = {
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
  ђ: 'dj',
  ћ: 'c',
  џ: 'dz',
  η: 'i',
  υ: 'y',
  χ: 'ch',
};

const NORDIC = { å: 'aa', ø: 'oe' };
const SERBIAN = { ж: 'z', х: 'h', ц: 'c', ч: 'c', ш: 's' };

/** Letters that one language spells out otherwise than the rest do, by its primary subtag (BCP 47). */
const SPELLED_IN: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  de: { ä: 'ae', ö: 'oe', ü: 'ue' },
  gsw: { ä: 'ae', ö: 'oe', ü: 'ue' },
  lb: { ä: 'ae', ö: 'oe', ü: 'ue' },
  da: NORDIC,
  nb: NORDIC,
  nn: NORDIC,
  no: NORDIC,
  sr: SERBIAN,
  mk: { ...SERBIAN, ѓ: 'g', ќ: 'k', ѕ: 'dz' },
  bg: { щ: 'sht', ъ: 'a', х: 'h', ю: 'yu', я: 'ya' },
  uk: { г: 'h', и: 'y' },
};

/** Letters of which each stands for a word, or for part of one, without blanks between them. */
const IDEOGRAPH = /\p{Script=Han}/u;
/** What is drawn, and what only says how it is to be drawn. */
const PICTOGRAPH =
  /\p{Extended_Pictographic}|\p{Emoji_Modifier}|\p{Regional_Indicator}|\ufe0f|\u200d|\u20e3/gu;
/** Scripts whose marks are accents. In others they are letters: a vowel of Devanagari is a mark. */
const ACCENTED = /^[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}]\p{M}+$/u;

/**
 * Lower-case ASCII for any text, whichever of Unicode's forms it comes in: what only looks otherwise is made plain
 * (UAX 15, NFKC), accents are dropped, letters of other scripts are written as they sound. `language` (BCP 47, such as
 * "de-AT") spells its own letters as its readers would. Pictographs say nothing in a name.
 */
export function transliterate(text: string, language = ''): string {
  const own = SPELLED_IN[language.split('-')[0]?.toLowerCase() ?? ''] ?? {};
  // Plain first: a sign of which only one of Unicode's forms counts as a picture is the same in all of them.
  const plain = text.normalize('NFKC').replace(PICTOGRAPH, (sign) => (/[#*0-9©®]/u.test(sign) ? sign : ' '));
  let made = '';
  for (const letter of plain.toLowerCase()) made += ascii(letter, own);
  return made.toLowerCase().replace(/[^\x20-\x7e]/g, ' ');
}

function ascii(letter: string, own: Readonly<Record<string, string>>): string {
  if (letter <= '\x7f') return letter;
  const known = own[letter] ?? SPELLED_OUT[letter];
  if (known !== undefined) return known;
  const apart = letter.normalize('NFD');
  const base = ACCENTED.test(apart) ? ([...apart][0] ?? '') : letter;
  if (base !== letter) return ascii(base, own);
  const written = anyAscii(letter);
  return IDEOGRAPH.test(letter) ? ` ${written} ` : written;
}
