import { describe, expect, it } from 'vitest';
import { compareFacts, isLost } from './compare.ts';
import { readFacts } from './facts.ts';
import { sayCompared, sayDifference } from './say.ts';

const SENT = `<div class="placard" lang="en-GB">
<h1>The boardwalk reopens</h1>
<p>After two winters of work the boardwalk is <strong>open</strong> from end to end. See <a href="/tides">the tides</a>.</p>
<figure style="float:left;width:46%"><picture><source srcset="https://files.example/planks-960.avif 960w"><img src="https://files.example/planks-960.jpg" srcset="https://files.example/planks-480.jpg 480w" width="960" height="640" alt="New planks at noon"></picture><figcaption>The new planks. Photo: Ines Okonjo, CC BY 4.0.</figcaption></figure>
<h2>What is new</h2>
<p>A rail on the weather side.</p>
<iframe src="https://films.example/e/7" title="A walk"></iframe>
<video controls aria-label="Building the ramp"><source src="https://files.example/ramp--1440.mp4" type="video/mp4"><track kind="captions" srclang="en" src="https://files.example/ramp.en.vtt"></video>
</div>`;

const site = (article: string, language = 'en-GB') =>
  `<!DOCTYPE html><html lang="${language}"><head><title>The boardwalk reopens, Saltmere</title></head><body><nav><a href="/">Home</a></nav><main>${article}</main><footer><p>Saltmere</p></footer></body></html>`;

const sent = { ...readFacts(SENT), title: 'The boardwalk reopens' };
const codesOf = (html: string, language?: string) =>
  compareFacts(sent, readFacts(site(html, language))).map(({ code }) => code);
const changed = (from: string | RegExp, to: string) => {
  const after = SENT.replace(from, to);
  if (after === SENT) throw new Error(`Nothing in it is ${String(from)}.`);
  return after;
};

describe('what a page says and shows', () => {
  it('is read from its HTML', () => {
    expect(sent).toEqual({
      title: 'The boardwalk reopens',
      languages: ['en-GB'],
      pictures: [
        {
          src: 'https://files.example/planks-960.jpg',
          alt: 'New planks at noon',
          width: 960,
          height: 640,
          isLazy: false,
          hasSizes: true,
          caption: 'The new planks. Photo: Ines Okonjo, CC BY 4.0.',
          isBeside: true,
        },
      ],
      links: [{ href: '/tides', words: 'the tides', caption: '' }],
      frames: ['https://films.example/e/7'],
      films: [
        {
          name: 'Building the ramp',
          sources: ['https://files.example/ramp--1440.mp4'],
          tracks: [{ kind: 'captions', language: 'en', src: 'https://files.example/ramp.en.vtt' }],
        },
      ],
      headings: [
        { level: 1, words: 'The boardwalk reopens' },
        { level: 2, words: 'What is new' },
      ],
      lines: [
        'The boardwalk reopens',
        'After two winters of work the boardwalk is open from end to end. See the tides.',
        'The new planks. Photo: Ines Okonjo, CC BY 4.0.',
        'What is new',
        'A rail on the weather side.',
      ],
    });
  });
});

describe('what was sent and what stands there', () => {
  it('are the same in the middle of a site of its own, with its own links, words and frames round it', () => {
    expect(codesOf(SENT)).toEqual([]);
    expect(
      codesOf(
        `<div class="theirs"><section>${SENT}</section></div><iframe src="https://ads.example/1"></iframe>`,
      ),
    ).toEqual([]);
  });

  it.each([
    ['a picture taken out', /<picture>.*<\/picture>/s, '', ['picture-lost']],
    ['the alt text taken off', ' alt="New planks at noon"', '', ['alt-lost']],
    ['another alt text', 'New planks at noon', 'planks', ['alt-differs']],
    ['no width and height', ' width="960" height="640"', '', ['size-lost']],
    ['no caption', /<figcaption>.*<\/figcaption>/, '', ['caption-lost']],
    ['the caption as plain text', /<figcaption>(.*)<\/figcaption>/, '<p>$1</p>', ['caption-loose']],
    ['no styles', ' style="float:left;width:46%"', '', ['beside-lost']],
    ['no frame', /<iframe.*<\/iframe>/, '', ['frame-lost']],
    ['no film', /<video.*<\/video>/s, '', ['film-lost']],
    ['a film without its files', /<source src="[^"]*mp4"[^>]*>/, '', ['film-lost']],
    ['a film without its captions', /<track[^>]*>/, '', ['captions-lost']],
    ['no link', /<a href[^>]*>the tides<\/a>/, 'the tides', ['link-lost']],
    ['another address', '"/tides"', '"/login"', ['link-differs']],
    ['headings as lines', /<h2>(.*)<\/h2>/, '<p><b>$1</b></p>', ['heading-lost']],
    ['headings one level lower', /<h2>(.*)<\/h2>/, '<h3>$1</h3>', ['heading-level']],
    ['a line cut out', '<p>A rail on the weather side.</p>', '', ['words-lost']],
  ] as const)('%s', (_what, from, to, codes) => {
    const html = changed(from, to);
    expect(codesOf(html)).toEqual(codes);
    for (const difference of compareFacts(sent, readFacts(site(html)))) {
      const { sentence, why } = sayDifference(difference);
      expect(sentence).toMatch(/^\S.*\.$/s);
      expect(why).toMatch(/\.$/);
    }
  });

  it('one file for every screen, and the files under addresses of the site’s own', () => {
    const theirs = SENT.replace(/<source[^>]*>/, '')
      .replace(/ srcset="[^"]*"/, '')
      .replace('https://files.example/planks-960.jpg', '/uploads/2026/planks-1024.jpg');
    expect(codesOf(theirs)).toEqual(['sizes-lost']);
  });

  it('another title, and another language than it was sent in', () => {
    const other = site(SENT.replace(' lang="en-GB"', ''), 'de').replace(
      /<title>.*<\/title>/,
      '<title>News</title>',
    );
    expect(compareFacts(sent, readFacts(other)).map(({ code }) => code)).toEqual([
      'title-differs',
      'language-differs',
    ]);
  });

  it('says where each stands in both, and what is lost first', () => {
    const html = changed(/<figcaption>(.*)<\/figcaption>/, '<p>$1</p>').replace(
      /<h2>(.*)<\/h2>/,
      '<p>$1</p>',
    );
    const differences = compareFacts(sent, readFacts(site(`<img src="/logo.png" alt="">${html}`)));
    expect(differences.map(({ code, spot }) => [code, spot])).toEqual([
      ['heading-lost', { kind: 'heading', sent: 1, found: null }],
      ['caption-loose', { kind: 'picture', sent: 0, found: 1 }],
    ]);
    expect(sayCompared(differences.filter(isLost).length, differences.length)).toBe(
      'One thing was lost on the way, one thing is only different',
    );
    expect([sayCompared(0, 0), sayCompared(2, 2), sayCompared(0, 3)]).toEqual([
      'Everything came through',
      '2 things were lost on the way',
      '3 things are only different',
    ]);
  });

  it('two pictures that are alike are two', () => {
    const twice = `${SENT}${SENT}`;
    const both = { ...readFacts(twice), title: '' };
    expect(compareFacts(both, readFacts(site(twice)))).toEqual([]);
    expect(
      compareFacts(both, readFacts(site(SENT))).filter(({ code }) => code === 'picture-lost'),
    ).toHaveLength(1);
  });
});
