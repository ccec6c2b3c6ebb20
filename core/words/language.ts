/**
 * Words that each language uses all the time and hardly any other does, for a guess at the language of a line of text. A
 * word that two of them share ("die", "in", "de") counts for neither.
 */
const COMMON: Readonly<Record<string, string>> = {
  en: 'the of and is are was with from at this that which its it by for on over between through near into they their there where when while two three has have had been not',
  de: 'der das den dem des ein eine einen einem einer und ist sind war mit von zu auf bei aus im am zwischen über unter nach vor für sich nicht auch wie wird wurde durch zum zur drei steht liegt',
  fr: 'le les une des du et est sont était avec dans sur pour par au aux ce cette ces qui que leur leurs entre deux trois il elle ils elles ne pas plus sous vers',
  es: 'el los las del y está están con por una uno unos unas su sus al entre dos tres muy sobre hacia desde cuando donde fue eran',
  nl: 'het een van op bij naar uit zijn wordt werd met tussen drie zich niet ook maar deze dit die dat over onder voor door staat ligt',
  it: 'il lo gli della delle dei degli nel nella con sono è una uno tra fra su sul sulla per che più due tre verso era erano',
  pl: 'jest są był była nad pod przez dla oraz między dwa trzy się nie który która przy jego jej ich',
  da: 'og er af på med det den til fra ved som ikke der et var har mellem under over to tre',
  sv: 'och är av på med det den till från vid som inte ett var har mellan under över två tre',
};

const LANGUAGES = Object.keys(COMMON);

/** Each word with the one language that it tells. */
const TELLING = telling();

function telling(): ReadonlyMap<string, string> {
  const of = new Map<string, string[]>();
  for (const language of LANGUAGES)
    for (const word of new Set((COMMON[language] ?? '').split(' ')))
      of.set(word, [...(of.get(word) ?? []), language]);
  return new Map(
    [...of].flatMap(([word, [one = '', ...others]]) => (others.length === 0 ? [[word, one]] : [])),
  );
}

/** Fewer common words than this tell no language: "Heron at dusk" is as good as a name. */
const LEAST_WORDS = 3;
/** One language has to stand out from the next by this much. */
const CLEARLY = 2;
/** A caption is a few lines; the beginning of anything longer tells as much. */
const READ_LETTERS = 2000;

/**
 * The language that a text is written in, as a primary subtag (BCP 47): one of a few European ones, by its common words.
 * Null where the text is short, or mixed, or in another language. For an accessibility check (WCAG 2.2, 3.1.2).
 */
export function languageOf(text: string): string | null {
  const counts = new Map<string, number>();
  for (const word of text
    .slice(0, READ_LETTERS)
    .toLowerCase()
    .match(/\p{L}+/gu) ?? []) {
    const language = TELLING.get(word);
    if (language) counts.set(language, (counts.get(language) ?? 0) + 1);
  }
  const [first, second] = [...counts].sort(([, one], [, other]) => other - one);
  if (!first || first[1] < LEAST_WORDS || first[1] < CLEARLY * (second?.[1] ?? 0)) return null;
  return first[0];
}

/** What a language is called by those who speak it: "Cymraeg"; its tag where that is not known. */
export function ownNameOf(tag: string): string {
  try {
    return new Intl.DisplayNames([tag], { type: 'language', languageDisplay: 'standard' }).of(tag) ?? tag;
  } catch {
    return tag;
  }
}

/** What a language is called in a sentence, or its subtag. */
export function callLanguage(subtag: string): string {
  return new Intl.DisplayNames(['en-GB'], { type: 'language' }).of(subtag) ?? subtag;
}
