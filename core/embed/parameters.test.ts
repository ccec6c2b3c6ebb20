import { describe, expect, it } from 'vitest';
import { type Parameter, readTime, readValue, sayLength, sayTime } from './parameters.ts';

describe('a time', () => {
  it.each([
    ['80', 80],
    ['80s', 80],
    ['1:20', 80],
    ['01:20', 80],
    ['1:02:03', 3723],
    ['1m20s', 80],
    ['1h2m3s', 3723],
    ['2m', 120],
    [' 42 ', 42],
    ['0', 0],
    ['', undefined],
    ['1:60', undefined],
    ['1:2:3:4', undefined],
    ['-3', undefined],
    ['1.5', undefined],
    ['999999', undefined],
    ['soon', undefined],
  ])('"%s" is %s seconds', (text, seconds) => {
    expect(readTime(text)).toBe(seconds);
  });

  it.each([
    [42, '0:42', '42 s'],
    [200, '3:20', '3 min 20 s'],
    [3723, '1:02:03', '1 h 2 min'],
    [0, '0:00', '0 s'],
  ])('%i seconds are %s, and last %s', (seconds, clock, length) => {
    expect(sayTime(seconds)).toBe(clock);
    expect(sayLength(seconds)).toBe(length);
  });
});

describe('a value', () => {
  const choice: Parameter = {
    type: 'choice',
    name: 'theme',
    label: 'Theme',
    choices: [
      { value: 'light', label: 'Light' },
      { value: 'dark', label: 'Dark' },
    ],
    standard: null,
  };
  const toggle: Parameter = {
    type: 'switch',
    name: 'cc',
    label: 'Captions',
    on: '1',
    off: null,
    standard: null,
  };

  it.each([
    [choice, 'dark', 'dark'],
    [choice, 'pink', undefined],
    [toggle, '1', '1'],
    [toggle, 'true', '1'],
    [toggle, 'off', undefined],
    [toggle, 'maybe', undefined],
  ])('is taken only where it can be one', (parameter, text, value) => {
    expect(readValue(parameter, text)).toBe(value);
  });
});
