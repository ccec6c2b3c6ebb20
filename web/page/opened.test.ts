import { expect, it } from 'vitest';
import { chosenIn, type Opened, withChosen } from './opened.ts';

it.each<readonly [string, Opened, string, Opened]>([
  ['none', null, 'a', { kind: 'asset', id: 'a' }],
  ['a want', { kind: 'want', id: 'w' }, 'a', { kind: 'asset', id: 'a' }],
  ['one', { kind: 'asset', id: 'a' }, 'b', { kind: 'several', ids: ['a', 'b'] }],
  ['itself', { kind: 'asset', id: 'a' }, 'a', null],
  ['two', { kind: 'several', ids: ['a', 'b'] }, 'c', { kind: 'several', ids: ['a', 'b', 'c'] }],
  ['two of which it is one', { kind: 'several', ids: ['a', 'b'] }, 'a', { kind: 'asset', id: 'b' }],
])('after %s, choosing another is in order', (_what, before, id, after) => {
  expect(withChosen(before, id)).toEqual(after);
  expect(chosenIn(after).includes(id)).toBe(!chosenIn(before).includes(id));
});
