// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import { sayLeftOut } from '#core/page/left-out.ts';
import { PLAIN_RULES } from '#core/page/testing.ts';
import { isOfSheet, OFFER_ATTRIBUTE, readRichText } from './rich-text.ts';

/** The tags and the words of what the sheet is given, and the words of each picture that is offered. */
function given(html: string): string {
  const body = new DOMParser().parseFromString(readRichText(html, PLAIN_RULES).html, 'text/html').body;
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
      '<p>Before</p>(a)<p>after</p>(b)<p>it</p>',
    );
  });

  it('parts the words and the link that a picture stood in', () => {
    const link = 'https://tidewatch.example/';
    expect(given(`<p>see <a href="${link}">the <em>old ${image('a')} gauge</em></a>.</p>`)).toBe(
      `<p>see <a href="${link}">the <em>old</em></a></p>(a)<p><a href="${link}"><em>gauge</em></a>.</p>`,
    );
    expect(given(`<p><picture><source srcset="x.avif">${image('a')}</picture></p>`)).toBe('(a)');
  });

  it('offers each of very many', () => {
    const { html } = readRichText(`<p>${image('a').repeat(300)}</p>`, PLAIN_RULES);
    expect(html.split(OFFER_ATTRIBUTE)).toHaveLength(301);
  });

  it('offers those of a list or a table after it, in their order', () => {
    expect(
      given(`<ul><li>x ${image('a')}<ul><li>${image('b')}</li></ul></li></ul><p>y</p>`).replace(/\n/g, ''),
    ).toBe('<ul><li>x</li></ul>(a)(b)<p>y</p>');
    expect(given(`<table><tbody><tr><td>${image('a')}</td></tr></tbody></table>`)).toBe('(a)');
  });

  it('passes over dots that count readers', () => {
    expect(given(`<p>${image('dot', ' width="1" height="1"')}x</p>`)).toBe('<p>x</p>');
  });

  it('hands on what was framed in it, and says what became of a table that is too large', () => {
    const frame = '<iframe src="https://tidewatch.example/a"></iframe>';
    const read = readRichText(`<p>a</p>${frame}<table><tr><th>Day<th>m<tr><td>Mon<td>4</table>`, PLAIN_RULES);
    expect(read.embeds).toEqual([frame]);
    // As text where it stood, until it becomes what it frames.
    expect(read.html).toMatch(/^<p>a<\/p><p>&lt;iframe src=[^<]*<\/p><div class="table-frame"/);
    expect(read.html).toContain('<tr><td>Mon</td><td>4</td></tr>');
    const large = `<table>${'<tr><td>a<td>b'.repeat(1001)}</table>`;
    expect(sayLeftOut(readRichText(`<p>x</p>${large}`, PLAIN_RULES).leftOut)).toEqual([
      'A table that is too large became a list of its rows (after “x”).',
    ]);
  });

  it('is read to its end, however deep it is nested', () => {
    expect(given(`${'<div>'.repeat(400)}deep`)).toBe('<p>deep</p>');
  });

  it('is left to the editor where it comes from a sheet, and holds nothing that a sheet does not', () => {
    expect(isOfSheet('<p data-pm-slice="1 1 []">a</p>')).toBe(true);
    expect(isOfSheet('<table data-pm-slice="1 1 []"><tr><td>a</table>')).toBe(false);
    expect(isOfSheet('<table data-pm-slice="1 1 []"><tr><td colspan="2" data-of-sheet="">a</table>')).toBe(
      true,
    );
    expect(isOfSheet('<p>a</p>')).toBe(false);
  });
});
