// @vitest-environment jsdom
import type { Editor } from '@tiptap/core';
import { afterEach, describe, expect, it } from 'vitest';
import type { Block } from '#core/page/blocks/block.ts';
import type { Card } from '#core/page/blocks/cards/schema.ts';
import { plainText } from '#core/page/inline.ts';
import { blank, examplePlacement, heading, paragraph, placed } from '#core/page/testing.ts';
import { putPieces } from '../../../pieces/pieces.ts';
import { exampleAsset } from '../../../testing.tsx';
import { changeBlock, movePlacement } from '../../commands.ts';
import { blocksOf, closeEditor, copied, editorOf, layNothingOut, pasting } from '../../testing.ts';
import { findBlock, shapePieces, takeApart } from '../arrange.ts';
import { ofTray } from '../gathered.ts';
import { addCard, cardAround, makeCards, moveCard, removeCard } from './commands.ts';
import { cardsOfPieces } from './of-pieces.ts';

layNothingOut();

afterEach(closeEditor);

/** "3: [heron] One | Two": the cards of a row after how many stand in one; an empty line is a dash. */
function shortOf(editor: Editor): string {
  const short = (block: Block): string => {
    if (block.type === 'placement') return `[${block.attrs.id}]`;
    if (block.type === 'cards') return `${block.attrs.perRow}: ${block.content.map(short).join(' | ')} ;`;
    if (block.type === 'card') return block.content.map(short).join(' ');
    return block.type === 'paragraph' || block.type === 'heading'
      ? plainText(block.content) || '-'
      : block.type;
  };
  return blocksOf(editor).map(short).join(' ');
}

const piece = (id: string) => placed(examplePlacement('column', { id }));
const card = (id: string, ...content: Card['content']): Card => ({
  type: 'card',
  attrs: { id, link: '' },
  content,
});
const row = (...content: Card[]): Block => ({
  type: 'cards',
  attrs: { id: 'row', perRow: 3, gap: 24 },
  content,
});
const three = () =>
  row(
    card('a', paragraph('One', 'p1')),
    card('b', paragraph('Two', 'p2')),
    card('c', paragraph('Three', 'p3')),
  );

function select(editor: Editor, from: string, to: string): void {
  const places: number[] = [];
  editor.state.doc.descendants((node, pos) => {
    if (node.isText && (node.text === from || node.text === to)) places.push(pos);
  });
  editor.commands.setTextSelection({ from: places[0] ?? 1, to: (places.at(-1) ?? 1) + 1 });
}

describe('a row of cards is made of what is chosen', () => {
  it.each<readonly [string, readonly Block[], string]>([
    [
      'a card for each piece, with the words behind it',
      [paragraph('First'), piece('a'), heading('One'), paragraph('x'), piece('b'), paragraph('Last')],
      'First 2: [a] One x | [b] Last ; -',
    ],
    ['a card for each heading', [heading('First'), paragraph('x'), heading('Last')], '2: First x | Last ; -'],
    [
      'a card for each paragraph',
      [paragraph('First'), paragraph('x'), paragraph('Last')],
      '3: First | x | Last ; -',
    ],
  ])('%s', (_what, blocks, after) => {
    const editor = editorOf(...blocks);
    select(editor, 'First', 'Last');
    expect(makeCards(editor)).toBe(true);
    expect(shortOf(editor)).toBe(after);
    expect(() => editor.state.doc.check()).not.toThrow();
    editor.commands.undo();
    expect(blocksOf(editor).some(({ type }) => type === 'cards')).toBe(false);
  });

  it('and of nothing that cannot stand on one', () => {
    const editor = editorOf(paragraph('First'), { type: 'rule', attrs: { id: 'rule' } }, paragraph('Last'));
    select(editor, 'First', 'Last');
    expect(makeCards(editor)).toBe(false);
    expect(shortOf(editor)).toBe('First rule Last');
  });

  it('nor of more than stand in one', () => {
    const lines = Array.from({ length: 61 }, (_, at) => paragraph(`Card ${at}`, `line-${at}`));
    const editor = editorOf(...lines);
    select(editor, 'Card 0', 'Card 60');
    expect(makeCards(editor)).toBe(false);
    select(editor, 'Card 0', 'Card 59');
    expect(makeCards(editor)).toBe(true);
  });

  it('and is taken apart again', () => {
    const editor = editorOf(three(), blank());
    const found = findBlock(editor, 'row');
    if (found) takeApart(editor, found, 'taking the cards apart');
    expect(shortOf(editor)).toBe('One Two Three -');
  });
});

describe('the cards of a row', () => {
  it('are moved one by one, with the caret in them, and not beyond the ends', () => {
    const editor = editorOf(three(), blank());
    select(editor, 'One', 'One');
    expect(cardAround(editor)).toBe('a');
    expect(moveCard(editor, 'a', -1)).toBe(false);
    moveCard(editor, 'a', 1);
    expect(shortOf(editor)).toBe('3: Two | One | Three ; -');
    expect(cardAround(editor)).toBe('a');
    moveCard(editor, 'a', 1);
    expect(moveCard(editor, 'a', 1)).toBe(false);
    expect(shortOf(editor)).toBe('3: Two | Three | One ; -');
    expect(cardAround(editor)).toBe('a');
    editor.commands.undo();
    expect(shortOf(editor)).toBe('3: Two | One | Three ; -');
  });

  it('are added and removed, the last with its row', () => {
    const editor = editorOf(row(card('a', paragraph('One', 'p1'))), blank());
    addCard(editor, 'row');
    expect(shortOf(editor)).toBe('3: One | - ; -');
    const added = cardAround(editor);
    expect(added).not.toBe('a');
    removeCard(editor, 'a');
    expect(shortOf(editor)).toBe('3: - ; -');
    removeCard(editor, added ?? '');
    expect(shortOf(editor)).toBe('-');
    expect(() => editor.state.doc.check()).not.toThrow();
  });

  it('go on with a line of words where Enter is pressed behind a heading', () => {
    const editor = editorOf(row(card('a', heading('One', 3, 'h'))), blank());
    select(editor, 'One', 'One');
    editor.commands.setTextSelection(editor.state.selection.$from.end());
    editor.commands.splitBlock();
    expect(editor.state.selection.$from.parent.type.name).toBe('paragraph');
  });

  it('take pieces in and let them out by keys', () => {
    const editor = editorOf(row(card('a', paragraph('One', 'p1'))), piece('heron'), blank());
    movePlacement(editor, 'heron', 'up');
    expect(shortOf(editor)).toBe('3: One [heron] ; -');
    movePlacement(editor, 'heron', 'up');
    expect(shortOf(editor)).toBe('3: [heron] One ; -');
    movePlacement(editor, 'heron', 'up');
    expect(shortOf(editor)).toBe('[heron] 3: One ; -');
  });

  it('are copied and pasted with where they lead, and come from a page as they went out', () => {
    const editor = editorOf(three(), blank());
    changeBlock(editor, 'b', { link: '/walks/carry' }, 'where the card leads');
    const html = copied(editor);
    const other = editorOf(blank());
    other.view.pasteHTML(html, pasting());
    expect(shortOf(other)).toMatch('3: One | Two | Three ;');
    const [pasted] = blocksOf(other);
    expect(pasted?.type === 'cards' && pasted.content.map(({ attrs }) => attrs.link)).toEqual([
      '',
      '/walks/carry',
      '',
    ]);
    const third = editorOf(blank());
    third.view.pasteHTML(
      '<ul class="cards in-2" style="--gap:0px"><li class="card linked"><h3><a href="/a">One</a></h3></li><li class="card"><p>Two</p></li></ul>',
      pasting(),
    );
    expect(blocksOf(third)[0]).toMatchObject({
      attrs: { perRow: 2, gap: 0 },
      content: [
        { attrs: { link: '/a' }, content: [{ type: 'heading', content: [{ type: 'text', text: 'One' }] }] },
        { attrs: { link: '' } },
      ],
    });
  });
});

describe('a row of cards of pieces', () => {
  const held = () =>
    putPieces([
      exampleAsset({ label: { title: 'Heron', caption: 'At dawn.' } }),
      exampleAsset({ id: 'bittern', label: { title: '', caption: '' } }),
    ]);

  it('has the title of each as heading, one under the last before it, and its caption as words', () => {
    held();
    const editor = editorOf(heading('Birds', 3), paragraph('Here'));
    expect(cardsOfPieces(editor, ofTray(editor, ['heron', 'bittern']))).toBe(true);
    const made = blocksOf(editor).find(({ type }) => type === 'cards');
    if (made?.type !== 'cards') throw new Error('There are no cards.');
    const [first, second] = made.content;
    expect(made.attrs.perRow).toBe(2);
    expect(first?.content.map(({ type }) => type)).toEqual(['placement', 'heading', 'paragraph']);
    expect(first?.content[1]).toMatchObject({ attrs: { level: 4 }, content: [{ text: 'Heron' }] });
    expect(first?.content[2]).toMatchObject({ content: [{ text: 'At dawn.' }] });
    // Said once: on the card, and not under its picture too.
    expect(first?.content[0]).toMatchObject({ attrs: { asset: 'heron', position: 'column', caption: '' } });
    expect(second?.content.map(({ type }) => type)).toEqual(['placement', 'paragraph']);
    expect(second?.content[0]).toMatchObject({ attrs: { asset: 'bittern', caption: null } });
    expect(editor.state.selection.$from.parent.textContent).toBe('Heron');
    editor.commands.undo();
    expect(blocksOf(editor).map(({ type }) => type)).toEqual(['heading', 'paragraph']);
  });

  it('is none of nothing, and of more than there may be', () => {
    const editor = editorOf(paragraph('Here'));
    expect(cardsOfPieces(editor, ofTray(editor, []))).toBe(false);
    expect(
      cardsOfPieces(
        editor,
        ofTray(
          editor,
          Array.from({ length: 61 }, () => 'heron'),
        ),
      ),
    ).toBe(false);
    expect(shortOf(editor)).toBe('Here');
  });

  it('is cut to one shape in one step, and shown in its own again', () => {
    held();
    const editor = editorOf(row(card('a', piece('one'), paragraph('x')), card('b', piece('two'))));
    const shapes = () =>
      blocksOf(editor).flatMap((block) =>
        block.type === 'cards'
          ? block.content.flatMap(({ content }) =>
              content.flatMap((one) => (one.type === 'placement' ? [one.attrs.ratio] : [])),
            )
          : [],
      );
    shapePieces(editor, 'row', { across: 4, down: 3 });
    expect(shapes()).toEqual([
      { across: 4, down: 3 },
      { across: 4, down: 3 },
    ]);
    editor.commands.undo();
    expect(shapes()).toEqual([null, null]);
  });
});
