import { describe, expect, it } from 'vitest';
import { AS_IT_CAME } from '#core/media/recipe.ts';
import { ledger } from '../undo/ledger.ts';
import { Keeper } from './keeper.ts';

const CHANGE = { prep: AS_IT_CAME };

describe('what is kept on the Bench', () => {
  it('is taken back by an undo that comes while it still waits for the change before it', async () => {
    const written: string[] = [];
    const answers: (() => void)[] = [];
    const write = async (_: object, name: string) => {
      await new Promise<void>((answer) => answers.push(answer));
      written.push(name);
      ledger.add({ name, scope: 'bench', undo: () => void written.push(`undo ${name}`), redo: () => {} });
    };
    const keeper = new Keeper();
    const kept = keeper.keep(CHANGE, 'the first', write);
    expect(await keeper.keep(CHANGE, 'the second', write)).toBeUndefined();
    const undone = ledger.undo();
    answers.shift()?.();
    await expect.poll(() => answers.length).toBe(1);
    answers.shift()?.();
    expect(await kept).toEqual(CHANGE);
    expect(await undone).toBe('the second');
    expect(written).toEqual(['the first', 'the second', 'undo the second']);
  });

  it('drops what waited behind a change that could not be kept, and keeps the next', async () => {
    const keeper = new Keeper();
    const names: string[] = [];
    const write = async (_: object, name: string) => {
      names.push(name);
      if (name === 'the first') throw new Error('refused');
    };
    const refused = keeper.keep(CHANGE, 'the first', write);
    void keeper.keep(CHANGE, 'behind it', write);
    await expect(refused).rejects.toThrow('refused');
    expect(await keeper.keep(CHANGE, 'the next', write)).toEqual(CHANGE);
    expect(names).toEqual(['the first', 'the next']);
  });
});
