import { describe, expect, it } from 'vitest';
import { Ledger } from './ledger.ts';

function counting(start = 0) {
  const ledger = new Ledger();
  let value = start;
  const set = (next: number, name: string, scope = 'page') => {
    const before = value;
    value = next;
    ledger.add({
      name,
      scope,
      undo: () => {
        value = before;
      },
      redo: () => {
        value = next;
      },
    });
  };
  return { ledger, set, now: () => value };
}

describe('the ledger', () => {
  it('takes back in one order, and says what', async () => {
    const { ledger, set, now } = counting();
    set(1, 'one');
    set(2, 'two');
    expect(await ledger.undo()).toBe('two');
    expect(now()).toBe(1);
    expect(await ledger.undo()).toBe('one');
    expect(await ledger.undo()).toBeNull();
    expect(now()).toBe(0);
    expect(await ledger.redo()).toBe('one');
    expect(await ledger.redo()).toBe('two');
    expect(now()).toBe(2);
  });

  it('cannot do again what came before a new deed', async () => {
    const { ledger, set } = counting();
    set(1, 'one');
    await ledger.undo();
    set(5, 'five');
    expect(await ledger.redo()).toBeNull();
  });

  it('keeps a deed that could not be taken back', async () => {
    const { ledger } = counting();
    ledger.add({
      name: 'a label',
      scope: 'piece',
      undo: () => Promise.reject(new Error('no line')),
      redo: () => undefined,
    });
    await expect(ledger.undo()).rejects.toThrow('no line');
    expect(ledger.store.state.done.map((deed) => deed.name)).toEqual(['a label']);
    expect(ledger.store.state.isBusy).toBe(false);
  });

  it('forgets the deeds of a screen that is left, and no others', async () => {
    const { ledger, set } = counting();
    set(1, 'on the page', 'page 1');
    set(2, 'on a label', 'piece 7');
    ledger.forget('page 1');
    expect(await ledger.undo()).toBe('on a label');
    expect(await ledger.undo()).toBeNull();
  });
});
