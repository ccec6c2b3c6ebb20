import { describe, expect, it } from 'vitest';
import { HOSTS, readOne } from '#core/embed/testing.ts';
import { exampleAsset } from '../testing.tsx';
import { statusOf } from './status.ts';

const embed = (address: string, seconds: number | null) => {
  const { embed: read } = readOne(address);
  return {
    embed: { ...read, facts: { ...read.facts, seconds } },
    hosts: { entries: [...HOSTS.entries], decisions: [] },
    framing: {},
    poster: 'drawn' as const,
  };
};
const FILM = embed('https://lanternreel.example/watch/a', 200);
const MAP = embed('https://fathomchart.example/chart/a', null);
const PAGE = { id: 'tides', title: 'Tides this week' };

describe('the status under a piece', () => {
  it.each([
    [exampleAsset(), '6000 × 4000 · credit owed'],
    [exampleAsset({ usedOn: [PAGE] }), '6000 × 4000 · credit owed · on 1 page'],
    [exampleAsset({ label: { licence: 'own' }, usedOn: [PAGE, PAGE] }), '6000 × 4000 · ours · on 2 pages'],
    [exampleAsset({ label: { licence: 'cc0' } }), '6000 × 4000 · credit asked'],
    [exampleAsset({ label: { licence: 'own' } }, { kind: 'embed', embed: FILM }), 'film 3:20 · ours'],
    [exampleAsset({ label: { licence: 'not-copied' } }, { kind: 'embed', embed: MAP }), 'map'],
  ])('says what it is, what is owed and where it is used (%#)', (asset, words) => {
    expect(statusOf(asset)).toEqual({ words, isDue: false });
  });

  it.each([
    [exampleAsset({ label: { licence: 'unknown' } }), 'not cleared'],
    [
      exampleAsset({ label: { licence: 'unknown', title: '', alt: { kind: 'unsaid' } } }),
      'not cleared, no title, no alt text',
    ],
    [
      exampleAsset({ label: { licence: 'unknown' } }, { kind: 'embed', embed: FILM }),
      'film 3:20, not cleared',
    ],
    [exampleAsset({ label: { licence: 'comp', title: '' } }), '6000 × 4000 comp, not bought'],
  ])('says what is missing before all else (%#)', (asset, words) => {
    expect(statusOf(asset)).toEqual({ words, isDue: true });
  });
});
