import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type AltFault, altFault, sayAltFault, withoutImageOf } from './alt.ts';

const ALONE = { linked: false, caption: '' };
const text = (words: string) => ({ kind: 'text', text: words }) as const;

describe('an alt text', () => {
  it.each([
    'A grey heron stands motionless in shallow water among reeds at dawn.',
    'Bittern',
    'Hide No. 3, seen from the boardwalk',
    'Image analysis of the eel pass, as a chart',
    'Pictures hang along the wall of the visitor room',
    'The photographer waits by the sluice',
    '7.2 m at high water',
    'Les roseaux au crépuscule',
    'Камыш на рассвете',
    '芦苇丛中的苍鹭',
    'jpg',
    `A ${'long '.repeat(28)}way`,
  ])('may say “%s”', (words) => {
    expect(altFault(text(words), ALONE)).toBeUndefined();
  });

  const wrong: readonly (readonly [string, AltFault])[] = [
    ['', 'punctuation'],
    ['   ', 'punctuation'],
    ['...', 'punctuation'],
    ['—', 'punctuation'],
    ['IMG_2231.JPG', 'file-name'],
    ['heron-hide-3.webp', 'file-name'],
    ['  heron.avif  ', 'file-name'],
    ['DSC00412', 'file-name'],
    ['https://reserve.example/heron', 'file-name'],
    ['Image of a heron', 'image-of'],
    ['a photo of the sluice', 'image-of'],
    ['The photograph showing Hide No. 3', 'image-of'],
    ['An image of reeds', 'image-of'],
    ['x'.repeat(151), 'long'],
  ];
  it.each(wrong)('may not say “%s”: %s', (words, fault) => {
    expect(altFault(text(words), ALONE)).toBe(fault);
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
          expect(left.toLowerCase()).toBe(rest.toLowerCase());
        },
      ),
      { numRuns: 200 },
    );
  });
});
