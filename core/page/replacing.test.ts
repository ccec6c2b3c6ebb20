import { describe, expect, it } from 'vitest';
import type { LabelPatch } from '../rights/label.ts';
import { carriedOver, replacing } from './replacing.ts';
import { examplePiece, PLAIN_RULES } from './testing.ts';

const OLD = examplePiece({
  label: {
    title: 'Heron',
    alt: { kind: 'text', text: 'A heron.' },
    caption: 'At dawn.',
    words: ['bird'],
    licence: 'own',
  },
});
const BARE: LabelPatch = { title: '', alt: { kind: 'unsaid' }, caption: '', words: [], licence: 'own' };

describe('putting one piece in the place of another', () => {
  it('offers to carry over what the new one has not, and never its rights', () => {
    const { mayCarry } = replacing(OLD, examplePiece({ label: BARE }), PLAIN_RULES);
    expect(mayCarry).toEqual(['title', 'alt', 'caption', 'words']);
    expect(carriedOver(OLD.label, ['alt', 'words'])).toEqual({ alt: OLD.label.alt, words: ['bird'] });
    const titled = examplePiece({ label: { ...BARE, title: 'Bittern' } });
    expect(replacing(OLD, titled, PLAIN_RULES).mayCarry).not.toContain('title');
  });

  it('says what is not as it was: shape, size, licence', () => {
    const other = examplePiece({ size: { width: 600, height: 900 }, label: { ...BARE, licence: 'unknown' } });
    const { differs } = replacing(OLD, other, PLAIN_RULES);
    expect(differs[0]).toMatch(/^Its shape is another: .* higher/);
    expect(differs[1]).toMatch(/^It is smaller: 600 × 900 px in the place of /);
    expect(differs[2]).toMatch(/licence/i);
  });

  it('says nothing of a piece that is as good', () => {
    expect(replacing(OLD, examplePiece({ label: { licence: 'own' } }), PLAIN_RULES).differs).toEqual([]);
  });
});
