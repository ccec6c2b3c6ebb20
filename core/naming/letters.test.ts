import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { transliterate } from './letters.ts';
import { webSafe } from './names.ts';

describe('letters of any script in ASCII', () => {
  it.each([
    ['Heron at Dawn', 'heron-at-dawn'],
    ['𝐇𝐞𝐫𝐨𝐧', 'heron'],
    ['Ｈｅｒｏｎ', 'heron'],
    ['ᴴeron', 'heron'],
    ['ﬁsh & ﬂood', 'fish-flood'],
    ['№ 5', 'no-5'],
    ['Ⅷ', 'viii'],
    ['①', '1'],
    ['½ moon', '1-2-moon'],
    ['Øystercatcher', 'oystercatcher'],
    ['Möwe', 'mowe'],
    ['Straße', 'strasse'],
    ['STRAẞE', 'strasse'],
    ['Łódź', 'lodz'],
    ['Đặng Thị', 'dang-thi'],
    ['İstanbul ısı', 'istanbul-isi'],
    ['Þingvellir', 'thingvellir'],
    ['Œuvre, Æon', 'oeuvre-aeon'],
    ['Əhməd', 'ehmed'],
    ['Ħaż-Żebbuġ', 'haz-zebbug'],
    ['Ñandú', 'nandu'],
    ['Sjøørret', 'sjoorret'],
    ['Dvořák', 'dvorak'],
    ['Ğ', 'g'],
    ['Љубљана', 'ljubljana'],
    ['Ђорђе и Џон', 'djordje-i-dzon'],
    ['Цапля на рассвете', 'tsaplia-na-rassvete'],
    ['Щука', 'shchuka'],
    ['Ёлка', 'elka'],
    ['Київ', 'kiiv'],
    ['Ўзбекистон', 'uzbekiston'],
    ['Αθήνα', 'athina'],
    ['Ψαράκι', 'psaraki'],
    ['წერო', 'tsero'],
    ['Հերոն', 'heron'],
    ['芦苇', 'lu-wei'],
    ['東京タワー', 'dong-jing-tawa'],
    ['さくら', 'sakura'],
    ['한글', 'hangeul'],
    ['הרון', 'hrvn'],
    ['مالك الحزين', 'mlk-lhzyn'],
    ['बगुला', 'bgula'],
    ['ไทย', 'aithy'],
    ['ʻokina', 'okina'],
    ['d’Avril', 'davril'],
    ['O´Brien`s', 'obriens'],
    ['heron 🐦 dawn', 'heron-dawn'],
    ['🇩🇪 1️⃣', '1'],
    ['so\u00adft hy\u200bphen', 'soft-hyphen'],
    ['a\u202eb', 'ab'],
    ['', ''],
    ['🐦', ''],
  ])('%s is %s', (text, name) => {
    expect(webSafe(text)).toBe(name);
    expect(webSafe(text.normalize('NFD'))).toBe(name);
    expect(webSafe(text.normalize('NFC'))).toBe(name);
  });

  it.each([
    ['de', 'Möwe über dem Fluß', 'moewe-ueber-dem-fluss'],
    ['de-AT', 'Röhricht', 'roehricht'],
    ['da', 'Gåsekær og Ørred', 'gaasekaer-og-oerred'],
    ['nb', 'Sjøørret på åa', 'sjoeoerret-paa-aaa'],
    ['sv', 'Råbäck ö', 'raback-o'],
    ['fi', 'Häränjärvi', 'haranjarvi'],
    ['uk', 'Гнат і Київ', 'hnat-i-kyiv'],
    ['ru', 'Гнат', 'gnat'],
    ['bg', 'Щъркел', 'shtarkel'],
    ['sr', 'Чапља у шевару', 'caplja-u-sevaru'],
    ['mk', 'Ѓорче', 'gorce'],
    ['en', 'Möwe', 'mowe'],
    ['', 'Möwe', 'mowe'],
  ])('is spelt in %s as its readers do: %s is %s', (language, text, name) => {
    expect(webSafe(text, language)).toBe(name);
    expect(webSafe(text.normalize('NFD'), language)).toBe(name);
    expect(webSafe(text.toUpperCase(), language)).toBe(name);
  });

  it('loses no letter of Latin, Greek, Cyrillic, Armenian or Georgian', () => {
    const lost: string[] = [];
    const scripts =
      /[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Armenian}\p{Script=Georgian}]/u;
    for (let point = 0x41; point < 0x2fff; point += 1) {
      const letter = String.fromCodePoint(point);
      // Soft and hard signs are heard in the letters beside them.
      if (!/\p{Ll}|\p{Lu}/u.test(letter) || !scripts.test(letter) || /[ъьЪЬ]/.test(letter)) continue;
      // A glottal stop is written as an apostrophe.
      if (transliterate(letter).trim() === '') lost.push(`${letter} ${point.toString(16)}`);
    }
    expect(lost).toEqual([]);
  });

  it('is the same for each of Unicode’s forms, and for capitals', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 40 }), (text) => {
        const name = transliterate(text);
        for (const form of ['NFC', 'NFD', 'NFKC'] as const)
          expect(transliterate(text.normalize(form))).toBe(name);
        expect(name).toMatch(/^[\x20-\x7e]*$/);
        expect(name).toBe(name.toLowerCase());
      }),
      // Letters that are drawn as pictographs, and pictographs that are none.
      {
        examples: ['Ⓜ', '🈲', '↮', '🄿', '🈁 🦢', '™ © ® 3️⃣'].map((text) => [text] as [string]),
      },
    );
  });
});
