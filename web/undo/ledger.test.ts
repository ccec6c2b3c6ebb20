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

function waiting() {
  let resolve: () => void = () => undefined;
  const promise = new Promise<void>((done) => {
    resolve = done;
  });
  return { promise, resolve: () => resolve() };
}

describe('the ledger', () => {
  it('takes back what is seen done already though it is not written down yet, and not what was before it', async () => {
    const { ledger, set, now } = counting();
    set(1, 'one');
    const line = waiting();
    const doing = ledger.during(async () => {
      await line.promise;
      set(2, 'two');
    });
    const undone = ledger.undo();
    line.resolve();
    await doing;
    expect(await undone).toBe('two');
    expect(now()).toBe(1);
    // What fails leaves nothing to wait for.
    await ledger.during(() => Promise.reject(new Error('No line.'))).catch(() => undefined);
    expect(await ledger.undo()).toBe('one');
  });

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

  it('answers every press, also while a deed is still being taken back', async () => {
    const { ledger, set, now } = counting();
    set(1, 'one');
    const slow = waiting();
    ledger.add({ name: 'slow', scope: 'page', undo: () => slow.promise, redo: () => undefined });
    const both = Promise.all([ledger.undo(), ledger.undo(), ledger.undo()]);
    await Promise.resolve();
    expect(now()).toBe(1);
    slow.resolve();
    expect(await both).toEqual(['slow', 'one', null]);
    expect(now()).toBe(0);
  });

  it('loses nothing that is done while a deed is being taken back', async () => {
    const { ledger, set, now } = counting();
    const slow = waiting();
    ledger.add({ name: 'slow', scope: 'page', undo: () => slow.promise, redo: () => undefined });
    const undone = ledger.undo();
    await Promise.resolve();
    set(1, 'meanwhile');
    slow.resolve();
    await undone;
    expect(ledger.store.state.done.map(({ name }) => name)).toEqual(['meanwhile']);
    expect(await ledger.redo()).toBeNull();
    expect(await ledger.undo()).toBe('meanwhile');
    expect(now()).toBe(0);
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
