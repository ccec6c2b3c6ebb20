import { describe, expect, it } from 'vitest';
import { readQuestion, writeQuestion } from './question.ts';

describe("the shelf's question", () => {
  it('reads back from the address it is written to', () => {
    const question = {
      folder: 'birds/heron',
      licence: 'commercial',
      words: 'dawn',
      leastWidth: '800',
      order: 'widest',
    } as const;
    expect(readQuestion(writeQuestion(question))).toEqual(question);
  });

  it('leaves out what is not asked', () => {
    expect(writeQuestion({ kind: 'any', missing: 'nothing', words: '', shape: 'any' }).toString()).toBe('');
  });

  it.each(['licence=free', 'order=loudest', 'leastWidth=wide'])(
    'asks for everything when the address says %s',
    (address) => {
      expect(readQuestion(new URLSearchParams(address))).toEqual({});
    },
  );

  it('passes over what is not part of it', () => {
    expect(readQuestion(new URLSearchParams('piece=1&words=reed'))).toEqual({ words: 'reed' });
  });
});
