import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { describedParts, sayDescribed } from './long-description.ts';

describe('a long description', () => {
  it('has paragraphs, headings, lists and figures', () => {
    const text = `# Eels counted
Each May, at the pass.
By hand.

- more in warm years
- none in 2021
1. counted
2. let go

Year\tEels
2024\t812
2025\t1,040

Then none.`;
    const parts = describedParts(text);
    expect(parts).toEqual([
      { kind: 'heading', text: 'Eels counted' },
      { kind: 'paragraph', lines: ['Each May, at the pass.', 'By hand.'] },
      { kind: 'list', isOrdered: false, items: ['more in warm years', 'none in 2021'] },
      { kind: 'list', isOrdered: true, items: ['counted', 'let go'] },
      {
        kind: 'table',
        isHeaded: true,
        rows: [
          ['Year', 'Eels'],
          ['2024', '812'],
          ['2025', '1,040'],
        ],
      },
      { kind: 'paragraph', lines: ['Then none.'] },
    ]);
    expect(sayDescribed(parts)).toBe('a heading, 2 paragraphs, 2 lists and a table of 3 rows and 2 columns');
  });

  it.each(['year;eels\n2024;812', 'year,eels\n2024,812\n2025,1040'])(
    'takes figures of a sheet: %j',
    (text) => {
      expect(describedParts(text)).toMatchObject([{ kind: 'table', isHeaded: true }]);
    },
  );

  it.each([
    'It rose, fell, and rose.\nThen it fell, rose, and fell.',
    '-5 degrees in May.',
    '12 eels',
    '#12 is the warden’s',
  ])('leaves a sentence one: %j', (text) => {
    expect(describedParts(text)).toMatchObject([{ kind: 'paragraph' }]);
  });

  it('loses no word, whatever is typed', () => {
    const words = (text: string) => text.match(/[a-z]+/gu) ?? [];
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('reed', 'eel', '- ', '# ', '1. ', '\t', '\n', '\n\n', ',', ';', ' '), {
          maxLength: 40,
        }),
        (bits) => {
          const text = bits.join('');
          expect(words(describedParts(text).map(saidIn).join(' '))).toEqual(words(text));
        },
      ),
    );
  });
});

function saidIn(part: ReturnType<typeof describedParts>[number]): string {
  switch (part.kind) {
    case 'paragraph':
      return part.lines.join(' ');
    case 'heading':
      return part.text;
    case 'list':
      return part.items.join(' ');
    case 'table':
      return part.rows.flat().join(' ');
  }
}
