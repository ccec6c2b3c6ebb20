import { describe, expect, it } from 'vitest';
import { cutFileName, earlierCutFileName, nextFree } from './clash.ts';
import { wordsOfFileName } from './gibberish.ts';
import { webSafe } from './names.ts';
import { folderDepth, withAncestors } from './paths.ts';
import { nameByPattern } from './pattern.ts';
import { nameFault, STEM_LIMIT } from './rule.ts';
import { replacedInStem, replacedInText } from './search-replace.ts';
import { shortHash } from './short-hash.ts';

/** Where one letter more or less decides. */

describe('the longest name', () => {
  const word = (letters: number) => 'a'.repeat(letters);

  it.each([
    ['is kept whole', word(STEM_LIMIT), word(STEM_LIMIT)],
    ['is cut where no hyphen is near', word(STEM_LIMIT + 5), word(STEM_LIMIT)],
    ['is cut at the last hyphen near its end', `${word(60)} ${word(30)}`, word(60)],
    [
      'is cut at its length where the hyphen is further',
      `${word(59)} ${word(30)}`,
      `${word(59)}-${word(20)}`,
    ],
    ['ends in no hyphen', `${word(79)} ${word(9)}`, word(79)],
    ['begins and ends in no hyphen', `-- ${word(4)} --`, word(4)],
  ])('%s', (_what, text, stem) => {
    expect(webSafe(text)).toBe(stem);
  });

  it('may be as long as that, and no longer', () => {
    expect(nameFault(word(STEM_LIMIT))).toBeUndefined();
    expect(nameFault(word(STEM_LIMIT + 1))).toBeDefined();
    expect(nameFault('1862-map')).toBeUndefined();
    expect(nameFault('18-62')).toBeDefined();
  });

  it('has room for its number, and for no hyphen before it', () => {
    const stem = `${word(STEM_LIMIT - 4)}-bcd`;
    expect(nextFree(stem, (one) => one === stem)).toBe(`${word(STEM_LIMIT - 4)}-b-2`);
    const hyphened = `${word(STEM_LIMIT - 3)}-bc`;
    expect(nextFree(hyphened, (one) => one === hyphened)).toBe(`${word(STEM_LIMIT - 3)}-2`);
    expect(nextFree('reed-bed', (one) => one === 'reed-bed')).toBe('reed-bed-2');
  });
});

it('a cut is called by its stem, what was done and its width, and was once without the stem set apart', () => {
  expect(cutFileName('heron', '3x2', 800, 'webp')).toBe('heron--3x2-800.webp');
  expect(cutFileName('heron', '', 800, 'webp')).toBe('heron--800.webp');
  expect(earlierCutFileName('grey-heron', 'heron--3x2-800.webp')).toBe('grey-heron-3x2-800.webp');
});

it('folders lie as deep as they have names in their path', () => {
  expect(withAncestors('/walks//2026/')).toEqual(['walks', 'walks/2026']);
  expect([folderDepth(''), folderDepth('walks'), folderDepth('/walks//2026/')]).toEqual([0, 1, 2]);
});

describe('searching and replacing', () => {
  it.each([
    ['nothing to search', 'Reed  bed', { search: ' ', replace: 'x' }, 'Reed  bed'],
    ['nothing found: doubled spaces stay', 'Reed  bed', { search: 'heron', replace: '' }, 'Reed  bed'],
    ['spaces round the search do not count', 'Reed bed', { search: ' BED ', replace: ' bank ' }, 'Reed bank'],
    ['what is left stands without doubled spaces', 'A reed bed', { search: 'reed', replace: '' }, 'A bed'],
    ['and without any at its ends', 'reed bed', { search: 'reed', replace: '' }, 'bed'],
    ['signs are signs', 'Hide (3)', { search: '(3)', replace: '$&' }, 'Hide $&'],
  ])('in a text: %s', (_what, text, order, after) => {
    expect(replacedInText(text, order)).toBe(after);
  });

  it('in a name keeps it good', () => {
    expect(replacedInStem('reed-bed', { search: ' ', replace: 'x' }, 'picture')).toBe('reed-bed');
    expect(replacedInStem('reed-bed', { search: 'Reed', replace: '' }, 'picture')).toBe('bed');
    expect(replacedInStem('reed', { search: 'reed', replace: '' }, 'picture')).toBe('picture');
  });
});

it('a short hash tells texts apart, and is that of FNV-1a', () => {
  expect(shortHash('')).toBe((0x811c9dc5).toString(36));
  expect(shortHash('a')).toBe((0xe40c292c).toString(36));
  expect(shortHash('ab')).not.toBe(shortHash('ba'));
});

it('a pattern takes the last of the maker’s names, the day of its date, and a number twice', () => {
  const facts = {
    language: '',
    kind: 'picture',
    title: 'Heron 3',
    fileName: '',
    place: '',
    maker: 'Ines  Okonjo',
    taken: '2026-03-12T09:30:00',
    number: '03',
    alt: '',
    caption: '',
  };
  const pattern = [
    { part: 'subject' },
    { part: 'place' },
    { part: 'maker' },
    { part: 'date' },
    { part: 'number' },
    { part: 'word', word: 'okonjo' },
  ] as const;
  expect(nameByPattern(pattern, facts)).toBe('heron-3-okonjo-2026-03-12-03');
});

describe('what a camera or a program wrote into a file name', () => {
  it.each([
    ['P1190422.JPG', ''],
    ['p 1190422.jpg', ''],
    ['p.jpg', 'p'],
    ['dsc0091b.jpg', ''],
    ['reed123.jpg', 'reed123'],
    ['reed1234.jpg', ''],
    ['reed1931.jpg', 'reed1931'],
    ['reed19310.jpg', ''],
    ['heron1190422x5.jpg', 'heron1190422x5'],
    ['003 heron.jpg', 'heron'],
    ['120 heron.jpg', 'heron'],
    ['12 herons.jpg', '12-herons'],
    ['1931 herons.jpg', '1931-herons'],
    ['1931a herons.jpg', '1931a-herons'],
    ['copy of heron.jpg', 'heron'],
    ['Kopie von heron.jpg', 'heron'],
    ['copyist of herons.jpg', 'copyist-of-herons'],
    ['photocopy of a map.jpg', 'photocopy-of-a-map'],
    ['copy off heron.jpg', 'copy-off-heron'],
    ['heron v2.jpg', 'heron'],
    ['heron v12.jpg', 'heron'],
    ['heron v2a.jpg', 'heron-v2a'],
    ['heron mv2.jpg', 'heron-mv2'],
    ['heron 300dpi.jpg', 'heron'],
    ['heron 300dpis.jpg', 'heron-300dpis'],
    ['heron a300px.jpg', 'heron-a300px'],
    ['heron 1920x1080.jpg', 'heron'],
    ['heron 1920x1080 at dawn.jpg', 'heron-at-dawn'],
    ['heron 4x4 track.jpg', 'heron-track'],
    ['heron a4x4 track.jpg', 'heron-a4x4-track'],
    ['heron 4x4s track.jpg', 'heron-4x4s-track'],
    ['theatre.jpg', 'theatre'],
    ['at the.jpg', ''],
    ['the 12.jpg', ''],
    ['heron.jpeg2', 'heron'],
    ['folder/of/heron.jpg', 'heron'],
    ['folder\\heron.jpg', 'heron'],
    ['heron: at, dawn.jpg', 'heron-at-dawn'],
  ])('“%s” says “%s”', (file, said) => {
    expect(wordsOfFileName(file).join('-')).toBe(said);
  });
});
