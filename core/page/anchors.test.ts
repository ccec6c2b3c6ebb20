import { describe, expect, it } from 'vitest';
import { anchorsOf } from './anchors.ts';
import type { Block } from './blocks/block.ts';
import { entriesOf } from './blocks/contents/entries.ts';
import type { HeadingLevel } from './blocks/heading/schema.ts';
import { examplePage, heading, PLAIN_RULES, paragraph } from './testing.ts';
import { writeFragment } from './write.ts';

const named = (words: string, level: HeadingLevel, id: string, anchor?: string): Block => ({
  type: 'heading',
  attrs: { id, level, ...(anchor ? { anchor } : {}) },
  content: [{ type: 'text', text: words }],
});
const linkTo = (href: string): Block => ({
  type: 'paragraph',
  attrs: { id: 'link' },
  content: [{ type: 'text', text: 'Boots', marks: [{ type: 'link', attrs: { href } }] }],
});
const contents: Block = { type: 'contents', attrs: { id: 'contents', deepest: 3 } };
const html = (...blocks: Block[]) =>
  writeFragment(examplePage(...blocks), { rules: PLAIN_RULES, pieces: new Map(), addressOf: () => '' });
const short = (...blocks: Block[]) => anchorsOf(examplePage(...blocks)).map(({ anchor }) => anchor);

describe('anchors of headings', () => {
  it('are their words read web-safe, each once, and what somebody chose before that', () => {
    expect(
      short(
        named('What to bring', 2, 'a'),
        named('What to bring', 3, 'b'),
        named('Über die Dämme', 2, 'c'),
        named('Anything', 2, 'd', 'what-to-bring-2'),
        named('***', 2, 'e'),
        named('', 2, 'f'),
      ),
    ).toEqual(['what-to-bring', 'what-to-bring-3', 'uber-die-damme', 'what-to-bring-2', 'part']);
  });

  it('chosen twice are one, and the second goes by its words', () => {
    expect(short(named('One', 2, 'a', 'place'), named('Two', 2, 'b', 'place'))).toEqual(['place', 'two']);
  });

  it('go out where a link or a list needs them, or somebody chose one, and not else', () => {
    const [bring, come] = [named('What to bring', 2, 'a'), named('How to come', 2, 'b')];
    expect(html(bring, come)).not.toContain(' id=');
    expect(html(linkTo('#how-to-come'), bring, come)).toContain('<h2 id="how-to-come">How to come</h2>');
    expect(html(linkTo('#how-to-come'), bring, come)).toContain('<h2>What to bring</h2>');
    expect(html(named('Come', 2, 'a', 'way'))).toContain('<h2 id="way">Come</h2>');
    expect(html(contents, bring)).toContain('<h2 id="what-to-bring">');
  });

  it('of headings in other blocks are listed with the rest', () => {
    const folded: Block = {
      type: 'details',
      attrs: { id: 'folded', summary: 'More' },
      content: [heading('Deep inside', 2, 'inner')],
    };
    expect(html(contents, folded)).toContain('<a href="#deep-inside">Deep inside</a>');
  });
});

describe('a list of contents', () => {
  it('holds headings under those above them, however levels are skipped', () => {
    const levels: readonly HeadingLevel[] = [3, 2, 3, 4, 4, 2, 4];
    const headings = levels.map((level, at) => ({ id: `${at}`, anchor: `a${at}`, level, words: `${at}` }));
    const said = (entries: ReturnType<typeof entriesOf>): string =>
      entries
        .map(({ heading: { words }, under }) => (under.length > 0 ? `${words}(${said(under)})` : words))
        .join(' ');
    expect(said(entriesOf(headings, 4))).toBe('0 1(2(3 4)) 5(6)');
    expect(said(entriesOf(headings, 3))).toBe('0 1(2) 5');
    expect(said(entriesOf(headings, 2))).toBe('1 5');
  });

  it('is a place on the page that says so, in its language', () => {
    const german = writeFragment(examplePage(contents, named('Stiefel', 2, 'a')), {
      rules: { ...PLAIN_RULES, language: 'de-DE' },
      pieces: new Map(),
      addressOf: () => '',
    });
    expect(german).toContain(
      '<nav class="contents to-3" aria-label="Auf dieser Seite">\n<ul>\n<li><a href="#stiefel">Stiefel</a></li>\n</ul>\n</nav>',
    );
    expect(html(contents, paragraph('No heading'))).toContain(
      '<nav class="contents to-3" aria-label="On this page"></nav>',
    );
  });
});
