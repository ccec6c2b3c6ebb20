import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cutFileName, nextFree } from './clash.ts';
import { folderPath, missingSections } from './folders.ts';
import { wordsOfFileName } from './gibberish.ts';
import { goodStem, webSafe } from './names.ts';
import { type NamePart, sayPattern } from './parts.ts';
import { withAncestors } from './paths.ts';
import { nameByPattern } from './pattern.ts';
import { nameFault, STEM_LIMIT } from './rule.ts';

describe('web-safe names', () => {
  it.each([
    ['Heron below Hide No. 3', 'heron-below-hide-no-3'],
    ['  Röhricht & Straße ', 'rohricht-strasse'],
    ['Цапля на рассвете', 'tsaplia-na-rassvete'],
    ['L’étang d’Avril', 'letang-davril'],
    ['../../etc/passwd', 'etc-passwd'],
    ['a\u0000b\u202ec', 'a-bc'],
    ['芦苇', 'lu-wei'],
  ])('%j becomes %j', (text, name) => {
    expect(webSafe(text)).toBe(name);
  });

  it('always follow their own rule once a word is there', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 300 }), (text) => {
        const stem = goodStem(text, 'picture');
        expect(nameFault(stem)).toBeUndefined();
        expect(stem.length).toBeLessThanOrEqual(STEM_LIMIT);
      }),
    );
  });

  it.each([
    ['', 'empty'],
    ['Heron', 'letters'],
    ['heron dawn', 'letters'],
    ['heron--dawn', 'hyphens'],
    ['-heron', 'hyphens'],
    ['con', 'device'],
    ['lpt1', 'device'],
    ['2026-03', 'digits'],
    ['a'.repeat(81), 'long'],
  ])('%j breaks the rule: %s', (stem, fault) => {
    expect(nameFault(stem)).toBe(fault);
  });

  it('give a device name or digits a word', () => {
    expect(goodStem('CON', 'heron')).toBe('heron-con');
    expect(goodStem('2026', 'picture')).toBe('picture-2026');
  });
});

describe('words of a file name', () => {
  it.each([
    ['IMG_20260311_0612.JPG', []],
    ['DSC_0091.NEF.jpg', []],
    ['P1190422.JPG', []],
    ['Scan final (2).tif', []],
    ['heron-hide-3 copy (1).jpg', ['heron', 'hide', '3']],
    ['HeronAtDawn_final_1920x1080.png', ['heron', 'at', 'dawn']],
    ['photos/2026/boardwalk.jpeg', ['boardwalk']],
  ])('%s keeps %j', (name, words) => {
    expect(wordsOfFileName(name)).toEqual(words);
  });
});

describe('house pattern', () => {
  const facts = {
    title: 'Heron at dawn',
    place: 'Saltmere',
    maker: 'Ines Okonjo',
    taken: '2026-03-12',
    fileName: 'IMG_1.JPG',
    kind: 'picture',
  };
  const pattern: NamePart[] = [
    { part: 'subject' },
    { part: 'place' },
    { part: 'maker' },
    { part: 'date' },
    { part: 'word', word: 'Reserve' },
  ];

  it('puts its parts in order', () => {
    expect(nameByPattern(pattern, facts)).toBe('heron-at-dawn-saltmere-okonjo-2026-03-12-reserve');
    expect(sayPattern(pattern)).toBe('subject-place-maker-date-“Reserve”');
  });

  it('leaves out what is not known or was said before', () => {
    expect(
      nameByPattern(pattern, { ...facts, title: 'Saltmere heron', place: 'Saltmere', maker: '', taken: '' }),
    ).toBe('saltmere-heron-reserve');
  });

  it('spells a language’s own letters as its readers do', () => {
    const named = (title: string, language: string) =>
      nameByPattern([{ part: 'subject' }], { ...facts, title, language });
    expect(named('Möwe über dem Fluß', 'de-AT')).toBe('moewe-ueber-dem-fluss');
    expect(named('Möwe', 'en-GB')).toBe('mowe');
    expect(named('Gåsekær', 'da')).toBe('gaasekaer');
    expect(named('Гнат', 'uk')).toBe('hnat');
  });

  it('takes the subject from the words of the label, and from the folder, before the kind', () => {
    const unsaid = { ...facts, title: '' };
    const named = (more: { words?: string[]; folder?: string }) =>
      nameByPattern([{ part: 'subject' }], { ...unsaid, ...more });
    expect(named({ words: ['eel', 'pass', 'spring', 'water'], folder: 'hides' })).toBe('eel-pass-spring');
    expect(named({ folder: 'events/reed-cutting' })).toBe('reed-cutting');
  });

  it('takes the subject from the file name, then from the kind', () => {
    expect(nameByPattern([{ part: 'subject' }], { ...facts, title: '', fileName: 'reed bed.jpg' })).toBe(
      'reed-bed',
    );
    expect(nameByPattern([{ part: 'subject' }], { ...facts, title: '' })).toBe('picture');
  });
});

describe('clashes', () => {
  it('offer the next free name, and never one that is taken', () => {
    const taken = new Set(['heron', 'heron-2']);
    expect(nextFree('heron', (stem) => taken.has(stem))).toBe('heron-3');
    expect(nextFree('bittern', (stem) => taken.has(stem))).toBe('bittern');
  });

  it('stay within the limit', () => {
    const long = 'a'.repeat(STEM_LIMIT);
    expect(nextFree(long, (stem) => stem === long)).toHaveLength(STEM_LIMIT);
  });

  it('keep sizes in the names of cuts', () => {
    expect(cutFileName('heron', '', 720, 'avif')).toBe('heron--720.avif');
    expect(cutFileName('heron', '3x2', 720, 'jpg')).toBe('heron--3x2-720.jpg');
    // Two pieces, one cut to a shape, one called by it: no file of one takes the place of the other's.
    expect(cutFileName('heron', '3x2', 720, 'jpg')).not.toBe(cutFileName('heron-3x2', '', 720, 'jpg'));
    expect(cutFileName('tide', '', 2026, 'jpg')).not.toBe(cutFileName('tide-2026', '', 720, 'jpg'));
  });
});

describe('folders', () => {
  it('are web-safe by segment and at most five deep', () => {
    expect(folderPath('Birds / Grey Heron')).toBe('birds/grey-heron');
    expect(folderPath('a/b/c/d/e/f/g')).toBe('a/b/c/d/e');
    expect(folderPath('../..//')).toBe('');
    // Some systems keep these for devices, with any ending.
    expect(folderPath('con/Aux/NUL/com1/lpt9')).toBe(
      'con-folder/aux-folder/nul-folder/com1-folder/lpt9-folder',
    );
    expect(folderPath('2026/03')).toBe('2026/03');
    expect(withAncestors('a/b/c')).toEqual(['a', 'a/b', 'a/b/c']);
  });
});

describe('sections of a site', () => {
  it('are offered as folders where none mirrors them, web-safe and once', () => {
    expect(
      missingSections(
        ['Birds/Bittern', 'visit/hides', '/visit/hides/', ' ', 'Café & Shop'],
        ['birds', 'birds/bittern'],
      ),
    ).toEqual(['visit/hides', 'cafe-shop']);
    expect(missingSections([], ['birds'])).toEqual([]);
  });
});
