import { describe, expect, it } from 'vitest';
import { HOSTS } from '#core/embed/testing.ts';
import { readInText } from './in-text.ts';

const FILM = 'https://lanternreel.example/watch/eel-pass-71';
const CHART = 'https://fathomchart.example/chart/saltmere-bar';
const found = (text: string) => {
  const read = readInText(text, HOSTS);
  return read.kind === 'embeds' ? read.embeds.map(({ page }) => page) : read.kind;
};

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
      'code of a host that nobody decided on, which stands as a link,',
      '<iframe src="https://elsewhere.example/a"></iframe>',
      ['https://elsewhere.example/a'],
    ],
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
    ['a comparison', 'Keep it where a < b and c > d.'],
    ['tags that embed nothing', '<p>Hello <b>there</b></p>'],
    ['a link in rich text', `<a href="${FILM}">The film</a>`],
    ['nothing', ''],
  ])('%s stays text', (_name, text) => {
    expect(found(text)).toBe('text');
  });

  it.each([
    [
      'a script that does not say what it shows',
      '<script src="https://corkline.example/w.js"></script>',
      'take the code called',
    ],
    ['a program', '<script>alert(1)</script>', 'This is only a program'],
    ['an escaped one', '&lt;script&gt;alert(1)&lt;/script&gt;', 'This is only a program'],
    ['a frame without an address', '<iframe></iframe>', 'names no address'],
    ['a frame of a program', '<iframe src="javascript:alert(1)"></iframe>', 'begin with https://'],
  ])('%s is kept out, and it is said what to ask for', (_name, text, why) => {
    const read = readInText(text, HOSTS);
    expect(read).toEqual({ kind: 'refused', why: expect.stringContaining(why) });
  });
});
