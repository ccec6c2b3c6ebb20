import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import { creditsOfPage } from '../../page/credits.ts';
import type { Inline } from '../../page/inline.ts';
import { usesOf } from '../../page/linked.ts';
import { PageAddressSchema } from '../../page/page-address.ts';
import type { Piece } from '../../page/piece.ts';
import { withReplaced } from '../../page/replace.ts';
import { A_DAY, examplePage, examplePiece, PLAIN_RULES } from '../../page/testing.ts';
import { writeFragment } from '../../page/write.ts';
import { writeInlines } from '../../page/write-inline.ts';
import { proofInput } from '../input.ts';
import { proofPage } from '../proof.ts';
import { sayFinding } from '../say.ts';
import { checkLinks } from './links.ts';

const PAGES = new Map([
  ['tides', { title: 'Tides this week', address: '/visit/tides' }],
  ['reed', { title: 'Reed-cutting days', address: '' }],
]);

/** What is found of a page with one paragraph, whose parts with an address are links. */
function found(...parts: readonly (readonly [words: string, href?: string])[]): readonly string[] {
  const page = examplePage({
    type: 'paragraph',
    attrs: { id: 'links' },
    content: parts.map(([text, href]) => ({
      type: 'text' as const,
      text,
      ...(href ? { marks: [{ type: 'link' as const, attrs: { href } }] } : {}),
    })),
  });
  return checkLinks({ page, rules: PLAIN_RULES, pieces: new Map(), pages: PAGES, html: '', now: A_DAY }).map(
    (found) => sayFinding(found).sentence,
  );
}

describe('links that say nothing', () => {
  it.each(['here', 'Click here', 'READ MORE...', '» more', 'this link.', 'Learn more!'])(
    '“%s” is told of',
    (words) => {
      expect(found(['Tides: '], [words, '/tides'])).toEqual([`A link only says “${words}”.`]);
    },
  );

  it.each(['the tides this week', 'here are the tides', 'More about eels', 'Hide 4', 'Go to the hides'])(
    '“%s” passes',
    (words) => {
      expect(found([words, '/tides'])).toEqual([]);
    },
  );

  it('are one where their parts go to one address, and two where they do not', () => {
    expect(found(['Read ', '/a'], ['more', '/a'])).toEqual(['A link only says “Read more”.']);
    expect(found(['Read ', '/a'], ['more', '/b'])).toHaveLength(2);
    expect(found(['here', '/a'], [' and '], ['here', '/a'])).toHaveLength(2);
  });

  it('only counts what is linked', () => {
    expect(found(['Click here'])).toEqual([]);
  });
});

describe('links to other pages', () => {
  it('pass where the page is there and its address is known', () => {
    expect(found(['Tides this week', 'page:tides'])).toEqual([]);
  });

  it('are told of where it is gone, or nobody has said where it stands', () => {
    expect(found(['Reed-cutting', 'page:reed'], [' and '], ['eels', 'page:gone'])).toEqual([
      'A link leads to “Reed-cutting days”, whose address is not known yet.',
      'A link leads to a page that is no longer there.',
    ]);
  });

  it('go out with the address of the page, and as words alone without one', () => {
    const linked = (href: string): Inline[] => [
      { type: 'text', text: 'Tides', marks: [{ type: 'link', attrs: { href } }] },
    ];
    const context = { rules: PLAIN_RULES, pages: PAGES };
    expect(writeInlines(linked('page:tides'), context)).toBe('<a href="/visit/tides">Tides</a>');
    expect(writeInlines(linked('page:reed'), context)).toBe('Tides');
    expect(writeInlines(linked('page:gone'), { rules: PLAIN_RULES })).toBe('Tides');
  });

  it.each([
    ['/visit/tides', true],
    ['https://reserve.example/tides', true],
    ['//elsewhere.example', false],
    ['javascript:alert(1)', false],
    ['visit/tides', false],
    ['', false],
  ])('are written with no other address than one of a page: %s', (address, isOne) => {
    expect(v.is(PageAddressSchema, address)).toBe(isOne);
  });
});

describe('links to files', () => {
  const map = examplePiece(
    { id: 'map', stem: 'marsh-map', extension: 'pdf' },
    { kind: 'document', document: { format: 'pdf', pages: 2, bytes: 1_200_000 } },
  );
  const pieces = new Map([['map', map]]);
  const page = examplePage({
    type: 'paragraph',
    attrs: { id: 'p' },
    content: [{ type: 'text', text: 'The map', marks: [{ type: 'link', attrs: { href: 'file:map' } }] }],
  });
  const fileOf = (name: string) => `files/${name}`;

  it('say what they lead to, and of which type it is', () => {
    const html = writeFragment(page, { rules: PLAIN_RULES, pieces, fileOf, addressOf: () => '' });
    expect(html).toContain(
      '<a href="files/marsh-map.pdf" type="application/pdf">The map<span class="link-says"> (PDF, 2 pages, 1.2 MB)</span></a>',
    );
    // Where no file goes along, its words alone do.
    expect(writeFragment(page, { rules: PLAIN_RULES, pieces, addressOf: () => '' })).toContain(
      '<p>The map</p>',
    );
  });

  it('are uses of a piece: credited, judged, and gone with it', () => {
    expect(usesOf(page).map(({ asset }) => asset)).toEqual(['map']);
    expect(creditsOfPage(page, pieces, PLAIN_RULES)).toHaveLength(1);
    const codes = (piece: Piece | null) =>
      proofPage(proofInput(page, PLAIN_RULES, new Map(piece ? [['map', piece]] : []), A_DAY)).map(
        ({ code }) => code,
      );
    expect(codes(map)).toEqual([]);
    expect(codes({ ...map, label: { ...map.label, licence: 'unknown' } })).toEqual(['licence-missing']);
    expect(codes(null)).toEqual(['file-link-broken']);
  });

  it('lead to what takes the place of the file', () => {
    expect(usesOf(withReplaced(page, 'map', 'other')).map(({ asset }) => asset)).toEqual(['other']);
    expect(withReplaced(page, 'elsewhere', 'other')).toBe(page);
  });
});
