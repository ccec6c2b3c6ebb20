import { describe, expect, it } from 'vitest';
import type { Framing } from '../embed/framing.ts';
import type { EmbedFacts } from '../embed/model.ts';
import { HOSTS, readOne } from '../embed/testing.ts';
import { WHOLE_FILM } from '../film/recipe.ts';
import { A_FILM } from '../film/testing.ts';
import type { OverWords } from '../media/over-words.ts';
import { AS_IT_CAME } from '../media/recipe.ts';
import { type Banner, USUAL_BANNER } from '../page/blocks/banner/schema.ts';
import type { Block } from '../page/blocks/block.ts';
import type { Placement } from '../page/blocks/placement/schema.ts';
import type { PageDoc } from '../page/model.ts';
import type { HeldEmbed, OfKind, Piece } from '../page/piece.ts';
import type { HouseRules } from '../page/target.ts';
import {
  A_DAY,
  examplePage,
  examplePiece,
  examplePlacement,
  heading,
  PLAIN_RULES,
  paragraph,
  placed,
  tableRow,
} from '../page/testing.ts';
import { FINDING_CODES, type FindingCode } from './codes.ts';
import { proofInput } from './input.ts';
import { applyRemedy, proofPage } from './proof.ts';
import { sayFinding, sayRemedy } from './say.ts';

interface Case {
  readonly page?: PageDoc;
  readonly piece?: Piece;
  readonly rules?: Partial<HouseRules>;
  /** What would go out, when it is not what we write. */
  readonly html?: string;
}

const figure = placed;
const GOOD = examplePage(paragraph('Words'), figure(examplePlacement('column')));

function findings({ page = GOOD, piece = examplePiece(), rules = {}, html }: Case) {
  const all = { ...PLAIN_RULES, ...rules };
  const pieces = new Map([['heron', piece]]);
  const input = proofInput(page, all, pieces, A_DAY, new Map());
  return proofPage(
    html === undefined ? input : { ...input, html: `<figure data-block="one">${html}</figure>` },
  );
}

/** A piece all of one grey (0 to 255), with white words over it. */
function lettered(change: Partial<OverWords>, grey: number): Piece {
  const words = {
    text: 'Booming again',
    place: 'bottom',
    size: 60,
    ink: '#ffffff',
    plate: null,
    ...change,
  } as const;
  const lights = { columns: 1, rows: 1, rgb: [grey, grey, grey] };
  return { ...examplePiece(), prep: { ...AS_IT_CAME, words }, lights };
}

/** A piece that is of one grey. */
const grey = (light: number) => ({
  ...examplePiece(),
  lights: { columns: 1, rows: 1, rgb: [light, light, light] },
});

function heldFor(
  address: string,
  facts: Partial<EmbedFacts> = {},
  framing: Framing | null = null,
): HeldEmbed {
  const { embed } = readOne(address);
  return {
    embed: { ...embed, facts: { ...embed.facts, visibility: 'public', captions: ['en'], ...facts } },
    hosts: HOSTS,
    framing: framing ? { '': framing } : {},
    poster: 'host',
  };
}

/** A film of the house's own. */
const ownFilm = (of: Partial<Extract<OfKind, { kind: 'film' }>>): Piece =>
  examplePiece(
    {},
    {
      kind: 'film',
      film: A_FILM,
      captions: ['en'],
      outOfStep: [],
      chapters: [],
      transcripts: [],
      recipe: WHOLE_FILM,
      made: [],
      ...of,
    },
  );

function filmPiece(facts: Partial<EmbedFacts> = {}, framing: Framing | null = null): Piece {
  const embed = heldFor('https://lanternreel.example/watch/eel-pass-71', facts, framing);
  return examplePiece({}, { kind: 'embed', embed });
}

/** A before-and-after of the same piece, each in a shape. */
const pair = (...shapes: readonly Placement['ratio'][]): Block => ({
  type: 'beforeAfter',
  attrs: { id: 'pair', divider: 50 },
  content: shapes.map((ratio, at) => figure(examplePlacement('column', { id: `side-${at}`, ratio }))),
});

const teaser = (words: string): Block => ({
  type: 'teaser',
  attrs: { id: 'teaser', title: '', words },
  content: [figure(examplePlacement('column', { id: 'teased' }))],
});

const banner = (words: string, change: Partial<Banner['attrs']> = {}): Block => ({
  type: 'banner',
  attrs: { id: 'banner', ...USUAL_BANNER, plate: null, ...change },
  content: [
    figure(examplePlacement('column', { id: 'ground' })),
    { type: 'bannerWords', attrs: { id: 'over' }, content: [heading(words, 2), paragraph('On the marsh')] },
  ],
});

const codes = (one: Case) => findings(one).map((finding) => finding.code);

const FAULTS: Readonly<Record<FindingCode, Case>> = {
  'alt-missing': { piece: examplePiece({ label: { alt: { kind: 'unsaid' } } }) },
  'alt-poor': { piece: examplePiece({ label: { alt: { kind: 'text', text: 'Image of a heron' } } }) },
  'licence-missing': { piece: examplePiece({ label: { licence: 'unknown' } }) },
  'licence-claimed': { piece: examplePiece({ isLicenceClaimed: true }) },
  'credit-missing': { piece: examplePiece({ label: { creator: '' } }) },
  'credit-leaves-out': {
    piece: examplePiece({
      label: { creditWords: [{ language: 'en', runs: [{ kind: 'words', text: 'Seen by a friend.' }] }] },
    }),
  },
  'use-not-allowed': { piece: examplePiece({ label: { licence: 'cc-by-nc-4.0' } }) },
  'piece-missing': { page: examplePage(figure(examplePlacement('column', { asset: 'gone' }))) },
  'want-unfilled': {
    page: {
      ...GOOD,
      wants: [
        { id: 'w', purpose: 'Portrait of the warden', shape: 'portrait', leastWidth: 800, filledBy: null },
      ],
    },
  },
  enlarged: { piece: examplePiece({ size: { width: 320, height: 200 } }) },
  'enlarged-sharp': { piece: examplePiece({ size: { width: 1000, height: 700 } }) },
  stretched: { html: '<img src="a.jpg" width="300" height="300" alt="">' },
  oversized: { html: '<img src="a.jpg" width="6000" height="4000" alt="">' },
  'words-faint': { piece: lettered({}, 240) },
  'words-small': { piece: lettered({ size: 20 }, 20), rules: { wordsOver: 'drawn' } },
  'words-unsaid': { piece: lettered({}, 20), rules: { wordsOver: 'drawn' } },
  'embed-gone': { piece: filmPiece({}, { kind: 'gone', status: 404 }) },
  'embed-private': { piece: filmPiece({ visibility: 'private' }) },
  'embed-untrusted': {
    piece: examplePiece({}, { kind: 'embed', embed: heldFor('https://elsewhere.example/a') }),
  },
  'embed-refused': { piece: filmPiece({}, { kind: 'refused', by: 'X-Frame-Options', value: 'DENY' }) },
  'embed-stripped': {
    piece: filmPiece(),
    rules: { embeds: { frames: false, frameHosts: [], click: false, widgets: false } },
  },
  'captions-missing': { piece: filmPiece({ captions: [] }) },
  'captions-out-of-step': { piece: ownFilm({ captions: ['en'], outOfStep: ['en'] }) },
  'film-not-made': { piece: ownFilm({ recipe: { ...WHOLE_FILM, from: 1000 } }) },
  'film-not-played': { piece: ownFilm({ film: { ...A_FILM, format: 'mkv' } }) },
  'film-too-large': { piece: ownFilm({ film: { ...A_FILM, seconds: 900 } }) },
  'dimensions-missing': { html: '<img src="a.jpg" alt="">' },
  'page-heavy': { rules: { weightBudget: 10_000 } },
  'text-squeezed': {
    page: examplePage(
      figure(examplePlacement('beside-left', { width: { unit: '%', value: 80 } })),
      paragraph('Words'),
    ),
  },
  'heading-order': {
    page: examplePage(heading('Deep', 4)),
  },
  'quotation-unattributed': {
    page: examplePage({
      type: 'quotation',
      attrs: { id: 'said', attribution: '', cite: '' },
      content: [paragraph('It booms.')],
    }),
  },
  'details-unnamed': {
    page: examplePage({
      type: 'details',
      attrs: { id: 'folded', summary: '' },
      content: [paragraph('It booms.')],
    }),
  },
  'table-headless': {
    page: examplePage({
      type: 'table',
      attrs: { id: 'tides', caption: '' },
      content: [tableRow('Mon', '4.1'), tableRow('Tue', '4.2')],
    }),
  },
  'card-alone': {
    page: examplePage({
      type: 'cards',
      attrs: { id: 'cards', perRow: 2, gap: 24 },
      content: ['one', 'two', 'three'].map((id) => ({
        type: 'card',
        attrs: { id, link: '' },
        content: [paragraph('Cut and bundle.', `${id}-words`)],
      })),
    }),
  },
  'anchor-missing': {
    page: examplePage({
      type: 'paragraph',
      attrs: { id: 'p' },
      content: [
        { type: 'text', text: 'What to bring', marks: [{ type: 'link', attrs: { href: '#boots' } }] },
      ],
    }),
  },
  'page-link-broken': {
    page: examplePage({
      type: 'paragraph',
      attrs: { id: 'p' },
      content: [
        { type: 'text', text: 'Tides this week', marks: [{ type: 'link', attrs: { href: 'page:gone' } }] },
      ],
    }),
  },
  'file-link-broken': {
    page: examplePage({
      type: 'paragraph',
      attrs: { id: 'p' },
      content: [{ type: 'text', text: 'The map', marks: [{ type: 'link', attrs: { href: 'file:gone' } }] }],
    }),
  },
  'contents-empty': {
    page: examplePage({ type: 'contents', attrs: { id: 'contents', deepest: 2 } }, heading('Deep', 3)),
  },
  'pair-broken': { page: examplePage(pair(null)) },
  'pair-shapes': { page: examplePage(pair(null, { across: 1, down: 1 })) },
  'lead-missing': { page: examplePage(figure(examplePlacement('column')), teaser('It booms.')) },
  'teaser-missing': {
    page: { ...examplePage(figure(examplePlacement('column', { id: 'lead' }))), lead: 'lead' },
  },
  'teaser-unsaid': {
    page: { ...examplePage(figure(examplePlacement('column', { id: 'lead' })), teaser('')), lead: 'lead' },
  },
  'banner-broken': {
    page: examplePage({ type: 'banner', attrs: { id: 'banner', ...USUAL_BANNER }, content: [] }),
  },
  'banner-full': { page: examplePage(banner('Reed-cutting days '.repeat(30))), piece: grey(20) },
  'banner-faint': { page: examplePage(banner('Reed-cutting days')), piece: grey(240) },
  'card-unnamed': {
    page: examplePage({
      type: 'cards',
      attrs: { id: 'cards', perRow: 2, gap: 24 },
      content: [
        { type: 'card', attrs: { id: 'one', link: '/walks/cut' }, content: [paragraph('', 'one-words')] },
      ],
    }),
  },
  'heading-empty': { page: examplePage(heading('')) },
  'title-missing': { page: { ...GOOD, title: ' ' } },
  'link-empty': { html: '<a href="/x"> </a><img src="a.jpg" width="720" height="480" alt="">' },
  'language-differs': {
    piece: examplePiece({
      label: { alt: { kind: 'text', text: 'Ein Graureiher steht im Schilf am Rand des Wassers.' } },
    }),
  },
  'link-vague': {
    page: examplePage({
      type: 'bulletList',
      attrs: { id: 'list' },
      content: [
        {
          type: 'listItem',
          content: [
            {
              type: 'paragraph',
              content: [
                { type: 'text', text: 'For the tides, ' },
                { type: 'text', text: 'Click ', marks: [{ type: 'link', attrs: { href: '/tides' } }] },
                {
                  type: 'text',
                  text: 'here!',
                  marks: [{ type: 'bold' }, { type: 'link', attrs: { href: '/tides' } }],
                },
              ],
            },
          ],
        },
      ],
    }),
  },
  'name-rule': { piece: examplePiece({ stem: 'IMG_0612' }) },
  'same-piece-twice': {
    page: examplePage(figure(examplePlacement('column')), figure(examplePlacement('column', { id: 'two' }))),
  },
  'picture-style-unknown': {
    page: examplePage(figure(examplePlacement('column', { pictureStyle: 'print' }))),
  },
};

describe('proof', () => {
  it('finds nothing on a page in order', () => {
    expect(codes({})).toEqual([]);
  });

  it.each(FINDING_CODES)('finds %s', (code) => {
    expect(codes(FAULTS[code])).toContain(code);
  });

  it.each(FINDING_CODES)('says %s from what is kept of it, in whole sentences', (code) => {
    const found = findings(FAULTS[code]).find((one) => one.code === code);
    if (!found) throw new Error('not found');
    const kept: typeof found = JSON.parse(JSON.stringify(found));
    const { sentence, why } = sayFinding(kept);
    for (const said of [sentence, why]) expect(said).toMatch(/^(?!.*(undefined|null|NaN|\[object)).+[.”]$/);
    for (const remedy of kept.remedies) expect(sayRemedy(remedy)).not.toMatch(/undefined|null|^$/);
  });

  it('measures oversized by the smallest file on offer', () => {
    const offers = (srcset: string) =>
      codes({ html: `<img src="a.jpg" srcset="${srcset}" width="6000" height="4000" alt="">` });
    expect(offers('a-350.jpg 350w, a-6000.jpg 6000w')).not.toContain('oversized');
    expect(offers('a-3000.jpg 3000w, a-6000.jpg 6000w')).toContain('oversized');
  });

  it.each(FINDING_CODES)('does not look for %s when House rules say so', (code) => {
    expect(
      codes({ ...FAULTS[code], rules: { ...FAULTS[code].rules, severities: { [code]: 'off' } } }),
    ).not.toContain(code);
  });

  it('puts what stops sending first', () => {
    const severities = { 'alt-missing': 'note', 'licence-missing': 'stops' } as const;
    const found = findings({
      piece: examplePiece({ label: { alt: { kind: 'unsaid' }, licence: 'unknown' } }),
      rules: { severities },
    });
    expect(found.map((finding) => finding.severity)).toEqual(['stops', 'note']);
  });

  it.each(FINDING_CODES)(
    'mends %s by each of its remedies that is a change to the page, and by nothing else',
    (code) => {
      const one = FAULTS[code];
      const page = one.page ?? GOOD;
      const found = findings(one).find((finding) => finding.code === code);
      const isHere = (mended: PageDoc) =>
        findings({ ...one, page: mended }).some(
          (finding) =>
            finding.code === code && JSON.stringify(finding.place) === JSON.stringify(found?.place),
        );
      for (const remedy of found?.remedies ?? []) {
        const mended = applyRemedy(page, remedy);
        const isCarriedOut = [
          'write-alt',
          'rename',
          'set-licence',
          'credit-by-licence',
          'find-piece',
        ].includes(remedy.kind);
        if (isCarriedOut) expect(mended).toBe(page);
        // What is not written by us stays as it is, and so does its fault.
        else if (one.html === undefined) expect(isHere(mended), sayRemedy(remedy)).toBe(false);
      }
    },
  );

  it.each([
    'enlarged',
    'text-squeezed',
    'heading-order',
    'heading-empty',
    'want-unfilled',
    'same-piece-twice',
    'piece-missing',
    'words-faint',
    'words-small',
    'words-unsaid',
    'table-headless',
    'pair-shapes',
    'banner-faint',
    'lead-missing',
    'teaser-missing',
    'contents-empty',
    'embed-gone',
    'embed-private',
  ] as const)('has a remedy for %s that is a change to the page', (code) => {
    const kinds = findings(FAULTS[code])
      .find((finding) => finding.code === code)
      ?.remedies.map(({ kind }) => kind);
    expect(kinds?.some((kind) => kind !== 'find-piece')).toBe(true);
  });

  it.each(FINDING_CODES)('tells %s with its place, its values and its remedies', (code) => {
    const found = findings(FAULTS[code]).filter((finding) => finding.code === code);
    expect(
      found.map((finding) => ({
        ...finding,
        says: sayFinding(finding),
        mends: finding.remedies.map(sayRemedy),
      })),
    ).toMatchSnapshot();
  });

  it('mends a forbidden crop by showing the piece whole', () => {
    const page = examplePage(figure(examplePlacement('column', { ratio: { across: 1, down: 1 } })));
    const piece = examplePiece({ label: { licence: 'cc-by-nd-4.0' } });
    const [finding] = findings({ page, piece });
    const [remedy] = finding?.remedies ?? [];
    expect(finding?.code).toBe('use-not-allowed');
    expect(remedy && codes({ page: applyRemedy(page, remedy), piece })).toEqual([]);
  });

  it('calls an embed that has no title by what it is, never by a file', () => {
    const film = filmPiece({ visibility: 'private' });
    const untitled = { ...film, label: { ...film.label, title: '' } };
    const sentences = findings({ piece: untitled }).map((finding) => sayFinding(finding).sentence);
    expect(sentences.length).toBeGreaterThan(0);
    expect(sentences.join(' ')).toContain('Film');
    expect(sentences.join(' ')).not.toMatch(/\.(jpg|jpeg)/);
  });

  it.each([
    [null, 'frame'],
    [{ kind: 'refused', by: 'X-Frame-Options', value: 'DENY' }, 'link'],
  ] as const)('of a poster nobody cleared mends by a form that shows none (%#)', (framing, form) => {
    const uncleared = filmPiece({}, framing);
    const piece = { ...uncleared, label: { ...uncleared.label, licence: 'unknown' as const } };
    const finding = findings({ piece }).find(({ code }) => code === 'licence-missing');
    const [remedy] = finding?.remedies ?? [];
    expect(remedy).toMatchObject({ change: { form } });
    expect(remedy && codes({ page: applyRemedy(GOOD, remedy), piece })).not.toContain('licence-missing');
  });

  it('asks for no alt text of words that are text of the page, and for none that says them already', () => {
    const piece = lettered({ text: 'Booming\nagain' }, 20);
    expect(codes({ piece })).toEqual([]);
    const said = { kind: 'text', text: 'A heron stands in the reeds. It says: Booming again' } as const;
    const drawn = { wordsOver: 'drawn' } as const;
    expect(codes({ piece: { ...piece, label: { ...piece.label, alt: said } }, rules: drawn })).toEqual([]);
    expect(codes({ piece, rules: drawn })).toEqual(['words-unsaid']);
  });

  it('says at which widths text is squeezed', () => {
    const [finding] = findings({
      page: examplePage(
        figure(examplePlacement('beside-left', { width: { unit: 'px', value: 640 } })),
        paragraph('Words'),
      ),
    });
    expect(finding?.viewports).toEqual([480, 834, 1280]);
  });

  describe('finds text squeezed', () => {
    const squeezedOn = (...blocks: Block[]) =>
      findings({ page: examplePage(...blocks) }).filter(({ code }) => code === 'text-squeezed');
    const beside = (side: 'left' | 'right', id: string, share: number) =>
      figure({ ...examplePlacement(`beside-${side}`, { width: { unit: '%', value: share } }), id });

    it('at widths between those that are looked at', () => {
      // At 390 px it is stacked, at 834 px there is room; at 480 px, where it no longer stacks, there is none.
      const [finding] = squeezedOn(beside('left', 'one', 58), paragraph('Words'));
      expect(finding?.viewports).toEqual([480]);
      expect(finding?.remedies.map(sayRemedy)[0]).toMatch(/^Stack it under 5\d\d px$/);
    });

    it('between two pictures that float on both sides of it', () => {
      const [finding] = squeezedOn(beside('left', 'one', 40), beside('right', 'two', 40), paragraph('Words'));
      expect(finding && sayFinding(finding).sentence).toMatch(/^Only \d+ letters fit between .* and .*\.$/);
      expect(finding?.viewports).toContain(1280);
      expect(finding?.remedies.map(sayRemedy)).toEqual(['Put both on the same side', 'Put it in the column']);
    });

    it('not where the second begins under the first, stands on the same side, or follows a heading', () => {
      for (const between of [[paragraph('Reeds and water. '.repeat(200))], [heading('Reeds')]])
        expect(squeezedOn(beside('left', 'one', 40), ...between, beside('right', 'two', 40))).toEqual([]);
      expect(squeezedOn(beside('left', 'one', 40), beside('left', 'two', 40), paragraph('Words'))).toEqual(
        [],
      );
    });
  });

  it('reads a page of 300 placements', () => {
    const many = examplePage(
      ...Array.from({ length: 300 }, (_, at) => figure(examplePlacement('column', { id: `p${at}` }))),
    );
    expect(codes({ page: many }).filter((code) => code === 'same-piece-twice')).toHaveLength(299);
  });
});
