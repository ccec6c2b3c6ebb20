import { describe, expect, it } from 'vitest';
import type { LabelPatch } from '../rights/label.ts';
import { NO_TERMS } from '../rights/terms.ts';
import { carriedOver, ownWordsOf, replacing, sayOwnWords } from './replacing.ts';
import { A_DAY, examplePage, examplePiece, examplePlacement, PLAIN_RULES } from './testing.ts';

const OLD = examplePiece({
  label: {
    title: 'Heron',
    alt: { kind: 'text', text: 'A heron.' },
    caption: 'At dawn.',
    keywords: ['bird'],
    licence: 'own',
  },
});
const BARE: LabelPatch = { title: '', alt: { kind: 'unsaid' }, caption: '', keywords: [], licence: 'own' };

describe('putting one piece in the place of another', () => {
  it('offers to carry over what the new one has not, and never its rights', () => {
    const { mayCarry } = replacing(OLD, examplePiece({ label: BARE }), PLAIN_RULES, A_DAY);
    expect(mayCarry).toEqual(['title', 'alt', 'caption', 'keywords']);
    expect(carriedOver(OLD.label, ['alt', 'keywords'])).toEqual({ alt: OLD.label.alt, keywords: ['bird'] });
    const titled = examplePiece({ label: { ...BARE, title: 'Bittern' } });
    expect(replacing(OLD, titled, PLAIN_RULES, A_DAY).mayCarry).not.toContain('title');
  });

  it('says what is not as it was: shape, size, licence', () => {
    const other = examplePiece({ size: { width: 600, height: 900 }, label: { ...BARE, licence: 'unknown' } });
    const { differs } = replacing(OLD, other, PLAIN_RULES, A_DAY);
    expect(differs[0]).toMatch(/^Its shape is another: .* higher/);
    expect(differs[1]).toMatch(/^It is smaller: 600 × 900 px in the place of /);
    expect(differs[2]).toMatch(/licence/i);
  });

  it('says of a piece whose term is over that it is', () => {
    const terms = { ...NO_TERMS, ends: '2026-11-27' };
    const over = examplePiece({ label: { licence: 'permission', creator: 'Tomas Reill', terms } });
    expect(replacing(OLD, over, PLAIN_RULES, A_DAY).differs.join(' ')).toContain('ended on 27 November 2026');
  });

  it('says nothing of a piece that is as good', () => {
    expect(replacing(OLD, examplePiece({ label: { licence: 'own' } }), PLAIN_RULES, A_DAY).differs).toEqual(
      [],
    );
  });
});

describe('words of its own that a page says of a piece', () => {
  const words = (...uses: readonly Parameters<typeof examplePlacement>[1][]) =>
    sayOwnWords(
      ownWordsOf(
        examplePage(
          ...uses.map((use, at) => ({
            type: 'placement' as const,
            attrs: examplePlacement('column', { id: `p${at}`, ...use }),
          })),
        ),
        'heron',
      ),
    );

  it('are those of any of its uses there', () => {
    expect(words({ caption: 'At dawn.' }, { alt: { kind: 'text', text: 'A heron.' } })).toBe(
      'alt text and caption',
    );
    expect(words({ alt: { kind: 'decorative' } })).toBe('alt text');
    expect(words({ asset: 'other', caption: 'At dawn.' }, { caption: ' ' })).toBe('');
  });
});
