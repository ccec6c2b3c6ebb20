import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fromStored, STORED, type StoredKind, toStored } from './stored.ts';

const HERONS: StoredKind = {
  name: 'herons',
  steps: [
    (stored) => ({ names: stored }),
    (stored) => ({ ...(stored as object), count: (stored as { names: string[] }).names.length }),
  ],
};

describe('what is stored', () => {
  it('comes back as it was, whatever it is', () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 4 }), (value) => {
        expect(fromStored(STORED.page, JSON.parse(JSON.stringify(toStored(STORED.page, value))))).toEqual(
          JSON.parse(JSON.stringify(value)),
        );
      }),
    );
  });

  it('before versions were is of the first, and is brought up to date step by step', () => {
    expect(fromStored(HERONS, ['grey', 'purple'])).toEqual({ names: ['grey', 'purple'], count: 2 });
    expect(fromStored(HERONS, { v: 2, names: ['grey'] })).toEqual({ names: ['grey'], count: 1 });
    expect(fromStored(HERONS, toStored(HERONS, { names: [], count: 7 }))).toEqual({ names: [], count: 7 });
  });

  it('as house rules with a quality for each format is read without them: likeness stood beside', () => {
    const stored = { name: 'Reserve', quality: { avif: 55, webp: 78, jpeg: 80 }, likeness: 985 };
    expect(fromStored(STORED.rules, stored)).toEqual({ name: 'Reserve', likeness: 985 });
    expect(fromStored(STORED.rules, { v: 1, ...stored })).toEqual({ name: 'Reserve', likeness: 985 });
  });

  it('by a later version is not taken for something that it is not', () => {
    expect(fromStored(HERONS, { v: 9, birds: [] })).toEqual({ v: 9, birds: [] });
  });
});
