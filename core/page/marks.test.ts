import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Inline, type Mark, plainText } from './inline.ts';
import { readHtml } from './read-html.ts';
import { examplePage, htmlTree, PLAIN_RULES } from './testing.ts';
import { writeFragment } from './write.ts';
import { writeInlines } from './write-inline.ts';

const CONTEXT = { rules: PLAIN_RULES, pieces: new Map(), addressOf: () => '' };
const written = (content: Inline[]) =>
  writeFragment({ ...examplePage({ type: 'paragraph', attrs: { id: 'p' }, content }), title: '' }, CONTEXT);

function read(html: string): Inline[] {
  const { parts } = readHtml(htmlTree(html), () => 'p');
  return parts.flatMap((part) =>
    part.kind === 'block' && part.block.type === 'paragraph' ? (part.block.content ?? []) : [],
  );
}

const marksIn = (html: string) => read(html).map(({ marks = [] }) => marks);

describe('marks of words', () => {
  const ALL: readonly Mark[] = [
    { type: 'bold' },
    { type: 'italic' },
    { type: 'superscript' },
    { type: 'subscript' },
    { type: 'small' },
    { type: 'code' },
    { type: 'abbreviation', attrs: { title: 'Mean high water & "springs"' } },
    { type: 'language', attrs: { lang: 'de-AT' } },
    { type: 'link', attrs: { href: '/visit/hides' } },
  ];

  it.each(ALL.map((mark) => [mark.type, mark] as const))('%s is read where it was written', (_type, mark) => {
    const content: Inline[] = [{ type: 'text', text: 'MHWS', marks: [mark] }];
    expect(read(written(content))).toEqual(content);
  });

  it('any of them together are written, read, and written so again to the byte', () => {
    const run = fc.record({
      text: fc.constantFrom('a', 'b c', 'd & <e>', 'f'),
      marks: fc.subarray([...ALL]),
    });
    fc.assert(
      fc.property(fc.array(run, { minLength: 1, maxLength: 5 }), (runs) => {
        const html = written(runs.map(({ text, marks }) => ({ type: 'text', text, marks })));
        expect(written(read(html))).toBe(html);
      }),
    );
  });

  it.each([
    ['<kbd>Tab</kbd>', [{ type: 'code' }]],
    ['<span style="vertical-align: super">2</span>', [{ type: 'superscript' }]],
    ['<span style="vertical-align:sub">2</span>', [{ type: 'subscript' }]],
    ['<span style="vertical-align:baseline">2</span>', []],
    ['<abbr>MHWS</abbr>', []],
    ['<abbr title=" ">MHWS</abbr>', []],
    [`<abbr title="${'x'.repeat(201)}">MHWS</abbr>`, []],
    ['<i lang="fr">marais</i>', [{ type: 'italic' }, { type: 'language', attrs: { lang: 'fr' } }]],
    ['<span lang="EN-US">marsh</span>', []],
    ['<p lang="fr">marais</p>', []],
    ['<sup><sup>2</sup></sup>', [{ type: 'superscript' }]],
  ])('%s gives %j', (html, marks) => {
    expect(marksIn(html)).toEqual([marks]);
  });

  it('are within one link, however its letters are set', () => {
    const link = { type: 'link', attrs: { href: '/tides' } } as const;
    const content: Inline[] = [
      { type: 'text', text: 'Tides ', marks: [link] },
      { type: 'text', text: 'this', marks: [{ type: 'bold' }, link] },
      { type: 'text', text: ' week', marks: [link] },
      { type: 'text', text: ', here', marks: [{ type: 'link', attrs: { href: '/here' } }] },
    ];
    expect(written(content)).toContain(
      '<p><a href="/tides">Tides <strong>this</strong> week</a><a href="/here">, here</a></p>',
    );
    const back = read(written(content));
    expect(back).toHaveLength(4);
    expect(written(back)).toBe(written(content));
  });

  it('open a new window where that is said, in the language of the page, and read back', () => {
    const content: Inline[] = [
      { type: 'text', text: 'Tides', marks: [{ type: 'link', attrs: { href: '/tides', newWindow: true } }] },
      { type: 'text', text: ' today' },
    ];
    const html = written(content);
    expect(html).toContain(
      '<a href="/tides" target="_blank" rel="noopener">Tides<span class="link-says"> (opens in a new window)</span></a> today',
    );
    expect(read(html)).toEqual(content);
    const german = { ...CONTEXT, rules: { ...PLAIN_RULES, language: 'de' } };
    expect(writeInlines(content, german)).toContain('(öffnet sich in einem neuen Fenster)');
    // Every link of a mail says so to the browser, and none of them to its reader.
    expect(read('<a href="/tides" target="_blank">Tides</a>')).toEqual([
      { type: 'text', text: 'Tides', marks: [{ type: 'link', attrs: { href: '/tides' } }] },
    ]);
  });

  it('say nothing in plain text', () => {
    expect(plainText([{ type: 'text', text: 'MHWS', marks: [...ALL] }])).toBe('MHWS');
  });
});
