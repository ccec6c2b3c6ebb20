import { describe, expect, it } from 'vitest';
import type { Block } from './blocks/block.ts';
import type { InnerList, List } from './blocks/list/schema.ts';
import type { Quotation } from './blocks/quotation/schema.ts';
import type { Cell } from './blocks/table/schema.ts';
import type { HtmlNode } from './html-tree.ts';
import type { Inline } from './inline.ts';
import { sayLeftOut } from './left-out.ts';
import { readHtml } from './read-html.ts';
import { htmlTree } from './testing.ts';

const counted = () => {
  let ids = 0;
  return () => `read-${++ids}`;
};
const read = (html: string) => readHtml(htmlTree(html), counted());

const inline = (one: Inline): string => {
  if (one.type === 'hardBreak') return '/';
  return (one.marks ?? []).reduceRight((text, mark) => {
    if (mark.type === 'link') return `[${text}](${mark.attrs.href})`;
    return mark.type === 'bold' ? `*${text}*` : `_${text}_`;
  }, one.text);
};
const line = (content: readonly Inline[] = []) => content.map(inline).join('');
const listed = (list: List | InnerList, depth = 0): string[] =>
  list.content.flatMap(({ content }, at) =>
    content.flatMap((part) =>
      part.type === 'paragraph'
        ? `${'  '.repeat(depth)}${list.type === 'orderedList' ? `${(list.attrs?.start ?? 1) + at}.` : '-'} ${line(part.content)}`
        : listed(part, depth + 1),
    ),
  );

const quoted = ({ attrs, content }: Quotation): string[] => [
  ...content.flatMap(lineOf).map((words) => `> ${words}`),
  ...[attrs.attribution, attrs.cite].filter(Boolean).map((words) => `>> ${words}`),
];

function lineOf(block: Block): string | string[] {
  if (block.type === 'paragraph') return line(block.content);
  if (block.type === 'heading') return `${'#'.repeat(block.attrs.level)} ${line(block.content)}`;
  if (block.type === 'placement') return block.attrs.asset;
  switch (block.type) {
    case 'quotation':
      return quoted(block);
    case 'codeBlock':
      return `{${line(block.content)}}`;
    case 'rule':
      return '---';
    case 'details':
      return [`+ ${block.attrs.summary}`, ...block.content.flatMap(lineOf).map((words) => `| ${words}`)];
    case 'sideBox':
      return [
        `= ${block.attrs.title} (${block.attrs.position} ${block.attrs.share}%)`,
        ...block.content.flatMap(lineOf).map((words) => `| ${words}`),
      ];
    case 'table':
      return [
        ...(block.attrs.caption === '' ? [] : [`# ${block.attrs.caption}`]),
        ...block.content.map(({ content }) => content.map(cellOf).join(' ; ')),
      ];
    case 'cards':
      return [`[] ${block.attrs.perRow} ${block.attrs.gap}`, ...block.content.flatMap(lineOf)];
    case 'card':
      return block.content.flatMap(lineOf).map((words) => `[${block.attrs.link}] ${words}`);
    case 'columns':
      return [
        `|| ${block.attrs.gap}`,
        ...block.content.flatMap(({ attrs, content }) => [
          `${attrs.share}${attrs.leads ? ' first' : ''}`,
          ...content.flatMap(lineOf).map((words) => `| ${words}`),
        ]),
      ];
    case 'column':
    case 'gallery':
    case 'contents':
    case 'beforeAfter':
    case 'banner':
    case 'bannerWords':
    case 'keptPart':
    case 'teaser':
      throw new Error(`A ${block.type} is not read by itself.`);
    default:
      return listed(block);
  }
}

const cellOf = ({ type, attrs: { colspan = 1, rowspan = 1 } = {}, content }: Cell) =>
  [
    type === 'tableHeader' ? '!' : '',
    content.map((one) => line(one.content)).join('/'),
    colspan > 1 ? `>${colspan}` : '',
    rowspan > 1 ? `v${rowspan}` : '',
  ].join('');

/** What was read, a line for each block. */
const said = (html: string) =>
  read(html).parts.flatMap((part) => {
    if (part.kind === 'picture') return `(${part.offered.words})`;
    return part.kind === 'embed' ? part.code : lineOf(part.block);
  });
const A = 'https://tidewatch.example/a.jpg';

it('what is said of a block in one line is cut at a word, and stands whole in it', () => {
  const long = Array.from({ length: 70 }, (_, at) => `word${at}`).join(' ');
  const [summary, ...inside] = said(`<details><summary>${long}</summary><p>a</p></details>`);
  expect(long.startsWith(summary?.slice(2) ?? '-')).toBe(true);
  expect(summary).toMatch(/word\d+$/);
  expect(summary?.length).toBeLessThanOrEqual(302);
  expect(inside).toEqual([`| ${long}`, '| a']);
  expect(said(`<aside><h3>${long}</h3></aside>`)[1]).toBe(`| ${long}`);
  expect(said(`<details><summary>${long}</summary></details>`)).toEqual([long]);
});

it('code is read whole, however long', () => {
  const code = 'reed = 7\n'.repeat(10_000).trim();
  expect(said(`<pre>${code}</pre>`)).toEqual([`{${code}}`]);
});

describe('a tree of HTML', () => {
  it.each<readonly [what: string, html: string, blocks: readonly string[]]>([
    ['paragraphs', '<p>One</p><p>Two</p>', ['One', 'Two']],
    ['text without any', 'One<div>Two</div>Three', ['One', 'Two', 'Three']],
    ['blanks folded', '<p>  One\n\t two <b> three </b> four </p>', ['One two *three *four']],
    ['a line broken', '<p>One<br>two<br></p>', ['One/two']],
    ['nothing empty', '<p></p><p> </p><div><br></div><p>&nbsp;</p>', []],
    [
      'headings within a page',
      '<h1>A</h1><h2>B</h2><h3>C</h3><h6>D</h6>',
      ['## A', '## B', '### C', '#### D'],
    ],
    ['a heading round blocks', '<h2><div>A</div> b</h2>', ['## Ab']],
    ['marks', '<p><b>a</b> <em>b</em> <strong><i>c</i></strong></p>', ['*a* _b_ *_c_*']],
    [
      'marks by style',
      '<p><span style="font-weight:700">a</span> <span style="font-style:italic">b</span></p>',
      ['*a* _b_'],
    ],
    ['no marks that are none', '<b style="font-weight:normal"><p>a</p></b>', ['a']],
    [
      'links',
      '<p>see <a href="https://tidewatch.example/">it</a></p>',
      ['see [it](https://tidewatch.example/)'],
    ],
    ['no links to programs', '<p><a href="javascript:1">it</a></p>', ['it']],
    ['lists', '<ul><li>a<li>b<ul><li>c</ul></ul>', ['- a', '- b', '  - c']],
    ['a list straight in a list', '<ol><li>a</li><ol><li>b</li></ol></ol>', ['1. a', '  1. b']],
    ['a list that begins later', '<ol start="4"><li>a</li><li>b</li></ol>', ['4. a', '5. b']],
    ['an entry of two paragraphs', '<ul><li><p>a</p><p>b</p></li></ul>', ['- a', '- b']],
    ['a heading in an entry', '<ul><li><h3>a</h3></li></ul>', ['- a']],
    [
      'lists too deep for a page',
      `${'<ul><li>x'.repeat(7)}`,
      ['- x', '  - x', '    - x', '      - x', '        - x', '        - x', '        - x'],
    ],
    ['a list of terms', '<dl><dt>Boom<dd>The call of a bittern.</dl>', ['*Boom*', 'The call of a bittern.']],
    ['code, with its lines and blanks', '<pre>one\n  <b>two</b>\r\n</pre>', ['{one\n  two}']],
    ['no code where there is none', 'a<pre> \n</pre>b', ['a', 'b']],
    ['a line across the page', 'a<hr>b', ['a', '---', 'b']],
    [
      'a folded section',
      '<details>b<summary>More <b>of it</b></summary><h3>a</h3></details>',
      ['+ More of it', '| b', '| ### a'],
    ],
    ['a folded section that holds nothing', '<details><summary>More</summary></details>b', ['More', 'b']],
    ['folded sections in each other', '<details>a<details>b</details></details>', ['+ ', '| a', '+ ', '| b']],
    [
      'a box beside the text',
      '<aside class="x box beside-left" style="color:red; width:33%"><p class="box-title"><strong>Boots</strong></p>Bring them.</aside>',
      ['= Boots (beside-left 33%)', '| Bring them.'],
    ],
    [
      'a box with its heading as its title',
      '<aside><h4>Boots</h4>a</aside>',
      ['= Boots (column 40%)', '| a'],
    ],
    [
      'a heading in a box of Placard as what it says',
      '<aside class="box column"><h4>Boots</h4>a</aside>',
      ['=  (column 40%)', '| #### Boots', '| a'],
    ],
    [
      'cards in a row',
      '<ul class="cards in-3" style="--gap:9px"><li class="card linked"><h3><a href="/a">a</a></h3><p>b <a href="/c">c</a></p></li><li>d</li> <li> </li></ul>',
      ['[] 3 9', '[/a] ### a', '[/a] b [c](/c)', '[] d'],
    ],
    ['a list that is none of cards', '<ul class="x"><li>a</li></ul>', ['- a']],
    ['a box that somebody else made', '<aside aria-label="Boots">a</aside>', ['= Boots (column 40%)', '| a']],
    ['a box wider than boxes are', '<aside style="width:90%">a</aside>', ['=  (column 40%)', '| a']],
    [
      'what is set apart in a list or a quotation, behind it',
      '<ul><li>a<details>b</details></ul><blockquote>c<pre>d</pre></blockquote>',
      ['- a', '+ ', '| b', '> c', '{d}'],
    ],
    ['a picture in its place', `<p>a <img src="${A}" alt="x"> b</p>`, ['a', '(x)', 'b']],
    [
      'the best file of a picture',
      `<picture><source srcset="https://tidewatch.example/w.webp 1600w"><img src="${A}" alt="x"></picture>`,
      ['(x)'],
    ],
    [
      'pictures of a list after it',
      `<ul><li>a<img src="${A}" alt="x"></li><li>b</li></ul>`,
      ['- a', '- b', '(x)'],
    ],
    [
      'a figure with its caption',
      `<figure><img src="${A}" alt="x"><figcaption>Reeds</figcaption></figure>`,
      ['(x)', 'Reeds'],
    ],
    ['no dots', '<p>a<img src="https://count.example/1.gif" width="1" height="1"></p>', ['a']],
    [
      'a frame as its code',
      '<p>a</p><iframe src="https://tidewatch.example/x?a=1&amp;b=2" onload="x()"></iframe>',
      ['a', '<iframe src="https://tidewatch.example/x?a=1&amp;b=2" onload="x()"></iframe>'],
    ],
    [
      'a film with its files',
      '<video controls><source src="a.mp4"><p>old</p></video>',
      ['<video controls=""><source src="a.mp4"></source></video>'],
    ],
    [
      'a table',
      '<table><tr><th>Day<th>Tide<tr><td>Mon<td>4.1<tr><td>Tue<td><p>4.2</p><p>late</p></table>',
      ['!Day ; !Tide', 'Mon ; 4.1', 'Tue ; 4.2/late'],
    ],
    [
      'a table in parts',
      '<table><caption>Tides</caption><thead><tr><th>Day<th>m</thead><tbody><tr><td>Mon<td>4</tbody></table>',
      ['# Tides', '!Day ; !m', 'Mon ; 4'],
    ],
    [
      'cells that span, and the places that nobody filled',
      '<table><tr><td colspan=2>a<td>b<tr><td rowspan=9>c<td>d<tr><td colspan=0>e</table>',
      ['a>2 ; b', 'cv2 ; d ; ', 'e ; '],
    ],
    [
      'a rowspan of 0 as all rows that follow',
      '<table><tr><td rowspan=0>a<td>b<tr><td>c<tr><td>d</table>',
      ['av3 ; b', 'c', 'd'],
    ],
    [
      'spans that lie over each other side by side',
      '<table><tr><td>a<td rowspan=2>b<tr><td colspan=3>c<td>d</table>',
      ['a ; bv2 ; ', 'c ; d'],
    ],
    [
      'pictures and frames of a table behind it',
      `<table><tr><th>a<th>b<tr><td>c<img src="${A}" alt="x"><td><iframe src="https://tidewatch.example/x"></iframe></table>`,
      ['!a ; !b', 'c ; ', '(x)', '<iframe src="https://tidewatch.example/x"></iframe>'],
    ],
    [
      'lists, headings and tables in a cell as its lines',
      '<table><tr><th>x<th>y<tr><td>a<ul><li>b<li>c</ul><td><h2>d</h2><table><tr><th>e<td>f</table><tr><td>g<td>h</table>',
      ['!x ; !y', 'a/b/c ; d/e/f', 'g ; h'],
    ],
    [
      'blocks in cells without headers as what is laid out by them',
      '<table><tr><td>a<td><h2>b</h2><tr><td>c<td>d</table>',
      ['a', '## b', 'c', 'd'],
    ],
    [
      'cells that nobody sees',
      '<table><tr><th>a<th hidden>b<tr><td>c<td style="display:none">d<tr style="display:none"><td>e</table>',
      ['!a', 'c'],
    ],
    ['no entries that nobody sees', '<ul><li hidden>a<li>b</ul>', ['- b']],
    ['a sign by what it says', '<p>a <img width="20" height="20" alt="wave" src="x.png"></p>', ['a wave']],
    [
      'no places of other programs',
      '<p><a href="#_ftn1">a</a> <a href="tel:+44-1632-960001">b</a></p>',
      ['a [b](tel:+44-1632-960001)'],
    ],
    [
      'a heading by its role',
      '<div role="heading" aria-level="3">a</div><p role="heading">b</p>',
      ['### a', '#### b'],
    ],
    ['a table that only lays out', '<table><tr><td><h2>A</h2><p>b</p></td></tr></table>', ['## A', 'b']],
    ['a table of one row', '<table><tr><td>a</td><td>b</td></tr></table>', ['a', 'b']],
    ['nothing of what is hidden', '<p>a<span style="display:none">b</span></p><div hidden>c</div>', ['a']],
    ['nothing of heads and styles', '<title>t</title><style>p{}</style><meta><p>a</p><!-- c -->', ['a']],
    ['a quotation', '<blockquote><p>a</p><ul><li>b</ul></blockquote>', ['> a', '> - b']],
    [
      'a quotation with whose words it is in the caption of its figure',
      '<figure><blockquote cite="https://tidewatch.example/a"><p>a</p></blockquote><figcaption>— Ines <b>Okonjo</b></figcaption></figure>',
      ['> a', '>> Ines Okonjo', '>> https://tidewatch.example/a'],
    ],
    [
      'a quotation with whose words it is in its last line',
      '<blockquote>a<footer>– <a href="https://tidewatch.example/b">Piet</a></footer></blockquote>',
      ['> a', '>> Piet', '>> https://tidewatch.example/b'],
    ],
    ['a quotation in a quotation', '<blockquote>a<blockquote>b</blockquote></blockquote>', ['> a', '> b']],
    ['a heading in a quotation as text', '<blockquote><h3>a</h3>b</blockquote>', ['> a', '> b']],
    [
      'a picture of a quotation behind it',
      `<blockquote><p>a <img src="${A}" alt="Reeds"></p></blockquote><p>b</p>`,
      ['> a', '(Reeds)', 'b'],
    ],
    ['no quotation where nothing is said', '<blockquote> <br></blockquote>a', ['a']],
    ['no address that leads nowhere', '<blockquote cite="javascript:1">a</blockquote>', ['> a']],
    [
      'a figure that is none of a quotation',
      '<figure><p>a</p><figcaption>b</figcaption></figure>',
      ['a', 'b'],
    ],
    ['a quotation in an entry of a list', '<ul><li>a<blockquote>b</blockquote></ul>', ['- a', '- b']],
    ['words in what nobody knows', '<x-note><p>a</p></x-note>', ['a']],
  ])('gives %s', (_what, html, blocks) => {
    expect(said(html)).toEqual(blocks);
  });

  it.each([
    [
      `<p>${'Reeds and water and '.repeat(9)}eels</p><ul><li>x<svg></svg></ul>`,
      'A drawing was left out (after “x”).',
    ],
    [
      `<p>${'Reeds and water and '.repeat(9)}eels</p><svg></svg>`,
      'A drawing was left out (after “and water and Reeds and water and eels”).',
    ],
    ['<input value="a"><select></select>', 'Fields of a form were left out.'],
    ['<svg><path/></svg>', 'A drawing was left out.'],
    ['<script>1</script>', 'Programs never come along.'],
    ['<p>a<del>b</del></p>', 'Words that were struck out were left out (after “a”).'],
    ['<p>a<s>b</s> <strike> </strike>', 'Words that were struck out were left out (after “a”).'],
    [
      '<p>a<span style="x-special-character:comment">b</span></p>',
      'A remark in the margin was left out (after “a”).',
    ],
  ])('says what became of %s, once, and where', (html, sentence) => {
    expect(sayLeftOut(read(html).leftOut)).toEqual([sentence]);
  });

  it('says nothing where nothing was left out', () => {
    expect(read('<p>a</p>').leftOut).toEqual([]);
  });

  it('is read as deep as trees go', () => {
    let deep: HtmlNode = 'x';
    for (let at = 0; at < 200; at += 1)
      deep = { name: at % 2 ? 'div' : 'ul', attributes: [], children: [deep] };
    expect(readHtml([deep], counted()).parts).toHaveLength(1);
  });
});
