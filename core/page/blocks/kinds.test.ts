import { parseFragment } from 'parse5';
import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import { proofInput } from '../../proof/input.ts';
import { proofPage } from '../../proof/proof.ts';
import { shownWidth } from '../layout.ts';
import { mergePages } from '../merge.ts';
import { type PageDoc, PageDocSchema } from '../model.ts';
import { readHtml } from '../read-html.ts';
import { withReplaced } from '../replace.ts';
import { columnRoom } from '../room.ts';
import { styleSheet } from '../style-sheet.ts';
import {
  A_DAY,
  examplePage,
  examplePiece,
  examplePlacement,
  heading,
  htmlTree,
  PLAIN_RULES,
  paragraph,
  placed,
} from '../testing.ts';
import {
  countWords,
  placementsOf,
  standingOn,
  standingsOf,
  walkPage,
  withoutBlock,
  withPlacement,
} from '../walk.ts';
import { cutsOfPage, writeFragment, writeTeaser } from '../write.ts';
import type { WriteContext } from '../write-context.ts';
import { USUAL_BANNER } from './banner/schema.ts';
import { AnyBlockSchema, type Block } from './block.ts';
import { kindOf } from './kinds.ts';

type Type = Block['type'];
type Of<T extends Type> = Extract<Block, { readonly type: T }>;

const line = (text: string) => ({ type: 'paragraph' as const, content: [{ type: 'text' as const, text }] });

/** One of each kind that says something. */
const EXAMPLES: { readonly [T in Type]: Of<T> } = {
  paragraph: paragraph('You hear them long before you see one.', 'text'),
  heading: heading('Eleven males', 3, 'head'),
  bulletList: {
    type: 'bulletList',
    attrs: { id: 'list' },
    content: [
      { type: 'listItem', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Boots' }] }] },
    ],
  },
  orderedList: {
    type: 'orderedList',
    attrs: { id: 'steps', start: 3 },
    content: [
      { type: 'listItem', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Left' }] }] },
    ],
  },
  placement: placed(examplePlacement('beside-left', { id: 'heron-here', width: { unit: '%', value: 50 } })),
  quotation: {
    type: 'quotation',
    attrs: { id: 'said', attribution: 'Ines Okonjo, warden', cite: 'https://tidewatch.example/booming' },
    content: [paragraph('It is a note like breath across a bottle.', 'said-words')],
  },
  codeBlock: {
    type: 'codeBlock',
    attrs: { id: 'code' },
    content: [{ type: 'text', text: '\n<reed>\n  & sedge' }],
  },
  rule: { type: 'rule', attrs: { id: 'rule' } },
  table: {
    type: 'table',
    attrs: { id: 'tides', caption: 'High water & low' },
    content: [
      {
        type: 'tableRow',
        content: [
          { type: 'tableHeader', attrs: { rowspan: 2 }, content: [{ type: 'paragraph' }] },
          { type: 'tableHeader', attrs: { colspan: 2 }, content: [line('Tide')] },
        ],
      },
      {
        type: 'tableRow',
        content: [
          { type: 'tableHeader', content: [line('Time')] },
          { type: 'tableHeader', content: [line('Metres')] },
        ],
      },
      {
        type: 'tableRow',
        content: [
          { type: 'tableHeader', content: [line('Monday')] },
          { type: 'tableCell', content: [line('06:12'), line('late')] },
          { type: 'tableCell', content: [{ type: 'paragraph' }] },
        ],
      },
    ],
  },
  details: {
    type: 'details',
    attrs: { id: 'folded', summary: 'What to bring' },
    content: [heading('Boots', 3, 'folded-head'), paragraph('And a flask.', 'folded-words')],
  },
  sideBox: {
    type: 'sideBox',
    attrs: { id: 'box', title: 'Boots & socks', position: 'beside-right', share: 45 },
    content: [paragraph('The dyke is wet.', 'box-words'), { type: 'rule', attrs: { id: 'box-rule' } }],
  },
  cards: {
    type: 'cards',
    attrs: { id: 'cards', perRow: 3, gap: 16 },
    content: [
      {
        type: 'card',
        attrs: { id: 'one', link: '/walks/cut' },
        content: [heading('Cut and bundle', 3, 'one-head'), paragraph('Sharp tools.', 'one-words')],
      },
      { type: 'card', attrs: { id: 'two', link: '' }, content: [paragraph('Carry.', 'two-words')] },
    ],
  },
  card: {
    type: 'card',
    attrs: { id: 'alone', link: '' },
    content: [paragraph('Soup and fire.', 'alone-words')],
  },
  columns: {
    type: 'columns',
    attrs: { id: 'columns', gap: 20 },
    content: [
      {
        type: 'column',
        attrs: { id: 'left', share: 60, leads: false },
        content: [heading('Cut', 3, 'left-head'), paragraph('From sixteen on.', 'left-words')],
      },
      { type: 'column', attrs: { id: 'right', share: 40, leads: true }, content: [] },
    ],
  },
  column: {
    type: 'column',
    attrs: { id: 'lone', share: 50, leads: false },
    content: [paragraph('Soup and fire.', 'lone-words')],
  },
  gallery: {
    type: 'gallery',
    attrs: { id: 'gallery', perRow: 3, gap: 8, caption: 'Two from last year & before' },
    content: [placed(examplePlacement('column', { id: 'one-of-two' }))],
  },
  contents: { type: 'contents', attrs: { id: 'contents', deepest: 3 } },
  beforeAfter: {
    type: 'beforeAfter',
    attrs: { id: 'pair', divider: 40 },
    content: [placed(examplePlacement('column', { id: 'before' }))],
  },
  banner: {
    type: 'banner',
    attrs: { id: 'banner', ...USUAL_BANNER, link: '/walks/cut' },
    content: [
      {
        type: 'bannerWords',
        attrs: { id: 'over' },
        content: [heading('Cut & bundle', 2, 'over-head'), paragraph('Bring boots.', 'over-words')],
      },
      placed(examplePlacement('column', { id: 'ground' })),
    ],
  },
  teaser: {
    type: 'teaser',
    attrs: { id: 'teaser', title: 'Eleven & more', words: 'Boats boom.' },
    content: [placed(examplePlacement('column', { id: 'teased' }))],
  },
  keptPart: {
    type: 'keptPart',
    attrs: { id: 'kept', part: 'opening-hours' },
    content: [
      heading('Opening hours', 3, 'kept-head'),
      {
        type: 'sideBox',
        attrs: { id: 'kept-box', title: 'Today', position: 'column', share: 40 },
        content: [paragraph('From nine to five.', 'kept-words')],
      },
    ],
  },
  bannerWords: {
    type: 'bannerWords',
    attrs: { id: 'lone-words' },
    content: [paragraph('Soup and fire.', 'lone-words-line')],
  },
};
const SILENT: ReadonlySet<Type> = new Set(['placement', 'rule', 'beforeAfter', 'contents', 'teaser']);
const TYPES = Object.values(EXAMPLES);
/** Those that are on a page by what they stand in alone. */
const PARTS: ReadonlySet<Type> = new Set(['card', 'column', 'bannerWords']);
/** Those that are told by their pieces. */
const TOLD: ReadonlySet<Type> = new Set(['placement', 'gallery', 'beforeAfter', 'banner', 'teaser']);
const HOLDERS = TYPES.filter((block) => kindOf(block).inside && !PARTS.has(block.type));

const pieces = new Map([['heron', examplePiece()]]);
const CONTEXT = { rules: PLAIN_RULES, pieces, addressOf: ({ fileName }: { fileName: string }) => fileName };
/** A page as it goes out, with how a listing shows it. */
const written = (page: PageDoc, context: WriteContext) =>
  writeFragment(page, context) + writeTeaser(page, context, '/here');
const html = (...blocks: Block[]) => written({ ...examplePage(...blocks), title: '' }, CONTEXT);

function readBack(text: string): Block[] {
  let ids = 0;
  const { parts } = readHtml(htmlTree(text), () => `read-${++ids}`);
  return parts.flatMap((part) => (part.kind === 'block' ? [part.block] : []));
}

/** A block and all in it, under IDs by their order alone. */
function numbered(block: Block): unknown {
  let count = 0;
  return JSON.parse(JSON.stringify(block), (name, value) => (name === 'id' ? `${++count}` : value));
}

describe.each(TYPES)('a $type', (block) => {
  it('is a block of a page, and fits the schema that pages are stored by', () => {
    expect(v.parse(AnyBlockSchema, JSON.parse(JSON.stringify(block)))).toEqual(block);
  });

  it('is written as one element, which carries its ID in a preview and not in what goes out', () => {
    const marked = written(examplePage(block), { ...CONTEXT, isMarked: true });
    expect(marked.split(` data-block="${block.attrs.id}"`)).toHaveLength(2);
    expect(html(block)).not.toContain('data-block');
    const { childNodes } = parseFragment(kindHtml(block));
    expect(childNodes.filter(({ nodeName }) => nodeName !== '#text')).toHaveLength(1);
  });

  it('is what is read where it was written, and is written so again to the byte', () => {
    if (TOLD.has(block.type) || PARTS.has(block.type)) return;
    const back = readBack(html(block));
    expect(back.map(numbered)).toEqual([numbered(block)]);
    expect(html(...back)).toBe(html(block));
  });

  it('goes out with the style of its classes', () => {
    const page = examplePage(block);
    const style = kindOf(block).style?.(PLAIN_RULES);
    if (style) expect(styleSheet(PLAIN_RULES, page, pieces)).toContain(style);
    if (style) expect(styleSheet(PLAIN_RULES, examplePage(paragraph('x')), pieces)).not.toContain(style);
  });

  it('is found by its ID, counted with its words, and taken out', () => {
    const page = examplePage(paragraph('Before'), block);
    expect([...walkPage(page)].map(({ attrs }) => attrs.id)).toContain(block.attrs.id);
    expect([...walkPage(withoutBlock(page, block.attrs.id))]).toHaveLength(1);
    expect(countWords(page) > 1).toBe(!SILENT.has(block.type));
  });
});

function kindHtml(block: Block): string {
  return html(block)
    .replace('<div class="placard">\n<div class="placard-column">\n', '')
    .replace('</div>\n</div>\n', '');
}

/** A page with a holder in which a piece stands behind what it holds already. */
function pageWith(holder: Block, change: Parameters<typeof examplePlacement>[1] = {}) {
  const piece = placed(examplePlacement('column', { id: 'inner', ...change }));
  const { inside } = kindOf(holder);
  const put: Block =
    holder.type === 'cards'
      ? { type: 'card', attrs: { id: 'inner-card', link: '' }, content: [piece] }
      : holder.type === 'columns'
        ? { type: 'column', attrs: { id: 'inner-column', share: 40, leads: false }, content: [piece] }
        : piece;
  const others = inside?.of(holder).filter(({ type }) => type !== 'placement') ?? [];
  const filled = inside ? inside.with(holder, [...others, put]) : holder;
  return examplePage(paragraph('Before'), filled);
}

describe.each(HOLDERS)('a piece in a $type', (holder) => {
  const page = pageWith(holder);
  const room = standingOn(page, CONTEXT, examplePlacement('column', { id: 'inner' })).room;

  it('is one of the page', () => {
    expect(v.parse(PageDocSchema, page)).toEqual(page);
    expect(placementsOf(page).map(({ id }) => id)).toEqual(['inner']);
    expect(cutsOfPage(page, CONTEXT).length).toBeGreaterThan(0);
    expect(html(...page.blocks)).toContain('<figure class="placed column"');
  });

  it('stands in the room that it is handed, at every window', () => {
    for (const viewport of [320, 390, 768, 1280, 2560]) {
      const column = shownWidth(PLAIN_RULES, examplePlacement('column'), columnRoom(PLAIN_RULES), viewport);
      const shown = shownWidth(PLAIN_RULES, examplePlacement('column'), room, viewport);
      expect(shown).toBeLessThanOrEqual(column);
      expect(shown).toBeGreaterThan(column / 4);
    }
  });

  it('says in its sizes how wide it is there, and does not break out of it', () => {
    const wide = Math.round(shownWidth(PLAIN_RULES, examplePlacement('column'), room, 1280));
    expect(html(...page.blocks)).toContain(`${wide}px"`);
    // A kept part is no room of its own: what stands in it stands in the column.
    const isColumn = holder.type === 'keptPart';
    for (const position of ['breakout', 'bleed'] as const)
      expect(html(...pageWith(holder, { position }).blocks)).toContain(
        `<figure class="placed ${isColumn ? position : 'column'}"`,
      );
  });

  it('is changed, exchanged, merged and found at fault as on the page itself', () => {
    expect(placementsOf(withPlacement(page, 'inner', { caption: 'Here' }))[0]?.caption).toBe('Here');
    expect(placementsOf(withReplaced(page, 'heron', 'bittern'))[0]?.asset).toBe('bittern');
    const theirs = withPlacement(page, 'inner', { caption: 'Theirs' });
    const mine = withPlacement(page, 'inner', { position: 'centred' });
    expect(placementsOf(mergePages(page, mine, theirs).page)[0]).toMatchObject({
      caption: 'Theirs',
      position: 'centred',
    });
    const small = new Map([['heron', examplePiece({ size: { width: 200, height: 100 } })]]);
    expect(proofPage(proofInput(page, PLAIN_RULES, small, A_DAY))).toContainEqual(
      expect.objectContaining({ code: 'enlarged', place: { kind: 'placement', placementId: 'inner' } }),
    );
  });

  it('moved in by one, and out of it by the other, stands once, as they have it', () => {
    const { inside } = kindOf(holder);
    const [before, filled] = page.blocks;
    if (!inside || !before || !filled) return;
    const piece = placed(examplePlacement('column', { id: 'inner' }));
    const outside = { ...page, blocks: [before, piece, inside.with(filled, inside.of(filled).slice(0, -1))] };
    expect(mergePages(outside, page, outside).page).toEqual(page);
    expect(mergePages(page, page, outside).page).toEqual(outside);
    expect(standingsOf(mergePages(outside, page, outside).page, CONTEXT)[0]?.room).toEqual(room);
  });
});
