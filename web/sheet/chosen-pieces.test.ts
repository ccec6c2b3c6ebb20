// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import type { BeforeAfter } from '#core/page/blocks/before-after/schema.ts';
import type { Placement } from '#core/page/blocks/placement/schema.ts';
import type { SideBox } from '#core/page/blocks/side-box/schema.ts';
import { examplePlacement, paragraph, placed } from '#core/page/testing.ts';
import { placementsOf } from '#core/page/walk.ts';
import { ledger } from '../undo/ledger.ts';
import { pairOfPieces } from './blocks/before-after/commands.ts';
import { cardsOfPieces } from './blocks/cards/of-pieces.ts';
import { columnsOfPieces } from './blocks/columns/commands.ts';
import { galleryOfPieces } from './blocks/gallery/commands.ts';
import { ofSheet } from './blocks/gathered.ts';
import { choose, chosenIn, withoutChosen } from './chosen-pieces.ts';
import { findPlacement, movePlacementsTo, placesToMove } from './commands.ts';
import { blocksOf, closeEditor, editorOf, layNothingOut } from './testing.ts';

layNothingOut();
afterEach(closeEditor);

const piece = (id: string, change: Partial<Placement> = {}) =>
  placed(examplePlacement('column', { id, asset: id, ...change }));

describe('pieces chosen together on the sheet, wherever they stand', () => {
  const sheet = () => editorOf(piece('a'), paragraph('one'), box(piece('b')), paragraph('two'), piece('c'));
  const box = (...content: SideBox['content']): SideBox => ({
    type: 'sideBox',
    attrs: { id: 'box', title: 'Beside', position: 'column', share: 40 },
    content: [paragraph('in it'), ...content],
  });

  it.each([
    ['gallery', galleryOfPieces],
    ['columns', columnsOfPieces],
    ['cards', cardsOfPieces],
  ] as const)('become %s where the first of them stood, in one step that undo takes back', (type, make) => {
    const editor = sheet();
    choose(editor, ['c', 'a', 'b']);
    expect(make(editor, ofSheet(editor))).toBe(true);
    const [made, ...rest] = blocksOf(editor);
    expect(made?.type).toBe(type);
    expect(placementsOf({ blocks: made ? [made] : [] }).map(({ id }) => id)).toEqual(['a', 'b', 'c']);
    expect(rest.map((block) => block.type)).toEqual(['paragraph', 'sideBox', 'paragraph', 'paragraph']);
    expect(chosenIn(editor.state)).toEqual([]);
    editor.commands.undo();
    expect(placementsOf({ blocks: [...blocksOf(editor)] }).map(({ id }) => id)).toEqual(['a', 'b', 'c']);
    expect(blocksOf(editor)[0]?.type).toBe('placement');
  });

  it('are moved together, in reading order, and stay chosen', () => {
    const editor = sheet();
    choose(editor, ['c', 'a']);
    const { doc } = editor.state;
    const founds = ['a', 'c'].flatMap((id) => findPlacement(editor, id) ?? []);
    const [first, second] = founds;
    if (!first || !second) throw new Error('Both stand there.');
    const box = blocksOf(editor)[2];
    expect(box?.type).toBe('sideBox');
    const places = placesToMove(doc, first, second);
    // Before "one" there are, once both are gone, no more places than one: at the head.
    expect(places[0]).toBe(0);
    movePlacementsTo(editor, ['c', 'a'], places.at(-1) ?? 0);
    expect(placementsOf({ blocks: [...blocksOf(editor)] }).map(({ id }) => id)).toEqual(['b', 'a', 'c']);
    expect(chosenIn(editor.state)).toEqual(['c', 'a']);
    expect(ledger.store.state.done.at(-1)?.name).toBe('moving 2 pieces');
    editor.commands.undo();
    expect(placementsOf({ blocks: [...blocksOf(editor)] }).map(({ id }) => id)).toEqual(['a', 'b', 'c']);
  });

  it('find room only where all of them have it', () => {
    const pair: BeforeAfter = {
      type: 'beforeAfter',
      attrs: { id: 'pair', divider: 50 },
      content: [piece('x')],
    };
    const editor = editorOf(pair, paragraph('one'), piece('a'), piece('b'));
    const founds = ['a', 'b'].flatMap((id) => findPlacement(editor, id) ?? []);
    const [first, second] = founds;
    if (!first || !second) throw new Error('Both stand there.');
    const inPair = (at: number) => editor.state.doc.resolve(at).parent.type.name === 'beforeAfter';
    expect(placesToMove(editor.state.doc, first).some(inPair)).toBe(true);
    expect(placesToMove(editor.state.doc, first, second).some(inPair)).toBe(false);
  });

  it('keep what they say and how they are cut', () => {
    const editor = editorOf(
      piece('a', { caption: 'Mine', ratio: { across: 1, down: 1 } }),
      paragraph('x'),
      piece('b'),
    );
    choose(editor, ['b', 'a']);
    pairOfPieces(editor, ofSheet(editor));
    expect(placementsOf({ blocks: [...blocksOf(editor)] })[0]).toMatchObject({
      id: 'a',
      caption: 'Mine',
      ratio: { across: 1, down: 1 },
    });
  });

  it('are taken off together, and a choice forgets what is gone', () => {
    const editor = sheet();
    choose(editor, ['a', 'c']);
    withoutChosen(editor.view, 'taking pieces off the page');
    expect(placementsOf({ blocks: [...blocksOf(editor)] }).map(({ id }) => id)).toEqual(['b']);
    expect(chosenIn(editor.state)).toEqual([]);
    editor.commands.undo();
    choose(editor, ['a', 'b', 'c']);
    editor.commands.deleteRange({ from: 0, to: 1 });
    expect(chosenIn(editor.state)).toEqual(['b', 'c']);
  });
});
