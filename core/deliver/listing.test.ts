import { describe, expect, it } from 'vitest';
import { compareListing, type Listed } from './listing.ts';
import { sayDifference } from './say.ts';

const BASE = 'https://www.saltmere.example/news/';
const SENT: Listed = {
  address: 'https://www.saltmere.example/pages/bitterns-boom',
  title: 'Bitterns boom',
  summary: 'You hear them long before you see one, over the reed and over the water.',
  photo: { address: 'https://www.saltmere.example/media/heron.jpg', alt: 'A heron in the reeds.' },
};
const teaser = `<img src="/media/heron.jpg" alt="A heron in the reeds."><a href="../pages/bitterns-boom/#top">Bitterns boom</a><p>${SENT.summary}</p>`;
const listing = (item: string) =>
  `<!doctype html><title>News</title><nav><a href="/">Home</a></nav><ul><li><img src="/o.jpg" alt="Another"><a href="/pages/other">Tides</a><p>High water.</p></li><li>${item}</li></ul>`;
const differences = (item: string, sent: Listed = SENT) =>
  compareListing({ html: listing(item), base: BASE }, sent);

describe('a listing', () => {
  it('that shows a page as it was sent differs in nothing, wherever its link leads on the page', () => {
    expect(differences(teaser)).toEqual([]);
    expect(differences(`<article>${teaser}<a href="/pages/bitterns-boom">Read on</a></article>`)).toEqual([]);
  });

  it('is held against this page alone, and not against those beside it', () => {
    const codes = (item: string, sent?: Listed) => differences(item, sent).map(({ code }) => code);
    expect(codes('<a href="/pages/elsewhere">Bitterns boom</a>')).toEqual(['listing-missing']);
    expect(codes(teaser.replace('>Bitterns boom<', '>Read on<'))).toEqual(['listing-title']);
    expect(codes(teaser.replace(/<img[^>]*>/, ''))).toEqual(['listing-picture']);
    expect(codes(teaser.replace('A heron in the reeds.', 'heron.jpg'))).toEqual(['listing-alt']);
    expect(codes(teaser.replace(SENT.summary, ''))).toEqual(['listing-summary']);
    expect(codes(teaser.replace(/<img[^>]*>/, ''), { ...SENT, photo: null })).toEqual([]);
  });

  it('that cuts a summary is told with the words after which it does', () => {
    const [cut] = differences(teaser.replace(', over the reed and over the water.', ', over...'));
    expect(cut).toMatchObject({
      code: 'listing-cut',
      values: { last: 'You hear them long before you see one, over' },
    });
    expect(cut && sayDifference(cut).why).toBe(
      'It ends after “You hear them long before you see one, over”.',
    );
  });
});
