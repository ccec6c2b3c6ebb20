import { describe, expect, it } from 'vitest';
import type { Block } from './blocks/block.ts';
import { newPlacement } from './blocks/placement/schema.ts';
import { heardAround } from './heard.ts';
import { emptyPage } from './model.ts';

const p = (id: string, text: string): Block => ({
  type: 'paragraph',
  attrs: { id },
  content: [{ type: 'text', text }],
});
const figure = (id: string): Block => ({ type: 'placement', attrs: newPlacement(id, 'heron') });
const page = (...blocks: Block[]) => ({ ...emptyPage('Herons'), blocks });

describe('what is heard round a picture', () => {
  it('is what stands next to it, with a stop where there is none, over other pictures too', () => {
    const heard = heardAround(
      page(p('a', 'It rained'), figure('one'), figure('two'), p('b', 'Then  it cleared.')),
      'one',
    );
    expect(heard).toEqual({ before: 'It rained.', after: 'Then it cleared.' });
  });

  it('is the end of what comes before and the beginning of what comes after', () => {
    const long = `First ${'word '.repeat(60)}last.`;
    const { before, after } = heardAround(page(p('a', long), figure('one'), p('b', long)), 'one');
    expect(before).toMatch(/^\.\.\. word .* last\.$/);
    expect(after).toMatch(/^First .* word \.\.\.$/);
  });

  it('is nothing where nothing stands, or the picture does not', () => {
    expect(heardAround(page(figure('one')), 'one')).toEqual({ before: '', after: '' });
    expect(heardAround(page(p('a', 'It rained.')), 'gone')).toEqual({ before: '', after: '' });
  });
});
