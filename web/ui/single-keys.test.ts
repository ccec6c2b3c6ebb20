// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import { chooseLetter, deedOf, switchSingleKeys, usualLetters } from './single-keys.ts';

afterEach(() => {
  switchSingleKeys(true);
  usualLetters();
});

describe('single keys', () => {
  it('stand for their deeds in either case, and other letters for none', () => {
    expect([deedOf('l'), deedOf('L'), deedOf('?'), deedOf('x')]).toEqual([
      'beside-left',
      'beside-left',
      'help',
      undefined,
    ]);
  });

  it('stand for nothing where they are switched off', () => {
    switchSingleKeys(false);
    expect(deedOf('l')).toBeUndefined();
    expect(localStorage.getItem('placard-single-keys')).toContain('"areOn":false');
  });

  it('can be others, but none that does something already', () => {
    expect(chooseLetter('beside-left', 'B')).toBeNull();
    expect([deedOf('b'), deedOf('l')]).toEqual(['beside-left', undefined]);
    expect(chooseLetter('centred', 'b')).toMatch(/^B does something else/);
    expect(chooseLetter('centred', '+')).toMatch(/wider/);
    expect(deedOf('c')).toBe('centred');
    usualLetters();
    expect(deedOf('l')).toBe('beside-left');
  });
});
