import { expect, it } from 'vitest';
import { sayPageCount, sayUsedOn } from './say-used-on.ts';

const pages = (...titles: readonly string[]) => ({
  usedOn: titles.map((title, at) => ({ id: `p${at}`, title })),
});

it.each([
  [pages(), 'on no page', 'on no page'],
  [pages('Marsh 1931'), 'on “Marsh 1931”', 'on 1 page'],
  [pages(''), 'on “Untitled page”', 'on 1 page'],
  [pages('Marsh 1931', 'Tides this week'), 'on 2 pages', 'on 2 pages'],
])('says where a piece stands (%#)', (used, named, counted) => {
  expect(sayUsedOn(used)).toBe(named);
  expect(sayPageCount(used)).toBe(counted);
});
