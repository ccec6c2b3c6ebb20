import fc from 'fast-check';
import { OVER_PLACES } from '../../media/over-words.ts';
import { BANNER_POSITIONS } from '../blocks/banner/schema.ts';
import type { Block } from '../blocks/block.ts';
import type { FlowBlock } from '../blocks/flow-block.ts';
import { isInPart } from '../blocks/kept-part/schema.ts';
import { newPlacement, type PlacedBlock, POSITIONS } from '../blocks/placement/schema.ts';
import type { Inline, Mark } from '../inline.ts';
import type { PageDoc } from '../model.ts';
import type { HouseRules } from '../target.ts';
import { examplePiece, PLAIN_RULES } from '../testing.ts';

/** The pieces that any page may hold: one with words of its own, one without, one that is gone. */
export const PAGE_PIECES = new Map([
  ['heron', examplePiece({ id: 'heron' })],
  [
    'reed',
    examplePiece({
      id: 'reed',
      stem: 'reed',
      size: { width: 1200, height: 1800 },
      label: { alt: { kind: 'unsaid' }, caption: 'Reeds & <sedge>', creator: '', licence: 'cc-by-4.0' },
    }),
  ],
]);
/** The rules that any page may stand under: those of the examples, with a picture style. */
export const PAGE_RULES: HouseRules = {
  ...PLAIN_RULES,
  pictureStyles: [
    {
      className: 'print',
      name: 'Old print',
      line: { width: 6, colour: '#fdfbf5' },
      corners: 2,
      shadow: 'soft',
      tone: 'warm',
    },
  ],
};
const ASSETS = [...PAGE_PIECES.keys(), 'gone'];

const words = fc.constantFrom(
  'reed',
  'a  b',
  ' cut ',
  'd & <e>',
  '“quoted” "x"',
  'Anguilla',
  '1.',
  '\u00a0',
  'é',
);
const line = fc
  .array(words, { minLength: 1, maxLength: 4 })
  .map((some) => some.join(' ').replace(/\s+/g, ' ').trim() || 'x');
const href = fc.constantFrom(
  'https://tidewatch.example/a?b=1&c=2',
  '/walks',
  '#eels',
  'page:other',
  'file:leaflet',
  'mailto:ines@saltmere.example',
  'tel:+441632960001',
);

const mark: fc.Arbitrary<Mark> = fc.oneof(
  fc.constantFrom<Mark>(
    { type: 'bold' },
    { type: 'italic' },
    { type: 'superscript' },
    { type: 'subscript' },
    { type: 'small' },
    { type: 'code' },
  ),
  fc.constantFrom<Mark>(
    { type: 'abbreviation', attrs: { title: 'Site & co' } },
    { type: 'language', attrs: { lang: 'fy' } },
  ),
  href.map((to): Mark => ({ type: 'link', attrs: { href: to } })),
  href.map((to): Mark => ({ type: 'link', attrs: { href: to, newWindow: true } })),
);
const marks = fc.uniqueArray(mark, { maxLength: 3, selector: ({ type }) => type });
const inline: fc.Arbitrary<Inline> = fc.oneof(
  {
    weight: 8,
    arbitrary: fc.record({ text: words, marks }).map(
      ({ text, marks: some }): Inline => ({
        type: 'text',
        text,
        ...(some.length > 0 ? { marks: some } : {}),
      }),
    ),
  },
  { weight: 1, arbitrary: fc.constant<Inline>({ type: 'hardBreak' }) },
);
const inlines = fc.array(inline, { maxLength: 6 });

/** Each block has an ID of its own in the end: whatever it is here. */
const id = fc.constant('any');

const paragraph = fc
  .record({ content: inlines, id })
  .map(({ content, id: own }) => ({ type: 'paragraph' as const, attrs: { id: own }, content }));
const heading = fc
  .record({
    content: inlines,
    id,
    level: fc.constantFrom(2 as const, 3 as const, 4 as const),
    anchor: fc.option(fc.constantFrom('eels', 'how-to-get-there'), { nil: undefined }),
  })
  .map(({ content, id: own, level, anchor }) => ({
    type: 'heading' as const,
    attrs: { id: own, level, ...(anchor === undefined ? {} : { anchor }) },
    content,
  }));
const item = fc
  .record({
    content: inlines,
    inner: fc.option(fc.array(inlines, { minLength: 1, maxLength: 2 }), { nil: undefined }),
  })
  .map(({ content, inner }) => ({
    type: 'listItem' as const,
    content: [
      { type: 'paragraph' as const, content },
      ...(inner
        ? [
            {
              type: 'bulletList' as const,
              content: inner.map((one) => ({
                type: 'listItem' as const,
                content: [{ type: 'paragraph' as const, content: one }],
              })),
            },
          ]
        : []),
    ],
  }));
const items = fc.array(item, { minLength: 1, maxLength: 3 });
const list = fc.oneof(
  fc
    .record({ content: items, id })
    .map(({ content, id: own }): FlowBlock => ({ type: 'bulletList', attrs: { id: own }, content })),
  fc.record({ content: items, id, start: fc.integer({ min: 1, max: 9 }) }).map(
    ({ content, id: own, start }): FlowBlock => ({
      type: 'orderedList',
      attrs: { id: own, ...(start > 1 ? { start } : {}) },
      content,
    }),
  ),
);
const px = fc.integer({ min: 0, max: 200 });
const placement: fc.Arbitrary<PlacedBlock> = fc
  .record({
    asset: fc.constantFrom(...ASSETS),
    position: fc.constantFrom(...POSITIONS),
    width: fc.option(
      fc.oneof(
        fc.record({ unit: fc.constant('px' as const), value: fc.integer({ min: 40, max: 1500 }) }),
        fc.record({ unit: fc.constant('%' as const), value: fc.integer({ min: 5, max: 100 }) }),
      ),
    ),
    margins: fc.option(fc.record({ top: px, right: px, bottom: px, left: px })),
    stackBelow: fc.option(fc.integer({ min: 0, max: 1200 })),
    ratio: fc.option(fc.constantFrom({ across: 3, down: 2 }, { across: 1, down: 1 })),
    pictureStyle: fc.option(fc.constantFrom('print', 'gone')),
    click: fc.oneof(
      fc.constantFrom({ kind: 'nothing' as const }, { kind: 'larger' as const }),
      href.map((to) => ({ kind: 'link' as const, href: to })),
    ),
    alt: fc.option(
      fc.oneof(
        fc.constantFrom({ kind: 'decorative' as const }, { kind: 'unsaid' as const }),
        line.map((text) => ({ kind: 'text' as const, text })),
      ),
    ),
    caption: fc.option(fc.oneof(line, fc.constantFrom('', 'two\nlines'))),
  })
  .map(({ asset, ...change }) => ({
    type: 'placement',
    attrs: { ...newPlacement('any', asset), ...change },
  }));
const cell = fc
  .record({
    type: fc.constantFrom('tableCell' as const, 'tableHeader' as const),
    lines: fc.array(inlines, { minLength: 1, maxLength: 2 }),
  })
  .map(({ type, lines }) => ({
    type,
    content: lines.map((content) => ({ type: 'paragraph' as const, content })),
  }));
const table = fc
  .record({
    id,
    caption: fc.oneof(fc.constant(''), line),
    width: fc.integer({ min: 1, max: 4 }),
    height: fc.integer({ min: 1, max: 4 }),
  })
  .chain(({ id: own, caption, width, height }) =>
    fc
      .array(fc.array(cell, { minLength: width, maxLength: width }), { minLength: height, maxLength: height })
      .map(
        (rows): FlowBlock => ({
          type: 'table',
          attrs: { id: own, caption },
          content: rows.map((content) => ({ type: 'tableRow', content })),
        }),
      ),
  );
const quotation = fc
  .record({
    id,
    attribution: fc.oneof(fc.constant(''), line),
    cite: fc.constantFrom('', 'https://tidewatch.example/a'),
    content: fc.array(fc.oneof(paragraph, list), { minLength: 1, maxLength: 3 }),
  })
  .map(({ content, ...attrs }) => ({ type: 'quotation' as const, attrs, content }) as FlowBlock);
const code = fc
  .constantFrom('level = 4\n  if wet:\n    close()', '\n<reed>\n  & sedge', 'x')
  .map((text): FlowBlock => ({ type: 'codeBlock', attrs: { id: 'any' }, content: [{ type: 'text', text }] }));
const rule = fc.constant<FlowBlock>({ type: 'rule', attrs: { id: 'any' } });
const flow: fc.Arbitrary<FlowBlock> = fc.oneof(
  { weight: 4, arbitrary: paragraph },
  { weight: 2, arbitrary: heading },
  list,
  { weight: 3, arbitrary: placement },
  table,
  quotation,
  code,
  rule,
);
const inside = fc.array(flow, { maxLength: 4 });
const gap = fc.integer({ min: 0, max: 80 });
const placedSome = (most: number) => fc.array(placement, { minLength: 1, maxLength: most });
const onCard = fc.array(fc.oneof(paragraph, heading, placement), { minLength: 1, maxLength: 3 });

const arranged: fc.Arbitrary<Block> = fc.oneof(
  fc
    .record({ summary: fc.oneof(fc.constant(''), line), content: inside })
    .map(({ summary, content }): Block => ({ type: 'details', attrs: { id: 'any', summary }, content })),
  fc
    .record({
      title: fc.oneof(fc.constant(''), line),
      position: fc.constantFrom('beside-left' as const, 'beside-right' as const, 'column' as const),
      share: fc.integer({ min: 25, max: 60 }),
      content: inside,
    })
    .map(({ content, ...attrs }): Block => ({ type: 'sideBox', attrs: { id: 'any', ...attrs }, content })),
  fc
    .record({
      perRow: fc.constantFrom(2 as const, 3 as const, 4 as const),
      gap,
      cards: fc.array(fc.record({ link: fc.oneof(fc.constant(''), href), content: onCard }), {
        minLength: 1,
        maxLength: 4,
      }),
    })
    .map(
      ({ cards, ...attrs }): Block => ({
        type: 'cards',
        attrs: { id: 'any', ...attrs },
        content: cards.map(({ link, content }) => ({ type: 'card', attrs: { id: 'any', link }, content })),
      }),
    ),
  fc
    .record({
      gap,
      columns: fc.array(
        fc.record({ share: fc.integer({ min: 15, max: 85 }), leads: fc.boolean(), content: inside }),
        { minLength: 2, maxLength: 4 },
      ),
    })
    .map(
      ({ gap: between, columns }): Block => ({
        type: 'columns',
        attrs: { id: 'any', gap: between },
        content: columns.map(({ content, ...attrs }) => ({
          type: 'column',
          attrs: { id: 'any', ...attrs },
          content,
        })),
      }),
    ),
  fc
    .record({
      perRow: fc.constantFrom(2 as const, 3 as const, 5 as const),
      gap,
      caption: fc.oneof(fc.constant(''), line),
      content: placedSome(6),
    })
    .map(({ content, ...attrs }): Block => ({ type: 'gallery', attrs: { id: 'any', ...attrs }, content })),
  fc
    .record({ divider: fc.integer({ min: 0, max: 100 }), content: placedSome(3) })
    .map(({ divider, content }): Block => ({ type: 'beforeAfter', attrs: { id: 'any', divider }, content })),
  fc
    .record({
      position: fc.constantFrom(...BANNER_POSITIONS),
      place: fc.constantFrom(...OVER_PLACES),
      ink: fc.constantFrom('#ffffff', '#172126'),
      plate: fc.option(fc.constant('#003366')),
      link: fc.oneof(fc.constant(''), href),
      said: fc.array(fc.oneof(heading, paragraph), { minLength: 1, maxLength: 2 }),
      piece: placement,
    })
    .map(
      ({ said, piece, ...attrs }): Block => ({
        type: 'banner',
        attrs: { id: 'any', ...attrs },
        content: [{ type: 'bannerWords', attrs: { id: 'any' }, content: said }, piece],
      }),
    ),
  fc
    .record({
      title: fc.oneof(fc.constant(''), line),
      words: fc.oneof(fc.constant(''), line),
      content: placedSome(1),
    })
    .map(({ content, ...attrs }): Block => ({ type: 'teaser', attrs: { id: 'any', ...attrs }, content })),
  fc
    .constantFrom(2 as const, 3 as const, 4 as const)
    .map((deepest): Block => ({ type: 'contents', attrs: { id: 'any', deepest } })),
);

const keptPart = fc
  .record({
    part: fc.constantFrom('', 'opening-hours'),
    content: fc.array(fc.oneof(flow, arranged), { minLength: 1, maxLength: 3 }),
  })
  .map(
    ({ part, content }): Block => ({
      type: 'keptPart',
      attrs: { id: 'any', part },
      content: content.filter(isInPart),
    }),
  );

/** Whatever page Placard can make: blocks of every kind, with words and settings of every sort. */
export const anyPage: fc.Arbitrary<PageDoc> = fc
  .array(
    fc.oneof(
      { weight: 8, arbitrary: flow },
      { weight: 4, arbitrary: arranged },
      { weight: 1, arbitrary: keptPart },
    ),
    { minLength: 1, maxLength: 8 },
  )
  .map((blocks) => {
    let count = 0;
    const own = JSON.parse(JSON.stringify(blocks), (name, value) => (name === 'id' ? `b${++count}` : value));
    return { title: 'Bitterns', wants: [], tray: [], blocks: own };
  });
