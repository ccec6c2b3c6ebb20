import { describe, expect, it } from 'vitest';
import type { Errand } from '#api/desk.ts';
import type { Role } from '#api/people.ts';
import { drawn, exampleAsset, wordsOf } from '../testing.tsx';
import { DeskScreen } from './desk-screen.tsx';

const errand = (id: string, change: Partial<Errand> = {}): Errand => ({
  id,
  kind: 'words',
  before: 'A picture on',
  subject: 'Tides this week',
  after: 'has no words yet.',
  detail: 'Those who cannot see it hear nothing.',
  due: null,
  action: 'Word it',
  address: `/pages/${id}`,
  thumb: null,
  count: null,
  given: null,
  isGivable: true,
  ...change,
});

function desk(errands: readonly Errand[], role: Role = 'editor'): string {
  const me = { id: 'mara', name: 'Mara Oduya', email: 'mara@saltmere.example', role };
  return drawn(<DeskScreen />, [
    [['me'], me],
    [
      ['desk'],
      { errands, colleagues: [{ id: 'piet', name: 'Piet Maas' }], pages: [], recent: [exampleAsset()] },
    ],
  ]);
}

describe('the Desk', () => {
  it.each([
    [0, 'Nothing waits for you, Mara'],
    [1, 'One thing waits for you, Mara'],
    [3, 'Three things wait for you, Mara'],
    [12, '12 things wait for you, Mara'],
  ])('with %i errands begins with what waits', (count, words) => {
    const errands = Array.from({ length: count }, (_, at) => errand(`e${at}`));
    expect(wordsOf(desk(errands))).toContain(words);
  });

  it('says each as a sentence with its action', () => {
    const html = desk([errand('tides')]);
    expect(wordsOf(html)).toContain(
      'A picture on Tides this week has no words yet. Those who cannot see it hear nothing.',
    );
    expect(html).toMatch(/href="\/pages\/tides"[^>]*>Word it/);
  });

  it('counts what was given to others as theirs, and says whose each is', () => {
    const given = (to: string, note: string) => ({
      to: { id: to, name: to === 'mara' ? 'Mara Oduya' : 'Piet Maas' },
      by: { id: 'lena', name: 'Lena Brandt' },
      note,
      at: '2026-11-30T10:00:00Z',
    });
    const words = wordsOf(
      desk([
        errand('one', { given: given('mara', 'Before Friday.') }),
        errand('two'),
        errand('three', { given: given('piet', '') }),
      ]),
    );
    expect(words).toContain('Two things wait for you, Mara');
    expect(words).toContain('For you, from Lena Brandt: “Before Friday.”');
    expect(words).toContain('With Piet Maas, from Lena Brandt.');
  });

  it('shows the first four, and how many more there are', () => {
    const html = desk(Array.from({ length: 6 }, (_, at) => errand(`e${at}`)));
    expect([...html.matchAll(/>Word it</g)]).toHaveLength(4);
    expect(wordsOf(html)).toContain('2 more');
  });

  it('offers a contributor to hand in, and no pages', () => {
    const words = wordsOf(desk([], 'contributor'));
    expect(words).toContain('Hand pieces in');
    expect(words).not.toContain('Begin a page');
    expect(words).not.toContain('Under way');
  });

  it('shows what came in last by name', () => {
    expect(desk([])).toMatch(/href="\/shelf\?piece=heron"[^>]*>(<link[^>]*>)?<img[^>]*alt="Heron"/);
  });
});
