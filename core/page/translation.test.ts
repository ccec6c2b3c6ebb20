import { describe, expect, it } from 'vitest';
import { wholeAddress, writeAlternates } from './alternates.ts';
import type { Block } from './blocks/block.ts';
import type { PageDoc } from './model.ts';
import { examplePage, examplePlacement, heading, PLAIN_RULES, paragraph, placed } from './testing.ts';
import {
  isUpToDate,
  rulesInLanguage,
  translatedUpTo,
  translationOf,
  translationState,
} from './translation.ts';
import { writeFragment } from './write.ts';

const heron = placed(examplePlacement('column'));
const BASE: PageDoc = {
  ...examplePage(
    heading('Boots', 2, 'h'),
    paragraph('Boots are enough.', 'a'),
    heron,
    paragraph('Go early.', 'b'),
  ),
  address: '/boots',
  tray: ['heron'],
};
const page = (base: PageDoc, ...blocks: Block[]): PageDoc => ({ ...base, blocks });
/** The German page, with all but the last line translated. */
const GERMAN: PageDoc = page(
  { ...translationOf(BASE, 'de'), title: 'Rohrdommeln', address: '/de/stiefel' },
  heading('Stiefel', 2, 'h'),
  paragraph('Stiefel genügen.', 'a'),
  heron,
  paragraph('Go early.', 'b'),
);
const ids = (some: readonly { readonly id: string }[]) => some.map(({ id }) => id);

describe('a translation', () => {
  it('begins as the page, in its language, with its pieces, without its address and its wants', () => {
    const want = { id: 'w', purpose: 'Lead', shape: 'any', leastWidth: 0, filledBy: null } as const;
    expect(translationOf({ ...BASE, wants: [want] }, 'de')).toEqual({
      title: 'Bitterns',
      language: 'de',
      wants: [],
      tray: ['heron'],
      blocks: BASE.blocks,
    });
  });

  it('says what is not translated yet, and nothing else while the original stays', () => {
    const state = translationState(BASE, BASE, GERMAN);
    expect(ids(state.untranslated.map(({ attrs }) => attrs))).toEqual(['b']);
    expect(state.isTitleUntranslated).toBe(false);
    expect(translationState(BASE, BASE, { ...GERMAN, title: BASE.title }).isTitleUntranslated).toBe(true);
    expect(state.reworded).toEqual([]);
    expect(state.rearranged).toEqual([]);
    expect(state.arranged).toEqual(GERMAN);
    expect(isUpToDate(state)).toBe(true);
  });

  it('shows what the original says otherwise since, and takes over what was not translated', () => {
    const original = page(
      { ...BASE, title: 'Bitterns and boots' },
      heading('Boots', 2, 'h'),
      paragraph('Waders are better.', 'a'),
      heron,
      paragraph('Go at dawn.', 'b'),
    );
    const state = translationState(BASE, original, GERMAN);
    expect(ids(state.reworded)).toEqual(['title', 'a']);
    expect(ids(state.rearranged)).toEqual(['b']);
    expect(state.arranged).toMatchObject({ title: 'Rohrdommeln', language: 'de', address: '/de/stiefel' });
    expect(state.arranged.blocks[1]).toEqual(paragraph('Stiefel genügen.', 'a'));
    expect(state.arranged.blocks[3]).toEqual(paragraph('Go at dawn.', 'b'));
  });

  it('is arranged as the original is: what came, went, was moved and set otherwise', () => {
    const wide = placed(examplePlacement('bleed'));
    const original = page(
      BASE,
      paragraph('Boots are enough.', 'a'),
      paragraph('New.', 'n'),
      heading('Boots', 2, 'h'),
      wide,
    );
    const state = translationState(BASE, original, GERMAN);
    expect(state.reworded).toEqual([]);
    expect(state.arranged.blocks).toEqual([
      paragraph('Stiefel genügen.', 'a'),
      paragraph('New.', 'n'),
      heading('Stiefel', 2, 'h'),
      wide,
    ]);
    const again = translationState(BASE, original, state.arranged);
    expect(again.rearranged).toEqual([]);
    expect(ids(again.untranslated.map(({ attrs }) => attrs))).toEqual(['n']);
  });

  it('goes without what the original took out, though it was translated', () => {
    const state = translationState(BASE, page(BASE, heading('Boots', 2, 'h'), heron), GERMAN);
    expect(state.arranged.blocks).toEqual([heading('Stiefel', 2, 'h'), heron]);
  });

  it('keeps what it says of its own', () => {
    const own = page(GERMAN, ...GERMAN.blocks, paragraph('Nur hier.', 'own'));
    expect(translationState(BASE, BASE, own).arranged).toEqual(own);
  });

  it('says a new state of the original once a difference is done', () => {
    const original = page(
      BASE,
      heading('Boots', 2, 'h'),
      paragraph('Waders.', 'a'),
      heron,
      paragraph('Go.', 'b'),
    );
    const base = translatedUpTo(BASE, original, 'a');
    expect(base.blocks[1]).toEqual(paragraph('Waders.', 'a'));
    expect(base.blocks[3]).toEqual(paragraph('Go early.', 'b'));
    expect(translationState(base, original, GERMAN).reworded).toEqual([]);
    expect(translatedUpTo(base, original, 'a')).toBe(base);
  });
});

describe('what goes out of a page in another language than its target', () => {
  const context = {
    rules: rulesInLanguage(PLAIN_RULES, { language: 'de' }),
    pieces: new Map(),
    addressOf: () => '',
    pages: new Map([
      ['en', { title: 'Boots', address: '/boots', language: PLAIN_RULES.language }],
      ['de', { title: 'Stiefel', address: '/de/stiefel', language: 'de' }],
    ]),
  };
  const linked = (href: string): Block => ({
    type: 'paragraph',
    attrs: { id: href },
    content: [{ type: 'text', text: 'Boots', marks: [{ type: 'link', attrs: { href } }] }],
  });

  it('says its language round it, and that of the pages in others that it leads to', () => {
    const html = writeFragment(page(GERMAN, linked('page:en'), linked('page:de')), context);
    expect(html).toContain('<div class="placard" lang="de">');
    expect(html).toContain(`<a href="/boots" hreflang="${PLAIN_RULES.language}">Boots</a>`);
    expect(html).toContain('<a href="/de/stiefel">Boots</a>');
    expect(writeFragment(BASE, { ...context, rules: PLAIN_RULES })).toContain('<div class="placard">\n');
  });

  it('names the others in the head, each that has an address', () => {
    const site = 'https://reserve.example/';
    expect(wholeAddress('/boots', site)).toBe('https://reserve.example/boots');
    expect(wholeAddress('https://saltmere.example/b', site)).toBe('https://saltmere.example/b');
    expect([wholeAddress('', site), wholeAddress('/boots', '')]).toEqual(['', '']);
    expect(
      writeAlternates([
        { language: 'de', href: 'https://reserve.example/de?a=1&b' },
        { language: 'fr', href: '' },
      ]),
    ).toBe('<link rel="alternate" hreflang="de" href="https://reserve.example/de?a=1&amp;b">\n');
  });
});
