import { describe, expect, it } from 'vitest';
import { partsThatDiffer, readTargetFile, writeTargetFile } from './target-file.ts';
import { PLAIN_RULES } from './testing.ts';

const refusedBy = (text: string) => {
  const read = readTargetFile(text);
  return read.kind === 'refused' ? read.sentence : null;
};

describe('a target as a file', () => {
  it('is read as it was written, in this version and under a mark of a text file', () => {
    const file = writeTargetFile({ ...PLAIN_RULES, onPage: 'page-1' });
    expect(readTargetFile(file)).toEqual({ kind: 'read', rules: PLAIN_RULES });
    expect(readTargetFile(`\uFEFF${file}`)).toEqual({ kind: 'read', rules: PLAIN_RULES });
  });

  it('of an earlier version is brought up to date, and what no target has is passed over', () => {
    const { likeness: _, ...older } = PLAIN_RULES;
    const file = JSON.stringify({ format: 'placard-target', rules: { ...older, quality: 80, tides: 2 } });
    expect(readTargetFile(file)).toEqual({ kind: 'read', rules: PLAIN_RULES });
  });

  it('holds nothing that opens it', () => {
    expect(writeTargetFile(PLAIN_RULES)).not.toMatch(/token|secret|password/);
  });

  it.each([
    ['reeds', /no description of a target/],
    ['{"format":"other","rules":{}}', /no description of a target/],
    ['{"format":"placard-target","rules":{}}', /What it says of “name” cannot be used/],
    [writeTargetFile({ ...PLAIN_RULES, column: 3 }), /What it says of “column” cannot be used/],
    [' '.repeat(1_000_001), /larger than any description/],
  ])('that is none is refused in words', (text, sentence) => {
    expect(refusedBy(text)).toMatch(sentence);
  });

  it('says the same in another order', () => {
    const { by, ...rest } = PLAIN_RULES.sending;
    expect(partsThatDiffer(PLAIN_RULES, { ...PLAIN_RULES, sending: { ...rest, by } })).toEqual([]);
  });

  it('differs in what is named', () => {
    expect(partsThatDiffer(PLAIN_RULES, PLAIN_RULES)).toEqual([]);
    expect(partsThatDiffer(PLAIN_RULES, { ...PLAIN_RULES, column: 640, dark: true })).toEqual([
      'its column',
      'its dark theme',
    ]);
  });
});
