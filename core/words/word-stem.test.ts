import { describe, expect, it } from 'vitest';
import { wordStem } from './word-stem.ts';

describe('what a word is looked up by', () => {
  it.each([
    ['herons', 'heron'],
    ['heron', 'heron'],
    ['Hides', 'Hide'],
    ['berries', 'berr'],
    ['berry', 'berr'],
    ['marshes', 'marsh'],
    ['boxes', 'box'],
    ['grass', 'grass'],
    ['bus', 'bus'],
    ['eels', 'eel'],
    ['grey', 'grey'],
    ['Mary', 'Mary'],
    ['1931', '1931'],
    ['Röhricht', 'Röhricht'],
    ['芦苇丛', '芦苇丛'],
  ])('%s by %s', (word, stem) => {
    expect(wordStem(word)).toBe(stem);
  });
});
