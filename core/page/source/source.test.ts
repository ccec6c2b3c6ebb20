import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Block } from '../blocks/block.ts';
import type { Placement } from '../blocks/placement/schema.ts';
import type { PageDoc } from '../model.ts';
import { blank, examplePage, examplePlacement, heading, htmlTree, paragraph, placed } from '../testing.ts';
import { placementsOf } from '../walk.ts';
import { writeFragment, writeTeaser } from '../write.ts';
import { readAnew, readSource } from './read.ts';
import { anyPage, PAGE_PIECES, PAGE_RULES } from './testing.ts';
import { writeSource } from './write.ts';

const context = { rules: PAGE_RULES, pieces: PAGE_PIECES };
const counted = () => {
  let ids = 0;
  return () => `read-${++ids}`;
};
const sourceOf = (page: PageDoc) => writeSource(page, context).text;
const readBack = (page: PageDoc, text = sourceOf(page)) =>
  readSource(htmlTree(text), page, context, counted());
const out = (page: PageDoc) => {
  const written = { ...context, addressOf: ({ fileName }: { fileName: string }) => `files/${fileName}` };
  return writeFragment(page, written) + writeTeaser(page, written, 'page.html');
};

/** `npm run roundtrip` asks for 10,000. */
const RUNS = Number(process.env.ROUND_TRIPS ?? 300);

/** A page with a heading, text, a blank line, and a piece beside the text. */
const PAGE = examplePage(
  heading('High water', 2, 'head'),
  paragraph('Boots are enough.', 'text'),
  blank('line'),
  placed(
    examplePlacement('beside-left', { id: 'here', width: { unit: '%', value: 42 }, caption: 'Slack water.' }),
  ),
  paragraph('The gate is closed.', 'gate'),
);
/** What the page is after something in its source was typed over. */
const typed = (from: string | RegExp, to: string, page: PageDoc = PAGE) => {
  const text = sourceOf(page);
  expect(text).toMatch(from);
  return readBack(page, text.replace(from, to)).page;
};
const placementIn = (page: PageDoc) => placementsOf(page)[0];

describe('source in which something was typed', () => {
  it('shows what is said and where, and signs for what Placard writes', () => {
    expect(sourceOf(PAGE)).toBe(`<h2>High water</h2>
<p>Boots are enough.</p>
<figure class="placed beside-left" style="--w:42%;--t:4px;--r:22px;--b:12px;--l:0px">
<img alt="A heron stands in the reeds." data-placement="here">
<figcaption>Slack water. <span class="credit"></span></figcaption>
</figure>
<p>The gate is closed.</p>
`);
  });

  it('knows where each block begins, and those in it', () => {
    const page = examplePage(PAGE.blocks[0] as Block, {
      type: 'cards',
      attrs: { id: 'cards', perRow: 3, gap: 8 },
      content: [{ type: 'card', attrs: { id: 'card', link: '' }, content: [paragraph('Soup', 'soup')] }],
    });
    const { text, marks } = writeSource(page, context);
    expect(marks.map(({ id, from }) => [id, text.slice(from, from + 8)])).toEqual([
      ['head', '<h2>High'],
      ['cards', '<ul clas'],
      ['card', '<li clas'],
      ['soup', '<p>Soup<'],
    ]);
  });

  it('keeps the blocks that say what they said, and the ID of the one that does not', () => {
    const { blocks } = typed('are enough', 'are <em>not</em> enough');
    expect(blocks.map(({ attrs }) => attrs.id)).toEqual(PAGE.blocks.map(({ attrs }) => attrs.id));
    expect(blocks.map((block, at) => block === PAGE.blocks[at])).toEqual([true, false, true, true, true]);
  });

  it.each<readonly [what: string, from: string | RegExp, to: string, change: Partial<Placement>]>([
    ['its side', 'beside-left', 'beside-right', { position: 'beside-right' }],
    ['where it stacks', 'beside-left"', 'beside-left stack-500"', { stackBelow: 500 }],
    ['its style', 'beside-left', 'beside-left print', { pictureStyle: 'print' }],
    ['a class that the target does not have', 'beside-left', 'beside-left fancy', {}],
    ['its width', '--w:42%', '--w:300px', { width: { unit: 'px', value: 300 } }],
    ['a width that none has', '--w:42%', '--w:9000px', {}],
    ['its margins', '--r:22px', '--r:30px', { margins: { top: 4, right: 30, bottom: 12, left: 0 } }],
    ['its alt text', 'stands in', 'hides in', { alt: { kind: 'text', text: 'A heron hides in the reeds.' } }],
    ['that it is decorative', /alt="[^"]*"/, 'alt=""', { alt: { kind: 'decorative' } }],
    ['its caption', 'Slack water.', 'Low &amp; slack.', { caption: 'Low & slack.' }],
    ['that it has no caption', 'Slack water. ', '', { caption: '' }],
    [
      'where it leads',
      /(<img[^>]*>)/,
      '<a href="/tides">$1</a>',
      { click: { kind: 'link', href: '/tides' } },
    ],
    ['that it opens larger', /(<img[^>]*>)/, '<a class="larger">$1</a>', { click: { kind: 'larger' } }],
    ['a link to a program', /(<img[^>]*>)/, '<a href="javascript:1">$1</a>', {}],
    ['nothing', 'figure', 'figure', {}],
  ])('says of a piece %s', (_what, from, to, change) => {
    expect(placementIn(typed(from, to))).toEqual({ ...placementIn(PAGE), ...change });
  });

  it('takes out what was taken out, and has what was copied once more', () => {
    const figure = /<figure[\s\S]*<\/figure>\n/;
    expect(placementsOf(typed(figure, ''))).toEqual([]);
    const twice = placementsOf(typed(figure, '$&$&'));
    expect(twice.map(({ asset, caption }) => [asset, caption])).toEqual([
      ['heron', 'Slack water.'],
      ['heron', 'Slack water.'],
    ]);
    expect(new Set(twice.map(({ id }) => id)).size).toBe(2);
  });

  it('moves what was moved, with its ID, and makes an arrangement of what was put in one', () => {
    const moved = typed(/(<p>Boots.*\n)(<figure[\s\S]*<\/figure>\n)/, '$2$1');
    expect(placementIn(moved)).toEqual(placementIn(PAGE));
    expect(moved.blocks.map(({ attrs }) => attrs.id)).toContain('text');
    const boxed = typed(/(<figure[\s\S]*<\/figure>)/, '<aside class="box column">$1</aside>');
    expect(boxed.blocks.map(({ type }) => type)).toContain('sideBox');
    expect(placementsOf(boxed)[0]?.id).toBe('here');
  });

  it('has pictures and frames that are no pieces of the page among the others, and programs among what is left out', () => {
    const read = readBack(
      PAGE,
      `${sourceOf(PAGE)}<img src="https://tidewatch.example/a.jpg"><iframe src="https://films.example/1"></iframe><script>1</script>`,
    );
    expect(read.others.map(({ kind }) => kind)).toEqual(['picture', 'embed']);
    expect(read.leftOut.map(({ code }) => code)).toEqual(['program']);
    expect(read.page).toEqual(PAGE);
  });

  it('opens links in a new window where it says so', () => {
    const { blocks } = typed('Boots', '<a href="/boots" target="_blank">Boots</a>');
    expect(JSON.stringify(blocks[1])).toContain('"newWindow":true');
  });
});

describe('a page as source', () => {
  it('is read back as the very page that it was written from, whatever stands on it', () => {
    fc.assert(
      fc.property(anyPage, (page) => {
        const read = readBack(page);
        expect(read.page).toEqual(page);
        expect(read.leftOut).toEqual([]);
        expect(read.others).toEqual([]);
      }),
      { numRuns: RUNS },
    );
  }, 3_600_000);

  it('is written so again to the byte when all of it is read anew, and the page goes out as before', () => {
    fc.assert(
      fc.property(anyPage, (page) => {
        const text = sourceOf(page);
        const { parts } = readAnew(htmlTree(text), page, context, counted());
        const blocks = parts.flatMap((part) => (part.kind === 'block' ? [part.block] : []));
        const anew = { ...page, blocks };
        expect(sourceOf(anew)).toBe(text);
        expect(out(anew)).toBe(out(page));
      }),
      { numRuns: RUNS },
    );
  }, 3_600_000);
});
