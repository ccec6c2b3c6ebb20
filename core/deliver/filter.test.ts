import fc from 'fast-check';
import { parseFragment } from 'parse5';
import { describe, expect, it } from 'vitest';
import { elementsIn, textOf } from '../page/html-tree.ts';
import { treeOfParsed } from '../page/parsed-tree.ts';
import { anyPage, PAGE_PIECES, PAGE_RULES } from '../page/source/testing.ts';
import { PLAIN_RULES } from '../page/testing.ts';
import { writeFragment } from '../page/write.ts';
import { declarationsOf, type Filter, KEEPS_ALL, keptOf, plainerFor } from './filter.ts';
import { rulesLearned, sayLearned } from './learned.ts';
import { learnFilter, probeHtml } from './probe.ts';
import { htmlFor, NOT_SENT, writtenFor } from './sending.ts';

const OF = {
  picture: 'https://www.saltmere.example/media/probe.png',
  frames: ['https://lanternreel.example/play/1', 'https://fathomchart.example/chart/2'],
};
const filter = (change: Partial<Filter>): Filter => ({ ...KEEPS_ALL, ...change });
/** The site's own parts round what it took. */
const inSite = (html: string) =>
  `<!doctype html><title>Probe</title><nav><a href="/">Home</a><img src="/logo.png" alt=""></nav><main class="site"><h1>Probe</h1>${html}</main><footer><p>Reserve</p></footer>`;
const learned = (site: Filter) => learnFilter(inSite(keptOf(probeHtml(OF), site)), OF)?.filter;
const words = (html: string) =>
  parseFragment(html)
    .childNodes.map((node) => treeOfParsed([node]).map(textOf).join(''))
    .join(' ')
    .replace(/\s+/g, ' ')
    .trim();
const written = (doc: Parameters<typeof writeFragment>[0]) =>
  writeFragment(doc, {
    rules: PAGE_RULES,
    pieces: PAGE_PIECES,
    addressOf: ({ fileName }) => `https://www.saltmere.example/media/${fileName}`,
    isInline: true,
    withoutTitle: true,
  });

describe('a filter', () => {
  it('that keeps everything changes nothing', () => {
    expect(keptOf('<p class=x>a<br/>b', KEEPS_ALL)).toBe('<p class=x>a<br/>b');
    expect(plainerFor('<p class=x>a<br/>b', KEEPS_ALL)).toBe('<p class=x>a<br/>b');
  });

  it('takes elements out with or without what is in them, attributes and styles everywhere or of one element', () => {
    const html =
      '<figure class="a" style="float:left;margin:0"><picture><source srcset="b 8w"><img style="float:left" srcset="b 8w" src="b"></picture><figcaption>At <b>dawn</b></figcaption></figure><p class="c">Words</p>';
    expect(
      keptOf(
        html,
        filter({
          unwrapped: ['picture'],
          dropped: ['source', 'figcaption'],
          attributes: ['class', 'img srcset'],
          styles: ['figure float'],
        }),
      ),
    ).toBe('<figure style="margin:0"><img style="float:left" src="b"></figure><p>Words</p>');
  });

  it('takes elements out that stand in each other, however deep', () => {
    const deep = `${'<div><b>'.repeat(4000)}words${'</b></div>'.repeat(4000)}`;
    expect(keptOf(deep, filter({ unwrapped: ['div', 'b'] }))).toBe('words');
  });

  it('is written for, so that no words go with what it drops', () => {
    const html =
      '<details open=""><summary>More</summary><p>Folded</p></details><table><caption>Tides</caption><tbody><tr><th scope="col">Day</th><td>4.1</td></tr></tbody></table><ul><li>Reed</li></ul><p><a href="/x">leads</a></p>';
    const dropping = filter({ dropped: ['details', 'table', 'ul', 'a'] });
    const plainer = plainerFor(html, dropping);
    expect(plainer).toBe(
      '<div><p>More</p><p>Folded</p></div><div><p>Tides</p><div><div><div>Day</div><div>4.1</div></div></div></div><div><div>Reed</div></div><p><span>leads</span></p>',
    );
    expect(words(keptOf(plainer, dropping))).toBe(words(html));
    // One that the site unwraps loses no words, and stays what it is for whoever else reads the code.
    expect(plainerFor(html, filter({ unwrapped: ['details'] }))).toBe(html);
  });
});

it('parts declarations by semicolons outside quotes and brackets', () => {
  const style = 'background:url("a;b") no-repeat; --gap: 2px;font:12px \'A;B\';;broken;Float : left';
  expect(declarationsOf(style).map(({ property }) => property)).toEqual([
    'background',
    '--gap',
    'font',
    'float',
  ]);
});

describe('a probe', () => {
  it('teaches nothing of a site that keeps everything, nor of one where it does not stand', () => {
    expect(learned(KEEPS_ALL)).toEqual(KEEPS_ALL);
    expect(learnFilter(inSite(probeHtml(OF)), OF)?.frames).toEqual(OF.frames);
    expect(learnFilter(inSite('<p>There is no such page.</p>'), OF)).toBeNull();
  });

  it('teaches each thing that a site drops, by itself and together with others', () => {
    for (const site of [
      filter({ unwrapped: ['figure', 'picture'], dropped: ['figcaption', 'details', 'source'] }),
      filter({ dropped: ['source'], attributes: ['class', 'style'] }),
      filter({ styles: ['float', 'figure width', 'img border-radius'] }),
      filter({
        unwrapped: ['abbr', 'nav'],
        dropped: ['aside', 'sup'],
        attributes: ['a target', 'img loading'],
      }),
    ]) {
      const found = learned(site);
      for (const part of ['unwrapped', 'dropped', 'attributes', 'styles'] as const)
        expect([...(found?.[part] ?? [])].sort()).toEqual([...site[part]].sort());
    }
  });

  it('teaches which hosts’ frames come through', () => {
    const probe = probeHtml(OF).replace(/<iframe src="https:\/\/fathomchart[^>]*><\/iframe>/, '');
    expect(learnFilter(inSite(probe), OF)?.frames).toEqual(['https://lanternreel.example/play/1']);
  });

  it('holds every element, attribute and style that pages go out with', () => {
    const said = (html: string) =>
      treeOfParsed(parseFragment(html).childNodes)
        .flatMap((node) => [...elementsIn(node)])
        .flatMap(({ name, attributes }) => [
          name,
          ...attributes.map((one) => `${name} ${one.name}`),
          ...attributes.flatMap((one) =>
            one.name === 'style'
              ? declarationsOf(one.value).map(({ property }) => `${name} {${property}}`)
              : [],
          ),
        ]);
    const asked = new Set(said(probeHtml(OF)));
    const missing = new Set(
      fc
        .sample(anyPage, { numRuns: 150, seed: 11 })
        .flatMap((doc) => said(written(doc)))
        .filter((one) => !asked.has(one)),
    );
    // What says nothing to readers where it is missing, and what every page has.
    for (const fine of ['br', 'thead', 'img fetchpriority']) missing.delete(fine);
    expect([...missing]).toEqual([]);
  });

  it('leads to pages that lose no words there, whatever is on them', () => {
    const site = filter({
      unwrapped: ['figure', 'picture'],
      dropped: ['figcaption', 'details', 'source', 'aside'],
      attributes: ['class', 'id', 'srcset', 'sizes'],
    });
    const sending = writtenFor(NOT_SENT, learned(site) ?? KEEPS_ALL);
    expect([sending.captions, sending.sides]).toEqual(['plain', 'picture']);
    fc.assert(
      fc.property(anyPage, (doc) => {
        const html = written(doc);
        expect(words(keptOf(htmlFor(sending, html), site))).toBe(words(html));
      }),
      { numRuns: 60 },
    );
  });
});

describe('what was learned', () => {
  const tried = OF.frames;
  const whatWas = (site: Filter, frames: readonly string[] = tried) => {
    const after = rulesLearned(PLAIN_RULES, { filter: site, frames }, tried);
    return { after, said: sayLearned(PLAIN_RULES, after) };
  };

  it('is nothing where everything comes through', () => {
    const { after, said } = whatWas(KEEPS_ALL);
    expect([after, said]).toEqual([PLAIN_RULES, []]);
  });

  it('is said in a sentence for each part, with what follows from it', () => {
    const site = filter({
      unwrapped: ['figure'],
      dropped: ['figcaption'],
      attributes: ['class'],
      styles: ['p margin'],
    });
    const { after, said } = whatWas(site, [tried[0] ?? '']);
    expect(said).toEqual([
      'It takes figure away, and keeps what is in it.',
      'It drops figcaption with all that is in it.',
      'It drops these attributes: class.',
      'It drops these styles: p margin.',
      'So captions go as plain text.',
      'So text runs beside the picture itself, without the figure round it.',
      'Frames of lanternreel.example alone come through.',
    ]);
    expect(sayLearned(after, whatWas(KEEPS_ALL).after)).toContain('It keeps figure now.');
    expect(whatWas(KEEPS_ALL, []).said).toEqual(['No frames come through.']);
  });
});
