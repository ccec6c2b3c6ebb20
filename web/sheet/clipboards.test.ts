// @vitest-environment jsdom
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { sayWhatWasLost } from '#core/page/left-out.ts';
import { PLAIN_RULES } from '#core/page/testing.ts';
import { OFFER_ATTRIBUTE, readRichText } from './rich-text.ts';

const FOLDER = join(import.meta.dirname, 'clipboards');

/** What the sheet is given, with its offers of pictures in brackets, and what was lost, a line for each. */
function given(html: string): string {
  const read = readRichText(html, PLAIN_RULES);
  const { body } = new DOMParser().parseFromString(read.html, 'text/html');
  for (const offer of body.querySelectorAll(`[${OFFER_ATTRIBUTE}]`)) {
    const { words, address } = JSON.parse(offer.getAttribute(OFFER_ATTRIBUTE) ?? '');
    offer.replaceWith(`(picture: ${words} ${address})`);
  }
  const lost = read.leftOut.map(
    (one) => `- ${one.words || `after “${one.after.trim()}”`}: ${sayWhatWasLost(one)}`,
  );
  const blocks = body.innerHTML.replace(
    /(<\/(?:p|h\d|ul|ol|li|div|table|blockquote|figure|aside|details)>)(?=[<(])/g,
    '$1\n',
  );
  return [blocks, ...lost, ''].join('\n').replace(/\n{2,}/g, '\n');
}

/** Clipboards as programs fill them, made up, each with what has to come of it on the sheet. */
it.each(
  readdirSync(FOLDER)
    .filter((name) => name.endsWith('.html'))
    .map((name) => name.replace(/\.html$/, '')),
)('the clipboard "%s" gives what it has to', async (name) => {
  const html = readFileSync(join(FOLDER, `${name}.html`), 'utf8');
  await expect(given(html)).toMatchFileSnapshot(join(FOLDER, `${name}.txt`));
});
