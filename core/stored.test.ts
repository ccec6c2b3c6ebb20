import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NO_TERMS } from './rights/terms.ts';
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

  it('as pages whose blocks had no IDs is read with one for each, the same at each reading', () => {
    const item = { type: 'listItem', content: [{ type: 'paragraph' }] };
    const stored = {
      title: 'Bitterns',
      blocks: [
        { type: 'paragraph', content: [{ type: 'text', text: 'One' }] },
        { type: 'heading', attrs: { level: 3 } },
        { type: 'placement', attrs: { id: 'heron', asset: 'a' } },
        { type: 'orderedList', attrs: { start: 3 }, content: [item] },
        { type: 'placement', attrs: { id: 'heron', asset: 'a' } },
      ],
    };
    const read = fromStored(STORED.page, stored);
    expect(read).toEqual({
      title: 'Bitterns',
      blocks: [
        { type: 'paragraph', attrs: { id: 'block-1' }, content: [{ type: 'text', text: 'One' }] },
        { type: 'heading', attrs: { level: 3, id: 'block-2' } },
        { type: 'placement', attrs: { id: 'heron', asset: 'a' } },
        { type: 'orderedList', attrs: { start: 3, id: 'block-4' }, content: [item] },
        { type: 'placement', attrs: { id: 'block-5', asset: 'a' } },
      ],
    });
    expect(fromStored(STORED.page, toStored(STORED.page, read))).toEqual(read);
  });

  it('as labels of other terms is read under those of the field, and only once', () => {
    const stored = {
      title: 'Heron',
      maker: 'Ines',
      notice: '©',
      description: 'd',
      taken: '',
      words: ['reed'],
    };
    const read = {
      title: 'Heron',
      creator: 'Ines',
      copyrightNotice: '©',
      extendedDescription: 'd',
      dateCreated: '',
      keywords: ['reed'],
      translations: [],
      work: '',
      licenceAddress: '',
      terms: NO_TERMS,
      decisions: [],
      creditWords: [],
      houseLicence: null,
    };
    expect(fromStored(STORED.label, stored)).toEqual(read);
    expect(fromStored(STORED.label, toStored(STORED.label, read))).toEqual(read);
  });

  it('as recipes and placements of other terms is read under those of the field, wherever they lie', () => {
    const recipe = { version: 1, turn: 0, mirror: false, off: ['tone', 'ground'], ground: '#ffffff' };
    const now = {
      version: 1,
      turn: 0,
      mirror: false,
      disabledSteps: ['tone', 'backgroundColour'],
      backgroundColour: '#ffffff',
    };
    expect(fromStored(STORED.prep, recipe)).toEqual(now);
    expect(fromStored(STORED.prep, toStored(STORED.prep, now))).toEqual(now);
    const placed = { id: 'a', asset: 'heron', position: 'column', ground: '#000000', prep: recipe };
    expect(fromStored(STORED.page, { title: 'x', blocks: [{ type: 'placement', attrs: placed }] })).toEqual({
      title: 'x',
      blocks: [
        {
          type: 'placement',
          attrs: { id: 'a', asset: 'heron', position: 'column', backgroundColour: '#000000', prep: now },
        },
      ],
    });
    expect(fromStored(STORED.runRow, { before: { prep: recipe }, after: { prep: now } })).toEqual({
      before: { prep: now },
      after: { prep: now },
    });
    expect(fromStored(STORED.jobInput, { order: { recipe: { prep: recipe } } })).toEqual({
      order: { recipe: { prep: now } },
    });
  });

  it('as an embed that loads on a click is read so under its name', () => {
    const stored = { embed: { address: 'https://tidewatch.example/a', onClick: true }, poster: 'host' };
    const read = { embed: { address: 'https://tidewatch.example/a', loadOnClick: true }, poster: 'host' };
    expect(fromStored(STORED.embed, stored)).toEqual(read);
    expect(fromStored(STORED.embed, toStored(STORED.embed, read))).toEqual(read);
  });

  it('by a later version is not taken for something that it is not', () => {
    expect(fromStored(HERONS, { v: 9, birds: [] })).toEqual({ v: 9, birds: [] });
  });
});
