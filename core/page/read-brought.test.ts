import { describe, expect, it } from 'vitest';
import { plainText } from './inline.ts';
import { sayWhatWasLost } from './left-out.ts';
import { readBrought } from './read-brought.ts';
import { htmlTree } from './testing.ts';

let ids = 0;
const read = (html: string, css = '') => readBrought(htmlTree(html), css, () => `b${++ids}`);
/** The kinds of what was read, headings with their levels, lists with how many entries they have. */
const kinds = (html: string, css = '') =>
  read(html, css).parts.map((part) => {
    if (part.kind !== 'block') return part.kind;
    const { block } = part;
    if (block.type === 'heading') return `h${block.attrs.level} ${plainText(block.content ?? [])}`;
    if (block.type === 'bulletList' || block.type === 'orderedList')
      return `${block.type === 'bulletList' ? 'ul' : 'ol'} ${block.content.length}`;
    return block.type;
  });
const lost = (html: string, css = '') =>
  read(html, css).leftOut.map((one) => `${one.words}: ${sayWhatWasLost(one)}`);
const TEXT = '<p>The reserve cuts its reed in January, when the water is low.</p>';

describe('text of another program', () => {
  it.each<readonly [what: string, html: string, read: readonly string[]]>([
    [
      'bold lines larger than the text as headings, the largest first',
      `<p><b style="font-size:30px">A</b></p>${TEXT}<p><b style="font-size:20px">B</b></p>${TEXT}<p style="font-size:30px;font-weight:700">C</p>${TEXT}`,
      ['h2 A', 'paragraph', 'h3 B', 'paragraph', 'h2 C', 'paragraph'],
    ],
    ['a line much larger, though not bold', `<p style="font-size:24px">A</p>${TEXT}`, ['h2 A', 'paragraph']],
    ['no heading of a bold line as large as the text', `<p><b>A</b></p>${TEXT}`, ['paragraph', 'paragraph']],
    ['no heading over nothing', `${TEXT}<p style="font-size:30px"><b>A</b></p>`, ['paragraph', 'paragraph']],
    [
      'no heading of a sentence',
      `<p style="font-size:30px"><b>It is closed.</b></p>${TEXT}`,
      ['paragraph', 'paragraph'],
    ],
    [
      'no heading of a line that is only partly larger',
      `<p><b style="font-size:30px">A</b> reed</p>${TEXT}`,
      ['paragraph', 'paragraph'],
    ],
    [
      'no heading where all is bold and large',
      '<p style="font-size:30px"><b>A</b></p><p style="font-size:30px"><b>B</b></p>',
      ['paragraph', 'paragraph'],
    ],
    ['typed bullets as a list', '<p>- a</p><p>- b</p><div>• c</div>', ['ul 3']],
    ['typed numbers as one', '<p>4. a</p><p>5) b</p>', ['ol 2']],
    ['typed bullets in broken lines as a list', '<p>Bring:<br>- a<br>- b<br>- c</p>', ['paragraph', 'ul 3']],
    [
      'typed numbers in broken lines of a cell that only lays out',
      '<table><tr><td>1. a<br>2. b<br>Then c<br>or d</td></tr></table>',
      ['ol 2', 'paragraph'],
    ],
    ['lines with words set in them', '<div>• a <b>b</b><br>• <i>c</i><br>d</div>', ['ul 2', 'paragraph']],
    ['one typed line among broken ones as it is', '<p>a<br>- b<br>c</p>', ['paragraph']],
    ['one typed line as it is', '<p>- a</p><p>b</p>', ['paragraph', 'paragraph']],
    [
      'no list of lines that hold more',
      '<div>- a<p>b</p></div><div>- c<p>d</p></div>',
      ['paragraph', 'paragraph', 'paragraph', 'paragraph'],
    ],
    ['a bold first row as headers', '<table><tr><td><b>a</b><td><b>b</b><tr><td>c<td>d</table>', ['table']],
    ['two broken lines as the end of a paragraph', '<div>a<br> <br>b<br>c</div>', ['paragraph', 'paragraph']],
    ['code with its lines', '<pre>a<br><br>b</pre>', ['codeBlock']],
  ])('gives %s', (_what, html, blocks) => {
    expect(kinds(html)).toEqual(blocks);
  });

  it('has the headers of a table without the letters that drew them', () => {
    const { parts } = read('<table><tr><td><b>a</b><td style="font-weight:bold">b<tr><td>c<td>d</table>');
    expect(parts).toMatchObject([
      {
        block: {
          content: [
            {
              content: [
                { type: 'tableHeader', content: [{ content: [{ type: 'text', text: 'a' }] }] },
                { type: 'tableHeader', content: [{ content: [{ type: 'text', text: 'b' }] }] },
              ],
            },
            { content: [{ type: 'tableCell' }, { type: 'tableCell' }] },
          ],
        },
      },
    ]);
    expect(JSON.stringify(parts)).not.toContain('bold');
  });

  it.each<readonly [html: string, lost: readonly string[]]>([
    [`${TEXT}<p>a <span style="color:#C00">red</span> b</p>`, ['red: coloured #c00']],
    [`${TEXT}<p><font face="Fenland, serif" size="5">a</font></p>`, ['a: in Fenland, larger']],
    [`${TEXT}<p style="font-size:8pt">a</p>`, ['a: smaller']],
    [`${TEXT}<p style="font:italic 30px/1.2 'Fenland', serif">a</p>`, ['a: in Fenland, larger']],
    [`${TEXT}<p style="font:menu">a</p><p><span style="font-size:150%">b</span> c</p>`, ['b: larger']],
    [`${TEXT}<p>a <u>b</u> <mark>c</mark></p>`, ['b: underlined', 'c: marked yellow']],
    [`${TEXT}<center>a</center><p align="right">b</p>`, ['a: centred', 'b: set to the right']],
    [`${TEXT}<p style="background:#fff;color:inherit">a</p>`, []],
    [`${TEXT}<h2 style="color:red;font-size:40px">a</h2>`, []],
    [`${TEXT}<p><a href="https://a.example" style="color:red"><u>a</u></a></p>`, []],
    [`${TEXT}<table><tr><th>a<th>b<tr><td>c<td align="right">4</table>`, []],
    // Words that follow each other are one place, and those of the next block another.
    [
      `${TEXT}<p><i style="color:red">a</i><b style="color:red"> b</b></p><p style="color:red">c</p>`,
      ['a b: coloured red', 'c: coloured red'],
    ],
    // What most of it has is how the text looks, and no loss.
    [`<p style="color:red;font-family:Fenland">${'reed '.repeat(30)}</p><p>a</p>`, []],
  ])('lost the style of %s', (html, words) => {
    expect(lost(html)).toEqual(words);
  });

  it('is read by what its style sheets say of classes', () => {
    const css =
      '/* a */ .big, p.x { font-size: 30px } @media print { .big { color: red } } .b{font-weight:bold} .no{display:none}';
    expect(kinds(`<p class="big b">A</p>${TEXT}<p class="no">B</p>`, css)).toEqual(['h2 A', 'paragraph']);
    expect(lost(`${TEXT}<p class="x">a.</p><p class="y">b.</p>`, css)).toEqual(['a.: larger']);
    // What an element says itself counts before what its class says.
    expect(lost(`${TEXT}<p class="x" style="font-size:16px">a.</p>`, css)).toEqual([]);
  });
});
