import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cutShort } from './cut-short.ts';
import { type PageWords, type PageWordsShown, sayPageWords } from './page-words.ts';

/** Ten px a letter, and i half as wide, so that width is not the number of letters. */
const measure = (text: string) => [...text].reduce((sum, letter) => sum + (letter === 'i' ? 5 : 10), 0);

describe('a text cut as a listing cuts it', () => {
  it.each([
    ['Hides', 100, 'Hides', false],
    ['The boardwalk reopens', 210, 'The boardwalk reopens', false],
    ['The boardwalk reopens', 200, 'The boardwalk ...', true],
    ['iiii iiii iiii', 100, 'iiii iiii iiii', false],
    ['  The   boardwalk ', 130, 'The boardwalk', false],
    ['Boardwalkreopening', 100, 'Boardw ...', true],
  ])('%j in %d px', (text, most, shown, isCut) => {
    expect(cutShort(text, most, measure)).toEqual({ shown, isCut });
  });

  it('is never wider than there is room, and says the beginning of it', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 120 }), fc.integer({ min: 60, max: 900 }), (text, most) => {
        const { shown, isCut } = cutShort(text, most, measure);
        expect(measure(shown)).toBeLessThanOrEqual(most);
        const whole = text.replace(/\s+/g, ' ').trim();
        expect(whole.startsWith(isCut ? shown.replace(/\s*\.\.\.$/, '') : shown)).toBe(true);
      }),
    );
  });
});

describe('what is said of the words of a page', () => {
  const says = (said: Partial<PageWords>, room = 400) => {
    const words = { title: '', summary: '', keyPhrase: '', opening: '', ...said };
    const shown: PageWordsShown = {
      title: cutShort(words.title, room, measure),
      summary: cutShort(words.summary, room * 2, measure),
      sharedTitle: cutShort(words.title, room, measure),
      sharedSummary: cutShort(words.summary, room, measure),
    };
    return sayPageWords(words, shown);
  };
  it.each([
    [{ title: 'Hides', summary: 'Where to sit.' }, []],
    [
      { title: 'Hides' },
      ['It has no summary, so listings and shared links show whatever words they find on it.'],
    ],
    [{ summary: 'Where to sit.' }, ['It has no title, so a listing shows its address alone.']],
    [{ title: 'Hides', summary: 'hides' }, ['Its summary only says its title again.']],
    [
      { title: 'A very long title of a page on the old boardwalk', summary: 'Where to sit.' },
      ['A listing ends its title after “page on the”.'],
    ],
    [
      { title: 'Hides', summary: 'One two three four five six seven eight nine ten' },
      ['A shared link ends its summary after “five six seven”.'],
    ],
    [
      { title: 'Bird hides', summary: 'Where to sit.', keyPhrase: 'bird híde', opening: 'Six bird hides.' },
      ['“bird híde” is not in the summary.'],
    ],
    [
      { title: 'Hides', summary: 'Where to sit.', keyPhrase: 'heron' },
      ['“heron” is not in the title, the summary or what the page begins with.'],
    ],
  ])('%j', (words, lines) => {
    expect(says(words)).toEqual(lines);
  });
});
