import { type DefaultTreeAdapterMap, parseFragment } from 'parse5';
import { describe, expect, it } from 'vitest';
import type { HtmlNode } from './html-tree.ts';
import type { Inline, List } from './model.ts';
import { readHtml } from './read-html.ts';

type Parsed = DefaultTreeAdapterMap['childNode'];

function treeOf(node: Parsed): HtmlNode[] {
  if (node.nodeName === '#text' && 'value' in node) return [node.value];
  if (!('tagName' in node)) return [];
  return [{ name: node.tagName, attributes: node.attrs, children: node.childNodes.flatMap(treeOf) }];
}
const read = (html: string) => readHtml(parseFragment(html).childNodes.flatMap(treeOf));

const inline = (one: Inline): string => {
  if (one.type === 'hardBreak') return '/';
  return (one.marks ?? []).reduceRight((text, mark) => {
    if (mark.type === 'link') return `[${text}](${mark.attrs.href})`;
    return mark.type === 'bold' ? `*${text}*` : `_${text}_`;
  }, one.text);
};
const line = (content: readonly Inline[] = []) => content.map(inline).join('');
const listed = (list: List, depth = 0): string[] =>
  list.content.flatMap(({ content }, at) =>
    content.flatMap((part) =>
      part.type === 'paragraph'
        ? `${'  '.repeat(depth)}${list.type === 'orderedList' ? `${(list.attrs?.start ?? 1) + at}.` : '-'} ${line(part.content)}`
        : listed(part, depth + 1),
    ),
  );

/** What was read, a line for each block. */
const said = (html: string) =>
  read(html).parts.flatMap((part) => {
    if (part.kind === 'picture') return `(${part.offered.words})`;
    if (part.kind === 'embed') return part.code;
    const { block } = part;
    if (block.type === 'paragraph') return line(block.content);
    return block.type === 'heading'
      ? `${'#'.repeat(block.attrs.level)} ${line(block.content)}`
      : listed(block);
  });
const A = 'https://tidewatch.example/a.jpg';

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
    ['text with lines of its own', '<pre>one\n  two</pre>', ['one/two']],
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
      'a table row by row',
      '<table><tr><th>Day<th>Tide<tr><td>Mon<td>4.1<tr><td>Tue<td><p>4.2</p><p>late</p></table>',
      ['- *Day*, *Tide*', '- Mon, 4.1', '- Tue, 4.2 late'],
    ],
    [
      'a table in parts',
      '<table><caption>Tides</caption><thead><tr><th>Day<th>m</thead><tbody><tr><td>Mon<td>4</tbody></table>',
      ['Tides', '- *Day*, *m*', '- Mon, 4'],
    ],
    ['a table that only lays out', '<table><tr><td><h2>A</h2><p>b</p></td></tr></table>', ['## A', 'b']],
    ['a table of one row', '<table><tr><td>a</td><td>b</td></tr></table>', ['a', 'b']],
    ['nothing of what is hidden', '<p>a<span style="display:none">b</span></p><div hidden>c</div>', ['a']],
    ['nothing of heads and styles', '<title>t</title><style>p{}</style><meta><p>a</p><!-- c -->', ['a']],
    ['words in what nobody knows', '<x-note><p>a</p></x-note>', ['a']],
  ])('gives %s', (_what, html, blocks) => {
    expect(said(html)).toEqual(blocks);
  });

  it.each([
    ['<table><tr><th>Day<th>m<tr><td>Mon<td>4</table>', 'A table became a list of its rows.'],
    ['<blockquote>a</blockquote>', 'A quotation became plain text.'],
    ['a<hr>b', 'A line across the page was left out.'],
    ['<input value="a"><select></select>', 'Fields of a form were left out.'],
    ['<svg><path/></svg>', 'A drawing was left out.'],
    ['<script>1</script>', 'Programs never come along.'],
  ])('says what became of %s, once', (html, sentence) => {
    expect(read(html + html).leftOut).toEqual([sentence]);
    expect(read('<p>a</p>').leftOut).toEqual([]);
  });

  it('is read as deep as trees go', () => {
    let deep: HtmlNode = 'x';
    for (let at = 0; at < 200; at += 1)
      deep = { name: at % 2 ? 'div' : 'ul', attributes: [], children: [deep] };
    expect(readHtml([deep]).parts).toHaveLength(1);
  });
});
