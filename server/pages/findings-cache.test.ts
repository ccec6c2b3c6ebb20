import { describe, expect, it } from 'vitest';
import {
  A_DAY,
  examplePage,
  examplePiece,
  examplePlacement,
  PLAIN_RULES,
  paragraph,
} from '#core/page/testing.ts';
import type { Finding } from '#core/proof/finding.ts';
import { FindingsCache } from './findings-cache.ts';

const NOTHING: readonly Finding[] = [];

function page(words = 'The tide turns.', change: Parameters<typeof examplePiece>[0] = {}) {
  const piece = examplePiece(change);
  const placed = { type: 'placement', attrs: examplePlacement('column', { asset: piece.id }) } as const;
  return {
    doc: examplePage(paragraph(words), placed),
    rules: PLAIN_RULES,
    pieces: new Map([[piece.id, piece]]),
    pages: new Map(),
  };
}

/** How often a proof is made while these pages are asked for, one after the other. */
function proofs(...pages: readonly ReturnType<typeof page>[]): number {
  const known = new FindingsCache();
  let made = 0;
  for (const one of pages)
    known.of(one, A_DAY, () => {
      made += 1;
      return NOTHING;
    });
  return made;
}

describe('findings of a page that links to others', () => {
  const leading = {
    ...page(),
    doc: examplePage({
      type: 'paragraph' as const,
      attrs: { id: 'p' },
      content: [
        {
          type: 'text' as const,
          text: 'Tides',
          marks: [{ type: 'link' as const, attrs: { href: 'page:tides' } }],
        },
      ],
    }),
  };

  it('are looked for again once those stand elsewhere', () => {
    const at = (address: string) => ({
      ...leading,
      pages: new Map([['tides', { title: 'Tides', address }]]),
    });
    expect(proofs(leading, at(''), at('/tides'), at('/tides'))).toBe(3);
  });
});

describe('findings that are known', () => {
  it('are looked for again on another day of their target, on which a term may have ended', () => {
    const known = new FindingsCache();
    let made = 0;
    for (const day of ['2026-12-14T09:00:00Z', '2026-12-14T23:00:00Z', '2026-12-15T00:30:00Z'])
      known.of(page(), new Date(day), () => {
        made += 1;
        return NOTHING;
      });
    expect(made).toBe(2);
  });

  it('are not looked for again, however often the same is read anew', () => {
    expect(proofs(page(), page(), page())).toBe(1);
  });

  it.each([
    ['its words', page('The tide is out.')],
    ['the label of a piece', page(undefined, { label: { title: 'Another heron' } })],
    ['its house rules', { ...page(), rules: { ...PLAIN_RULES, column: 640 } }],
    ['a piece that is gone', { ...page(), pieces: new Map() }],
  ])('are looked for again once the page has another state: %s', (_what, other) => {
    expect(proofs(page(), other)).toBe(2);
  });

  it('do not depend on pieces that stand on other pages', () => {
    const more = page();
    more.pieces.set('bittern', { ...examplePiece(), id: 'bittern' });
    expect(proofs(page(), more)).toBe(1);
  });

  it('are forgotten, those asked for longest ago first, when there are too many', () => {
    const many = Array.from({ length: 2000 }, (_, at) => page(`Line ${at}`));
    const [first, second] = many;
    if (!first || !second) throw new Error('There are none.');
    expect(proofs(...many, first, page('One more'), first)).toBe(2001);
    expect(proofs(...many, first, page('One more'), second)).toBe(2002);
  });
});
