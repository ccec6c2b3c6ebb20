// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import { type OverWords, setWords } from '#core/media/over-words.ts';
import { drawOver } from './draw-over.ts';

const WORDS: OverWords = {
  text: 'Booming <b>again</b>\n& again',
  place: 'bottom right',
  size: 60,
  ink: '#ffffff',
  plate: null,
};
const SIZE = { width: 900, height: 600 };

describe('words over a picture on the screen', () => {
  it('stand line for line where they are set, as text and nothing else', () => {
    const drawing = drawOver(WORDS, SIZE);
    const set = setWords(WORDS, SIZE);
    const lines = [...drawing.querySelectorAll('text')];
    expect(lines.map((line) => line.textContent)).toEqual(['Booming <b>again</b>', '& again']);
    expect(drawing.querySelector('b')).toBeNull();
    for (const [at, line] of lines.entries()) {
      expect(Number(line.getAttribute('x'))).toBe(set.lines[at]?.x);
      expect(Number(line.getAttribute('y'))).toBe(set.lines[at]?.baseline);
      expect(line.getAttribute('text-anchor')).toBe('end');
      expect(line.getAttribute('fill')).toBe('#ffffff');
    }
  });

  it('have a plate under each line only where one is asked', () => {
    expect(drawOver(WORDS, SIZE).querySelectorAll('rect')).toHaveLength(0);
    const plated = drawOver({ ...WORDS, plate: '#172126' }, SIZE);
    expect([...plated.querySelectorAll('rect')].map((rect) => rect.getAttribute('fill'))).toEqual([
      '#172126',
      '#172126',
    ]);
  });

  it('are passed over by those who hear the page: what they say is said elsewhere', () => {
    expect(drawOver(WORDS, SIZE).getAttribute('aria-hidden')).toBe('true');
  });
});
