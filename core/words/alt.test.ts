import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type AltFault, altFault, sayAltFault, withoutImageOf, withoutMarkup } from './alt.ts';
import { BAD, GOOD } from './alt-corpus.ts';

const ALONE = { linked: false, caption: '' };
const text = (words: string) => ({ kind: 'text', text: words }) as const;

describe('an alt text', () => {
  it.each(GOOD)('may say “%s”', (words) => {
    expect(altFault(text(words), ALONE)).toBeUndefined();
  });

  it.each(BAD)('may not say “%s”: %s', (words, fault) => {
    expect(altFault(text(words), ALONE)).toBe(fault);
  });

  it('is not that of the picture beside it', () => {
    const beside = { ...ALONE, neighbours: ['A heron in the reeds.', 'The sluice'] };
    expect(altFault(text('a heron in the reeds'), beside)).toBe('same-as-neighbour');
    expect(altFault(text('A heron in the reeds, from behind'), beside)).toBeUndefined();
  });

  it('has to be said, or said to be decorative', () => {
    expect(altFault({ kind: 'unsaid' }, ALONE)).toBe('missing');
    expect(altFault({ kind: 'decorative' }, ALONE)).toBeUndefined();
  });

  it('cannot be empty where it is all that a link says', () => {
    expect(altFault({ kind: 'decorative' }, { linked: true, caption: '' })).toBe('decorative-linked');
    expect(altFault({ kind: 'unsaid' }, { linked: true, caption: '' })).toBe('missing');
    expect(altFault(text('The tide table'), { linked: true, caption: '' })).toBeUndefined();
  });

  it.each(['Bitterns are booming again.', 'bitterns are booming, again', '  Bitterns   are booming again  '])(
    'is not the caption again: “%s”',
    (caption) => {
      const words = text('Bitterns are booming again.');
      expect(altFault(words, { linked: false, caption })).toBe('same-as-caption');
      expect(altFault(words, { linked: false, caption: `${caption} At dawn.` })).toBeUndefined();
    },
  );

  it('has one sentence for each fault, and never more than one fault', () => {
    const faults: readonly AltFault[] = [
      'missing',
      'decorative-linked',
      'decorative-said',
      'placeholder',
      'link-words',
      'markup',
      'key-words',
      'same-as-neighbour',
      'file-name',
      'image-of',
      'punctuation',
      'long',
      'same-as-caption',
    ];
    expect(new Set(faults.map(sayAltFault)).size).toBe(faults.length);
    for (const fault of faults) expect(sayAltFault(fault)).toMatch(/^[A-Z].*[.]$/);
  });
});

describe('“image of” in front', () => {
  it.each([
    ['Image of a heron', 'A heron'],
    ['a photo of the sluice', 'The sluice'],
    ['The photograph showing Hide No. 3', 'Hide No. 3'],
    ['A heron', 'A heron'],
    ['Imagery of the marsh', 'Imagery of the marsh'],
  ])('is dropped from “%s”', (before, after) => {
    expect(withoutImageOf(before)).toBe(after);
  });

  it('is a fault no more once it was dropped, whatever follows', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('Image of ', 'a picture showing ', 'The graphic of '),
        fc.string({ minLength: 1, maxLength: 60 }).filter((rest) => /^[a-z]{2}/.test(rest)),
        (lead, rest) => {
          const left = withoutImageOf(lead + rest);
          expect(left.toLowerCase()).toBe(rest.trim().toLowerCase());
        },
      ),
      { numRuns: 200 },
    );
  });
});

describe('code in an alt text', () => {
  it.each([
    ['<b>Heron</b> at dawn', 'Heron at dawn'],
    ['A heron<br>in the reeds', 'A heron in the reeds'],
    ['Reeds &amp; rushes', 'Reeds & rushes'],
    ['[Heron](heron.html) in **reeds**', 'Heron in reeds'],
  ])('is left out of “%s”', (before, after) => {
    expect(withoutMarkup(before)).toBe(after);
  });
});
