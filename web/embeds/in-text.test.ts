import { describe, expect, it } from 'vitest';
import { HOSTS } from '#core/embed/testing.ts';
import { embedsInText } from './in-text.ts';

const FILM = 'https://lanternreel.example/watch/eel-pass-71';
const CHART = 'https://fathomchart.example/chart/saltmere-bar';
const found = (text: string) => embedsInText(text, HOSTS).map(({ page }) => page);

describe('text that is pasted among other text', () => {
  it.each([
    ['the address of a film', FILM, [FILM]],
    ['two addresses', `${FILM}\n${CHART}`, [FILM, CHART]],
    [
      'code of a trusted host',
      `<iframe src="https://lanternreel.example/play/eel-pass-71"></iframe>`,
      [FILM],
    ],
    ['code with words about it', `Here: <iframe src="${FILM}"></iframe> Thanks.`, [FILM]],
    ['code that is escaped', `&lt;iframe src="${FILM}"&gt;`, [FILM]],
    [
      'a widget',
      '<blockquote class="murmur" cite="https://murmurline.example/m/a"></blockquote>',
      ['https://murmurline.example/m/a'],
    ],
  ])('%s becomes embeds', (_name, text, pages) => {
    expect(found(text)).toEqual(pages);
  });

  it.each([
    ['a sentence', 'The eel pass opens in April.'],
    ['a sentence with an address', `The film is at ${FILM}`],
    ['the address of a page of nobody that is known', 'https://elsewhere.example/a'],
    ['a known address beside an unknown one', `${FILM} https://elsewhere.example/a`],
    ['the front page of a host', 'https://lanternreel.example/'],
    ['code of nobody that is trusted', '<iframe src="https://elsewhere.example/a"></iframe>'],
    ['a link in rich text', `<a href="${FILM}">The film</a>`],
    ['nothing', ''],
  ])('%s stays text', (_name, text) => {
    expect(found(text)).toEqual([]);
  });
});
