import * as v from 'valibot';
import { AnyBlockSchema, type Block } from '#core/page/blocks/block.ts';
import type { Margins, Placement, Position } from '#core/page/blocks/placement/schema.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { type Inline, plainText } from '#core/page/inline.ts';
import { articleOf } from '#core/page/lead.ts';
import type { PageDoc, Want } from '#core/page/model.ts';
import { placementsOf } from '#core/page/walk.ts';

/** A page of the demo; pieces are named by their key in `pieces.ts`. */
export interface DemoPage {
  readonly target: 'reserve' | 'bulletin';
  readonly title: string;
  /** Days from the day the demo was made until it is due, or null. */
  readonly dueInDays: number | null;
  readonly tray: readonly string[];
  readonly wants: readonly Omit<Want, 'id'>[];
  /** Where it stands on its site, where that is known. */
  readonly address?: string;
  /** The piece that leads the article, where one does; it is the first use of it there. */
  readonly lead?: string;
  readonly blocks: readonly DemoBlock[];
}

type Unplaced<B> = B extends Block ? Omit<B, 'attrs'> & { readonly attrs: Omit<B['attrs'], 'id'> } : never;

/** What holds others, whose blocks get their IDs and pieces as those of the page do. */
type Holder = Extract<
  Block,
  {
    readonly type:
      | 'cards'
      | 'card'
      | 'columns'
      | 'column'
      | 'gallery'
      | 'beforeAfter'
      | 'banner'
      | 'bannerWords'
      | 'teaser';
  }
>;

/** Blocks get their IDs by where they stand, so that a demo is always the same. */
type DemoBlock =
  | Unplaced<Exclude<Block, Holder | { readonly type: 'placement' }>>
  | {
      readonly type: Holder['type'];
      readonly attrs: Readonly<Record<string, unknown>>;
      readonly content: readonly DemoBlock[];
    }
  | {
      readonly type: 'piece';
      readonly key: string;
      readonly position: Position;
      readonly change?: Partial<Placement>;
    };

const text = (words: string): Inline[] => [{ type: 'text', text: words }];
const p = (words: string): DemoBlock => ({ type: 'paragraph', attrs: {}, content: text(words) });
const h = (words: string, level: 2 | 3 | 4 = 2): DemoBlock => ({
  type: 'heading',
  attrs: { level },
  content: text(words),
});
const list = (...items: string[]): DemoBlock => ({
  type: 'bulletList',
  attrs: {},
  content: items.map((item) => ({ type: 'listItem', content: [{ type: 'paragraph', content: text(item) }] })),
});
/** A table whose first row and first column are headings. */
const table = (caption: string, ...rows: readonly (readonly string[])[]): DemoBlock => ({
  type: 'table',
  attrs: { caption },
  content: rows.map((cells, row) => ({
    type: 'tableRow',
    content: cells.map((words, column) => ({
      type: row === 0 || column === 0 ? 'tableHeader' : 'tableCell',
      content: [{ type: 'paragraph', content: text(words) }],
    })),
  })),
});
const piece = (key: string, position: Position, change: Partial<Placement> = {}): DemoBlock => ({
  type: 'piece',
  key,
  position,
  change,
});
const card = (key: string, heading: string, words: string, link = ''): DemoBlock => ({
  type: 'card',
  attrs: { link },
  content: [piece(key, 'column', { ratio: { across: 4, down: 3 }, caption: '' }), h(heading, 3), p(words)],
});
const want = (purpose: string, shape: Want['shape'], leastWidth: number, filledBy: string | null = null) => ({
  purpose,
  shape,
  leastWidth,
  filledBy,
});

const TIGHT: Margins = { top: 4, right: 22, bottom: 12, left: 0 };

export const DEMO_PAGES: readonly DemoPage[] = [
  {
    target: 'reserve',
    title: 'Bitterns are booming again',
    dueInDays: 0,
    tray: ['heron', 'boardwalk', 'dusk-comp', 'bittern', 'reed-bed'],
    wants: [
      want('Lead of the page', 'landscape', 1600, 'dusk-comp'),
      want('The bird itself', 'any', 800, 'bittern'),
      want('Portrait of the warden', 'portrait', 800),
    ],
    blocks: [
      h('Eleven males this spring, the most since 1987'),
      p(
        'You hear them long before you see one: a note like breath across the neck of a bottle, carried two miles over the reed.',
      ),
      piece('heron', 'beside-left', { ratio: { across: 3, down: 2 }, margins: TIGHT }),
      p(
        'The count runs from the first week of March to the middle of May. Volunteers sit out before dawn at five fixed points, and write down the bearing of every call.',
      ),
      p(
        'Three bearings make a bird. Last year that came to seven; this year the lines crossed eleven times, twice in the old cut that was flooded again in October.',
      ),
      p(
        'The next walk along the boardwalk leaves at six on Saturday. Bring a flask, and something to sit on: the planks are wet until the sun is over the sluice.',
      ),
      piece('dusk-comp', 'bleed', { ratio: { across: 3, down: 1 } }),
      h('Where to listen'),
      list(
        'From the boardwalk, an hour before sunrise',
        'From Hide No. 3, on still evenings',
        'Nowhere at all in a west wind',
      ),
      piece('boardwalk', 'column', { ratio: { across: 3, down: 2 }, alt: { kind: 'unsaid' } }),
      p(
        'Dogs stay at home until July, please. A bird that is flushed twice in a morning leaves its nest for good.',
      ),
    ],
  },
  {
    target: 'reserve',
    title: 'The boardwalk reopens',
    address: '/visit/boardwalk',
    dueInDays: 4,
    tray: [
      'boardwalk',
      'boardwalk-old',
      'rest-39',
      'boardwalk-dusk',
      'rest-36',
      'rest-29',
      'rest-28',
      'rest-31',
      'rest-37',
      'channel',
    ],
    wants: [
      want('Lead of the page', 'landscape', 1600, 'boardwalk'),
      want('Before the works', 'landscape', 800, 'boardwalk-old'),
    ],
    lead: 'boardwalk',
    blocks: [
      {
        type: 'teaser',
        attrs: {
          title: '',
          words: 'Four hundred metres of new planks, and room for two wheelchairs to pass.',
        },
        content: [piece('boardwalk', 'column', { ratio: { across: 3, down: 2 }, caption: '' })],
      },
      p(
        'After two winters of work the boardwalk is open from end to end: four hundred metres of new planks, a rail on the weather side, and room for two wheelchairs to pass.',
      ),
      piece('boardwalk', 'breakout', { ratio: { across: 16, down: 9 }, click: { kind: 'larger' } }),
      h('Before and after'),
      {
        type: 'beforeAfter',
        attrs: { divider: 50 },
        content: [
          piece('boardwalk-old', 'column', {
            caption: 'November 2024: the middle stretch had sunk by a hand.',
          }),
          piece('rest-39', 'column', { caption: 'November 2026, on a morning like that one.' }),
        ],
      },
      p(
        'The old planks were larch, laid in 1994. They lasted longer than anyone hoped, and then they all went in the same year.',
      ),
      p(
        'The new ones are oak from the estate. They will be slippery for a season, until the weather has roughened them.',
      ),
      h('The first evening'),
      piece('boardwalk-dusk', 'centred', { width: { unit: 'px', value: 520 } }),
      p(
        'Forty people came to walk it on the first evening, and most of them came back the same way in the dark.',
      ),
      piece('rest-36', 'beside-right', { width: { unit: '%', value: 40 } }),
      p(
        'By the next morning the first gulls had found the rail. Whoever comes early has the planks to themselves as far as Hide 3, and the reed bunting with them.',
      ),
      h('The first week'),
      {
        type: 'gallery',
        attrs: { perRow: 3, gap: 8, caption: 'Five of the two hundred pictures that you sent us.' },
        content: ['rest-29', 'rest-28', 'rest-31', 'rest-37', 'channel'].map((key) =>
          piece(key, 'column', { click: { kind: 'larger' }, caption: '' }),
        ),
      },
    ],
  },
  {
    target: 'reserve',
    title: 'Reed-cutting days',
    address: '/events/reed-cutting',
    dueInDays: 9,
    tray: ['reed-bed', 'cutters', 'cutters-break', 'rest-21', 'rest-20', 'tiny', 'join-form'],
    wants: [
      want('Three cards, all the same shape', 'portrait', 400),
      want('Lead of the page', 'landscape', 1600, 'cutters'),
    ],
    blocks: [
      p(
        'Every February we cut a seventh of the reed, so that none of it is older than seven years. It takes thirty people six days.',
      ),
      piece('cutters', 'column'),
      {
        type: 'cards',
        attrs: { perRow: 3, gap: 24 },
        content: [
          card('rest-21', 'Cut and bundle', 'Sharp tools, taught on the spot. From sixteen on.', '/days/cut'),
          card(
            'rest-20',
            'Carry and stack',
            'A dry path, forty metres, as slowly as you like.',
            '/days/carry',
          ),
          card('cutters-break', 'Soup and fire', 'Somebody has to. Ovens from ten, soup at one.'),
        ],
      },
      h('What to bring'),
      list('Boots that can get wet', 'Gloves that can get ruined', 'Lunch, and some for somebody else'),
      piece('reed-bed', 'beside-left', { width: { unit: '%', value: 34 } }),
      p('You will be shown how to cut, how to bundle and how to carry. Nobody is asked to do all three.'),
      p('At noon everybody sits on the planks for an hour. That hour is the reason most people come back.'),
      h('Put your name down'),
      piece('join-form', 'column'),
    ],
  },
  {
    target: 'reserve',
    title: 'How the eel pass works',
    dueInDays: null,
    tray: ['sluice', 'eel-film', 'eel-chart'],
    wants: [
      want('The film of the sluice', 'landscape', 1280, 'eel-film'),
      want('Chart of the count', 'landscape', 1000, 'eel-chart'),
    ],
    blocks: [
      p('Eels cannot jump. What they can do is climb, if there is something wet and rough to climb on.'),
      piece('sluice', 'column', { ratio: { across: 16, down: 9 } }),
      h('A ramp with a brush'),
      p(
        'Beside the gate a ramp rises out of the tail water. It is lined with bristles, and a trickle runs down it day and night. The eels wind upwards between the bristles and drop into the channel above.',
      ),
      piece('eel-film', 'column'),
      h('How many', 3),
      piece('eel-chart', 'centred', { width: { unit: '%', value: 80 } }),
      p('A counter at the top beam writes down each one. June is the month to come and look.'),
    ],
  },
  {
    target: 'reserve',
    title: 'Tides this week',
    address: '/visit/tides',
    dueInDays: 1,
    tray: ['channel', 'tide-map', 'huge', 'water-live'],
    wants: [want('The tide chart', 'landscape', 720, 'water-live')],
    blocks: [
      {
        type: 'banner',
        attrs: { position: 'bleed', place: 'bottom left', ink: '#ffffff', plate: '#172126', link: '' },
        content: [
          piece('huge', 'bleed', { ratio: { across: 3, down: 1 } }),
          {
            type: 'bannerWords',
            attrs: {},
            content: [
              h('Springs on Thursday'),
              p('The boardwalk is under water for an hour either side of the evening high.'),
            ],
          },
        ],
      },
      table(
        'High water at the sluice',
        ['Day', 'Morning', 'Evening', 'Metres', 'Boardwalk'],
        ['Tuesday', '06:12', '18:31', '4.1', 'dry'],
        ['Wednesday', '07:01', '19:20', '4.4', 'dry'],
        ['Thursday', '07:49', '20:08', '4.8', 'under water, 19:38 to 20:38'],
        ['Friday', '08:36', '20:55', '4.7', 'under water, 20:30 to 21:20'],
        ['Saturday', '09:24', '21:43', '4.3', 'dry'],
      ),
      h('Where it floods'),
      piece('tide-map', 'column', { click: { kind: 'larger' } }),
      p('Hides 1 and 2 stay dry. The path to Hide 4 does not.'),
      piece('water-live', 'column'),
      piece('channel', 'beside-left', { width: { unit: 'px', value: 300 } }),
      p('Slack water is the time for the ferry steps, and for the swans, who know it as well as we do.'),
    ],
  },
  {
    target: 'reserve',
    title: 'Marsh 1931',
    dueInDays: null,
    tray: ['plate-channel', 'plate-cutters'],
    wants: [],
    blocks: [
      p(
        'Two glass plates turned up in the sluice house in a box of brass fittings. They were made in the last winter before the sluice.',
      ),
      piece('plate-channel', 'breakout'),
      p('The channel is twice as wide as today, and runs where the car park is.'),
      piece('plate-cutters', 'column'),
      h('Who they were', 4),
      p('Nobody is named on the plates. If you know a face, tell us.'),
    ],
  },
  {
    target: 'bulletin',
    title: 'From the warden, November',
    dueInDays: 7,
    tray: ['rest-8', 'mark'],
    wants: [want('A hide in winter', 'landscape', 600, 'rest-8')],
    blocks: [
      p('The water is up, the reed is down, and the bearded tits are back on the grit trays by the gate.'),
      piece('rest-8', 'column'),
      p('Hide 2 is shut on Tuesdays while its roof is mended.'),
    ],
  },
];

/** The page's document once its pieces have ids. */
export function pageDoc(page: DemoPage, idOf: (key: string) => string): PageDoc {
  const blocks = page.blocks.map((block, at) => blockOf(block, String(at + 1), idOf));
  const lead = placementsOf(articleOf({ blocks })).find(
    ({ asset }) => page.lead !== undefined && asset === idOf(page.lead),
  );
  return {
    title: page.title,
    ...(lead ? { lead: lead.id } : {}),
    ...(page.address === undefined ? {} : { address: page.address }),
    tray: page.tray.map(idOf),
    wants: page.wants.map((one, at) => ({
      ...one,
      id: `want-${at + 1}`,
      filledBy: one.filledBy === null ? null : idOf(one.filledBy),
    })),
    blocks,
  };
}

/** A block with the IDs of its place on the page, at any depth. */
function blockOf(block: DemoBlock, place: string, idOf: (key: string) => string): Block {
  if (block.type === 'piece')
    return {
      type: 'placement',
      attrs: { ...newPlacement(`placed-${place}`, idOf(block.key), block.position), ...block.change },
    };
  const content = isHolder(block)
    ? { content: block.content.map((inner, at) => blockOf(inner, `${place}-${at + 1}`, idOf)) }
    : {};
  return v.parse(AnyBlockSchema, { ...block, ...content, attrs: { ...block.attrs, id: `block-${place}` } });
}

const HOLDERS: ReadonlySet<string> = new Set([
  'cards',
  'card',
  'columns',
  'column',
  'gallery',
  'beforeAfter',
  'banner',
  'bannerWords',
  'teaser',
]);

function isHolder(block: DemoBlock): block is Extract<DemoBlock, { readonly type: Holder['type'] }> {
  return HOLDERS.has(block.type);
}

/** A state that a page was in before, under the name that it was kept by. */
interface DemoVersion {
  readonly of: string;
  readonly name: string;
  readonly daysBefore: number;
  readonly change: (block: Block) => Block | null;
}

const says = (block: Block, begins: string) =>
  block.type === 'paragraph' && plainText(block.content).startsWith(begins);

export const DEMO_VERSIONS: readonly DemoVersion[] = [
  {
    of: 'The boardwalk reopens',
    name: 'Before the second walk',
    daysBefore: 2,
    change: (block) => {
      if (says(block, 'By the next morning')) return null;
      if (block.type === 'gallery') return { ...block, attrs: { ...block.attrs, perRow: 2 } };
      if (block.type !== 'paragraph' || !says(block, 'After two winters')) return block;
      const words =
        'After two winters of work the boardwalk is open as far as Hide 3: three hundred metres of new planks, and a rail on the weather side.';
      return { ...block, content: text(words) };
    },
  },
];
