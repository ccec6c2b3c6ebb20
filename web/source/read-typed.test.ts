import fc from 'fast-check';
import { expect, it } from 'vitest';
import { anyPage, PAGE_PIECES, PAGE_RULES } from '#core/page/source/testing.ts';
import { writeSource } from '#core/page/source/write.ts';
import { examplePage, examplePlacement, heading, paragraph, placed } from '#core/page/testing.ts';
import { readTyped } from './read-typed.ts';

const CONTEXT = { rules: PAGE_RULES, pieces: PAGE_PIECES };
const PAGE = examplePage(
  heading('High water', 2, 'head'),
  paragraph('Boots are enough.', 'text'),
  placed(examplePlacement('beside-left', { id: 'here' })),
);
let ids = 0;
const read = (text: string, page = PAGE) => readTyped(text, { page, ...CONTEXT }, () => `read-${++ids}`);
const SOURCE = writeSource(PAGE, CONTEXT).text;

/** What would be lost, as it was typed, each with why. */
function lost(text: string): readonly string[] {
  const reading = read(text);
  if (reading.kind === 'refused') return [reading.why];
  return reading.lost.map(({ from, to, what, why }) => `${text.slice(from, to)} | ${what}: ${why}`);
}

it('nothing of a page that was not touched would be lost, whatever stands on it', () => {
  fc.assert(
    fc.property(anyPage, (page) => {
      const reading = read(writeSource(page, CONTEXT).text, page);
      expect(reading).toEqual({ kind: 'read', page, lost: [], struck: [] });
    }),
    { numRuns: 100 },
  );
});

it.each([
  [
    '<p style="color:#c00" onclick="x()">a</p>',
    [
      'style="color:#c00" | style: colour and size belong to the site’s style sheet',
      'onclick="x()" | onclick: a program is never kept',
    ],
  ],
  [
    '<marquee>Mind the step</marquee>',
    ['<marquee | <marquee>: text that moves cannot be read by all; its words stay'],
  ],
  [
    '<p>a</p><script>alert(1)</script>',
    [
      '<script | <script>: a program is never kept',
      'alert(1) | alert(1): nothing on a page can hold these words',
    ],
  ],
  ['<h1>a</h1>', ['<h1 | <h1>: it is written as <h2>']],
  ['<!-- note --><p>a</p>', ['<!-- note --> | a remark: remarks are for whoever writes, and do not go out']],
  ['<p>a <b>b</b> <i>c</i></p>', []],
  ["<p><a target='_blank' href='/b'>b</a></p>", []],
  [
    '<img src="https://tidewatch.example/a.jpg" alt="A">',
    [
      '<img | <img>: a picture comes onto the page from the tray',
      'src="https://tidewatch.example/a.jpg" | src: the page has no such setting there',
      'alt="A" | alt: the page has no such setting there',
    ],
  ],
  [
    '<form><input name="a"></form>',
    [
      '<form | <form>: a form comes onto the page as an embed',
      '<input | <input>: a form comes onto the page as an embed',
      'name="a" | name: the page has no such setting there',
    ],
  ],
  ['<p>open', []],
  ['<xmp><b>a</b></xmp>', ['<xmp | <xmp>: it is written as <p>']],
  [
    '<svg><circle r="4"/></svg><p>a</p>',
    [
      '<svg | <svg>: a drawing comes onto the page as a piece',
      '<circle | <circle>: no part of a page is written so; its words stay',
      'r="4" | r: the page has no such setting there',
    ],
  ],
])('says of %s what would be lost', (text, all) => {
  expect(lost(text)).toEqual(all);
});

it('what follows from what was typed is no loss', () => {
  const aside = SOURCE.replace('placed beside-left', 'placed column');
  expect(aside).not.toBe(SOURCE);
  expect(lost(aside)).toEqual([]);
  expect(lost(SOURCE.replace('--w:46%', '--w:9000px'))).toEqual([
    expect.stringContaining('style: Placard has another value there'),
  ]);
});

it('shows it where it stands, and reads the rest', () => {
  const text = SOURCE.replace('Boots', '<font color="red">Boots</font>');
  const reading = read(text);
  if (reading.kind === 'refused') throw new Error(reading.why);
  expect(reading.struck.map(({ from, to }) => text.slice(from, to))).toEqual([
    '<font',
    'color="red"',
    '</font>',
  ]);
  expect(reading.page).toEqual(PAGE);
});

it.each([
  ['nested too deep', '<div>'.repeat(100_000)],
  ['too long', 'a'.repeat(5_000_000)],
])('what is %s is refused at once, and said', (_what, text) => {
  expect(read(text).kind).toBe('refused');
});

it('much that cannot be kept is refused', () => {
  expect(read('<font color="red">a</font> '.repeat(3000)).kind).toBe('refused');
});
