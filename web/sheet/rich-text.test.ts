// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import { asSheetText, OFFER_ATTRIBUTE } from './rich-text.ts';

/** The tags and the words of what the sheet is given, and the words of each picture that is offered. */
function given(html: string): string {
  const body = new DOMParser().parseFromString(asSheetText(html), 'text/html').body;
  for (const offer of body.querySelectorAll(`[${OFFER_ATTRIBUTE}]`))
    offer.replaceWith(`(${JSON.parse(offer.getAttribute(OFFER_ATTRIBUTE) ?? '').words})`);
  return body.innerHTML;
}
const image = (name: string, more = '') =>
  `<img src="https://tidewatch.example/${name}.jpg" alt="${name}"${more}>`;

describe('rich text that is brought to the sheet', () => {
  it('keeps its headings within the levels of a page', () => {
    expect(given('<h1>A</h1><h3>B</h3><h6>C</h6>')).toBe('<h2>A</h2><h3>B</h3><h4>C</h4>');
  });

  it('has an offer where each of its pictures stood', () => {
    expect(given(`<p>Before</p><p>${image('a')}</p><p>after ${image('b')} it</p>`)).toBe(
      '<p>Before</p>(a)<p>after </p>(b)<p> it</p>',
    );
  });

  it('parts the words and the link that a picture stood in', () => {
    expect(given(`<p>see <a href="/x">the <em>old ${image('a')} gauge</em></a>.</p>`)).toBe(
      '<p>see <a href="/x">the <em>old </em></a></p>(a)<p><a href="/x"><em> gauge</em></a>.</p>',
    );
    expect(given(`<p><picture><source srcset="x.avif">${image('a')}</picture></p>`)).toBe('(a)');
  });

  it('offers each of very many', () => {
    expect(asSheetText(`<p>${image('a').repeat(300)}</p>`).split(OFFER_ATTRIBUTE)).toHaveLength(301);
  });

  it('offers those of a list or a table after it, in their order', () => {
    expect(given(`<ul><li>x ${image('a')}<ul><li>${image('b')}</li></ul></li></ul><p>y</p>`)).toBe(
      `<ul><li>x ${image('a')}<ul><li>${image('b')}</li></ul></li></ul>(a)(b)<p>y</p>`.replaceAll(
        /<img[^>]*>/g,
        '',
      ),
    );
    expect(given(`<table><tbody><tr><td>${image('a')}</td></tr></tbody></table>`)).toBe(
      '<table><tbody><tr><td></td></tr></tbody></table>(a)',
    );
  });

  it('passes over dots that count readers', () => {
    expect(given(`<p>${image('dot', ' width="1" height="1"')}x</p>`)).toContain('<img');
  });
});
