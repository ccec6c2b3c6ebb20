// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import { mount, unmount } from '../mounted.tsx';
import { WordsCompared } from './words-compared.tsx';

afterEach(unmount);

/** "Boots [-are-] {+were+} enough": what is gone, and what is new. */
function shown(before: string, after: string): string {
  const ground = mount(<WordsCompared before={before} after={after} />);
  return [...(ground.querySelector('p')?.childNodes ?? [])]
    .map((node) => {
      const text = node.textContent ?? '';
      return node.nodeName === 'DEL' ? `[-${text}-]` : node.nodeName === 'INS' ? `{+${text}+}` : text;
    })
    .join('');
}

const LONG = 'You hear them long before you see one, over the reed and under the sky, until noon. ';

describe('two states of a text as one', () => {
  it.each([
    ['one word', 'Boots are enough.', 'Boots were enough.', 'Boots [-are-]{+were+} enough.'],
    [
      'words in a row as one change',
      'open as far as Hide 3: two',
      'open from end to end: two',
      'open [-as far as Hide 3-]{+from end to end+}: two',
    ],
    ['what was said first', '', 'A heron', '{+A heron+}'],
    ['what is not said any more', 'A heron', '', '[-A heron-]'],
    ['nothing', 'The same', 'The same', 'The same'],
  ])('shows %s', (_, before, after, all) => {
    expect(shown(before, after)).toBe(all);
  });

  it('shows a little of what did not change, in whole words', () => {
    const said = shown(`${LONG}Boots are enough. ${LONG}`, `${LONG}Boots were enough. ${LONG}`);
    expect(said).toMatch(/^… (?:\S+ )+Boots \[-are-\]\{\+were\+\} enough\. (?:\S+ )+…$/);
    expect(said.length).toBeLessThan(140);
  });

  it('shows both whole where nearly every word is another', () => {
    const many = (word: string) => Array.from({ length: 600 }, (_, at) => `${word}${at}`).join(' ');
    expect(shown(many('a'), many('b'))).toBe(`[-${many('a')}-]{+${many('b')}+}`);
  });
});
