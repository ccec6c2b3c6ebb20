import { expect, it } from 'vitest';
import { decodeText, decodeWestern } from './decode-text.ts';

it('reads the quotation marks, dashes and the euro of windows-1252, under each of its names', () => {
  const bytes = new Uint8Array([0x93, 0x61, 0x94, 0x20, 0x96, 0x20, 0x80, 0x35, 0xe9]);
  const text = '\u201ca\u201d \u2013 \u20ac5\u00e9';
  expect(decodeWestern(bytes)).toBe(text);
  for (const label of ['windows-1252', 'iso-8859-1', 'latin1', 'ascii'])
    expect(decodeText(bytes, label)).toBe(text);
  expect(decodeText(bytes, 'utf-8')).toBeNull();
  expect(decodeText(bytes, 'reed-8')).toBeNull();
});
