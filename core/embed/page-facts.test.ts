import { describe, expect, it } from 'vitest';
import { readDuration, readPageFacts } from './page-facts.ts';

const BASE = 'https://lanternreel.example/watch/eel-pass-71';
const page = (head: string) =>
  `<!DOCTYPE html><html><head><title>The eel pass &amp; more</title>${head}</head><body></body></html>`;
const data = (value: unknown) => `<script type="application/ld+json">${JSON.stringify(value)}</script>`;

describe('the page of a thing', () => {
  it('says what it is by JSON-LD, and where it answers by oEmbed', () => {
    const html = page(
      `<link rel="alternate" type="text/xml+oembed" href="/oembed?format=xml"><link rel="alternate" type="application/json+oembed" href="/oembed?a=1&amp;b=2">${data({ '@type': 'VideoObject', name: 'How the eel pass works', duration: 'PT3M20S', thumbnailUrl: ['/posters/a.jpg'], author: { name: 'Saltmere' }, caption: [{ inLanguage: 'en' }, { inLanguage: 'cy' }, { inLanguage: '<b>' }] })}`,
    );
    expect(readPageFacts(html, BASE)).toEqual({
      title: 'How the eel pass works',
      author: 'Saltmere',
      thumbnail: 'https://lanternreel.example/posters/a.jpg',
      seconds: 200,
      captions: ['en', 'cy'],
      isUnlisted: false,
      oembed: 'https://lanternreel.example/oembed?a=1&b=2',
    });
  });

  it('is called by its title where it says nothing else, and by nothing where it has none', () => {
    expect(readPageFacts(page(''), BASE)).toMatchObject({
      title: 'The eel pass & more',
      seconds: null,
      oembed: '',
    });
    expect(readPageFacts('not HTML', BASE).title).toBe('');
  });

  it.each(['noindex', 'NOINDEX, nofollow', 'none'])('that asks robots for "%s" is not listed', (wish) => {
    expect(readPageFacts(page(`<meta name="Robots" content="${wish}">`), BASE).isUnlisted).toBe(true);
  });

  it.each([
    data('a text'),
    data([1, 2]),
    data({
      '@type': 'VideoObject',
      name: 7,
      duration: 9,
      thumbnailUrl: 'javascript:alert(1)',
      author: 3,
      caption: 'x',
    }),
    '<script type="application/ld+json">{ not whole',
    '<link rel="alternate" type="application/json+oembed" href="javascript:alert(1)">',
  ])('may say nonsense: %s', (head) => {
    expect(readPageFacts(page(head), BASE)).toMatchObject({
      thumbnail: '',
      oembed: '',
      captions: [],
      seconds: null,
    });
  });
});

it.each([
  ['PT40S', 40],
  ['PT1H2M3S', 3723],
  ['P1DT1H', 90_000],
  ['PT0.5S', 0],
  ['PT', null],
  ['40', null],
  ['', null],
])('%s lasts %s seconds', (said, seconds) => {
  expect(readDuration(said)).toBe(seconds);
});
