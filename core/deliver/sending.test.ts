import { describe, expect, it } from 'vitest';
import { readFacts } from './facts.ts';
import { htmlFor, NOT_SENT } from './sending.ts';

const FIGURE = `<figure class="placed" style="float:left;width:46%;margin:4px 22px 12px 0"><picture><source srcset="a.avif 1w"><img src="a.jpg" alt="A heron" style="display:block;width:100%;height:auto"></picture><figcaption>At dawn.</figcaption></figure>`;
const COLUMN = `<figure class="placed" style="clear:both;margin:12px 0"><img src="b.jpg" alt="Reeds" style="display:block;width:100%;height:auto"></figure>`;
const FRAMED = `<figure class="placed" style="float:right;width:46%"><iframe src="https://films.example/7"></iframe></figure>`;
const HTML = `<p>Before.</p>\n${FIGURE}\n<p>Between.</p>\n${FRAMED}${COLUMN}`;

const usual = NOT_SENT;

describe('a page as its target keeps it', () => {
  it('is as it is where the target keeps everything', () => {
    expect(htmlFor(usual, HTML)).toBe(HTML);
  });

  it('has its captions as plain text, word for word', () => {
    const html = htmlFor({ ...usual, captions: 'plain' }, HTML);
    expect(html).toBe(HTML.replace('<figcaption>At dawn.</figcaption>', '<div>At dawn.</div>'));
  });

  it('has the side on the picture itself, and leaves what has none of either alone', () => {
    const html = htmlFor({ ...usual, sides: 'picture' }, HTML);
    expect(html).toContain(
      '<img src="a.jpg" alt="A heron" style="float:left;width:46%;margin:4px 22px 12px 0;height:auto">',
    );
    expect(html).toContain('<figure class="placed"><picture>');
    expect(html).toContain(FRAMED + COLUMN);
    // A site that takes figures apart keeps the side all the same.
    const unwrapped = html.replace(/<\/?(?:figure|picture)[^>]*>/g, '');
    expect(readFacts(unwrapped).pictures.map(({ isBeside }) => isBeside)).toEqual([true, false]);
    expect(readFacts(HTML).pictures.map(({ isBeside }) => isBeside)).toEqual([true, false]);
  });
});
