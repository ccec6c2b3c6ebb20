import { expect, it } from 'vitest';
import { linksAs } from './link-header.ts';

it.each([
  ['<https://a.example/m>; rel="micropub"', ['https://a.example/m']],
  ['</m>; REL=Micropub; title="a, <b>"', ['/m']],
  ['<https://a.example/,x>; rel=next, </m>; rel="self micropub"', ['/m']],
  ['<m>; rel="micropubs"', []],
  ['no link at all', []],
  ['>backwards<; rel=micropub', []],
  ['', []],
])('%s', (header, targets) => {
  expect(linksAs('micropub', header)).toEqual(targets);
});
