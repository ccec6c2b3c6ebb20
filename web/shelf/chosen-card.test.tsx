import { describe, expect, it } from 'vitest';
import type { Asset } from '#api/assets.ts';
import { drawn, exampleAsset, wordsOf } from '../testing.tsx';
import { ChosenCard } from './chosen-card.tsx';

const card = (...assets: readonly Asset[]) => wordsOf(drawn(<ChosenCard assets={assets} />));
const TIDES = { id: 'tides', title: 'Tides this week' };

describe('the label of several chosen pieces', () => {
  it('parts what is the same from what differs', () => {
    const words = card(
      exampleAsset({ id: 'a', folder: 'birds', label: { creator: 'Ines Okonjo' } }),
      exampleAsset({ id: 'b', folder: 'birds', label: { creator: 'Piet Hallam' } }),
    );
    expect(words).toMatch(/Same licence: [^,]+, folder: birds, format: JPEG/);
    expect(words).toContain('Differ maker: Ines Okonjo, Piet Hallam');
    expect(words).toContain('and 1 more chosen');
  });

  it('says three of many, and how many more', () => {
    const words = card(
      ...['birds', 'events', 'hides', 'plants', ''].map((folder, at) =>
        exampleAsset({ id: `${at}`, folder }),
      ),
    );
    expect(words).toContain('folder: birds, events, hides and 2 more');
  });

  it('counts those without words', () => {
    const unsaid = { alt: { kind: 'unsaid' } } as const;
    expect(card(exampleAsset(), exampleAsset({ id: 'b' }))).toContain('Each has its own alt text.');
    expect(card(exampleAsset(), exampleAsset({ id: 'b', label: unsaid }))).toContain('1 of 2 have no words.');
  });

  it('counts a page once, however many of them it uses', () => {
    const used = [TIDES];
    expect(card(exampleAsset({ usedOn: used }), exampleAsset({ id: 'b', usedOn: used }))).toContain(
      'On 1 page.',
    );
    expect(card(exampleAsset(), exampleAsset({ id: 'b' }))).toContain('On no page.');
    const other = [{ id: 'marsh', title: 'Marsh 1931' }];
    expect(card(exampleAsset({ usedOn: used }), exampleAsset({ id: 'b', usedOn: other }))).toContain(
      'On 2 pages.',
    );
  });
});
