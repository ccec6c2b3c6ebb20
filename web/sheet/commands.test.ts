// @vitest-environment jsdom
import type { Editor } from '@tiptap/core';
import fc from 'fast-check';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { AS_IT_CAME } from '#core/media/recipe.ts';
import type { Block } from '#core/page/blocks/block.ts';
import type { PageDoc } from '#core/page/model.ts';
import { blank, examplePage, examplePlacement, PLAIN_RULES, paragraph } from '#core/page/testing.ts';
import { placementsOf } from '#core/page/walk.ts';
import { ledger } from '../undo/ledger.ts';
import {
  addToTray,
  changePlacement,
  fillWant,
  letGo,
  linkFile,
  moveOnTray,
  movePlacement,
  movePlacementTo,
  paragraphNumber,
  placePiece,
  removePlacements,
  selectedPlacement,
  selectPlacement,
  setTitle,
  takeOffTray,
} from './commands.ts';
import { makeEditor } from './editor.ts';
import { QUIET_HOOKS } from './hooks.ts';
import { placementKey, stepped } from './keys.ts';
import { onSheet } from './on-sheet.ts';
import { fromEditor } from './page-json.ts';
import { NAME_META } from './step-name.ts';
import { layNothingOut } from './testing.ts';

layNothingOut();

let open: Editor | null = null;
afterEach(() => {
  open?.destroy();
  ledger.forget('test');
});

function editorOf(page: PageDoc): Editor {
  open?.destroy();
  ledger.forget('test');
  open = makeEditor(page, { id: 'reserve', version: 1, rules: PLAIN_RULES }, 'test', true, QUIET_HOOKS);
  return open;
}

const placed = (id: string): Block => ({
  type: 'placement',
  attrs: examplePlacement('column', { id, asset: id }),
});
const docOf = (editor: Editor) => fromEditor(editor.state.doc);

/** The blocks in short: the words of a paragraph, the id of a placement in brackets, "-" for an empty paragraph. */
function shortOf(editor: Editor): string {
  return docOf(editor)
    .blocks.map((block) => {
      if (block.type === 'placement') return `[${block.attrs.id}]`;
      if (block.type === 'paragraph') {
        const [first] = block.content ?? [];
        return first?.type === 'text' ? first.text : '-';
      }
      return block.type;
    })
    .join(' ');
}

const PAGE = examplePage(paragraph('one'), placed('heron'), paragraph('two'), paragraph('three'));

it('what is done on the sheet has the hand there at once, so that the next key is text', () => {
  const editor = editorOf(examplePage(paragraph('The tide turns.')));
  document.body.replaceChildren(document.createElement('button'), editor.view.dom);
  document.querySelector('button')?.focus();
  onSheet(editor).focus('start').run();
  expect(document.activeElement).toBe(editor.view.dom);
  expect(editor.state.selection.from).toBe(1);
  document.body.replaceChildren();
});

describe('a piece that is let go of', () => {
  const caret = (editor: Editor) => editor.state.selection.$from.parent.textContent;

  it('leaves the caret in the words behind it, or before it', () => {
    const editor = editorOf(examplePage(paragraph('Before'), placed('a'), paragraph('Behind')));
    selectPlacement(editor, 'a');
    letGo(editor);
    expect(caret(editor)).toBe('Behind');
  });

  it('was none: the caret stays where one wrote', () => {
    const editor = editorOf(examplePage(placed('a'), paragraph('Here'), paragraph('There')));
    editor.commands.setTextSelection(editor.state.doc.content.size - 2);
    const { from } = editor.state.selection;
    letGo(editor);
    expect(editor.state.selection.from).toBe(from);
    linkFile(editor, 'map', 'The map');
    expect(caret(editor)).toBe('TherThe mape');
    expect(JSON.stringify(editor.getJSON())).toContain('"href":"file:map"');
  });
});

describe('a placement is moved', () => {
  it.each([
    ['up', 'up', '[heron] one two three -'],
    ['down', 'down', 'one two [heron] three -'],
    ['to the top', 'top', '[heron] one two three -'],
    ['to the bottom, before the empty last paragraph', 'bottom', 'one two three [heron] -'],
    ['beside paragraph 1', { besideParagraph: 1 }, '[heron] one two three -'],
    ['beside paragraph 3', { besideParagraph: 3 }, 'one two [heron] three -'],
  ] as const)('%s', (_, move, after) => {
    const editor = editorOf(examplePage(...PAGE.blocks, blank()));
    expect(movePlacement(editor, 'heron', move)).toBe(true);
    expect(shortOf(editor)).toBe(after);
    expect(selectedPlacement(editor)?.id).toBe('heron');
  });

  it('nowhere when it is there already, or the paragraph is not there', () => {
    const editor = editorOf(PAGE);
    movePlacement(editor, 'heron', 'top');
    expect(movePlacement(editor, 'heron', 'top')).toBe(false);
    expect(movePlacement(editor, 'heron', 'up')).toBe(false);
    expect(movePlacement(editor, 'heron', { besideParagraph: 9 })).toBe(false);
    expect(movePlacement(editor, 'nobody', 'up')).toBe(false);
    expect(shortOf(editor)).toBe('[heron] one two three');
  });

  it('by dragging to a boundary, and not at all onto itself', () => {
    const editor = editorOf(PAGE);
    movePlacementTo(editor, 'heron', 0);
    expect(shortOf(editor)).toBe('[heron] one two three');
    movePlacementTo(editor, 'heron', 1);
    expect(shortOf(editor)).toBe('[heron] one two three');
    movePlacementTo(editor, 'heron', editor.state.doc.content.size);
    // Behind it there is a line to write in.
    expect(shortOf(editor)).toBe('one two three [heron] -');
  });

  it('any way, without a word or another piece lost, and undo brings each back', () => {
    const moves = fc.array(
      fc.oneof(
        fc.constantFrom('up' as const, 'down' as const, 'top' as const, 'bottom' as const),
        fc.integer({ min: 1, max: 5 }).map((besideParagraph) => ({ besideParagraph })),
      ),
      { maxLength: 8 },
    );
    const page = examplePage(
      paragraph('one'),
      placed('heron'),
      paragraph('two'),
      placed('bittern'),
      paragraph('three'),
    );
    fc.assert(
      fc.property(moves, fc.constantFrom('heron', 'bittern'), (all, id) => {
        const editor = editorOf(page);
        let moved = 0;
        for (const move of all) if (movePlacement(editor, id, move)) moved += 1;
        const words = shortOf(editor)
          .split(' ')
          .filter((word) => word !== '-');
        expect([...words].sort()).toEqual(['[bittern]', '[heron]', 'one', 'three', 'two']);
        expect(words.filter((word) => !word.startsWith('['))).toEqual(['one', 'two', 'three']);
        for (let step = 0; step < moved; step += 1) editor.commands.undo();
        expect(shortOf(editor)).toBe('one [heron] two [bittern] three');
      }),
      { numRuns: 40 },
    );
  });
});

describe('a piece is placed', () => {
  it('at a block boundary, selected, and put on the tray once', () => {
    const editor = editorOf(examplePage(paragraph('one'), paragraph('two')));
    placePiece(editor, 'heron', 5);
    expect(docOf(editor).blocks.map(({ type }) => type)).toEqual(['paragraph', 'placement', 'paragraph']);
    expect(selectedPlacement(editor)?.asset).toBe('heron');
    placePiece(editor, 'heron', 0);
    expect(docOf(editor).tray).toEqual(['heron']);
    const ids = placementsOf(docOf(editor)).map(({ id }) => id);
    expect(new Set(ids).size).toBe(2);
    editor.commands.undo();
    editor.commands.undo();
    expect(docOf(editor).tray).toEqual([]);
    expect(shortOf(editor)).toBe('one two');
  });

  it('and done right after something was typed as a step of its own', () => {
    const editor = editorOf(examplePage(paragraph('x')));
    onSheet(editor).focus('start').run();
    editor.commands.insertContent('typed ');
    editor.view.dispatch(editor.state.tr.insertText('and named ').setMeta(NAME_META, 'a step'));
    expect(shortOf(editor)).toBe('typed and named x');
    expect(ledger.store.state.done.at(-1)?.name).toBe('a step');
    editor.commands.undo();
    expect(shortOf(editor)).toBe('typed x');
  });

  it('and changed as one named step, which undo says and takes back', () => {
    const editor = editorOf(PAGE);
    changePlacement(editor, 'heron', { position: 'bleed' }, 'placing it edge to edge');
    expect(placementsOf(docOf(editor))[0]?.position).toBe('bleed');
    expect(ledger.store.state.done.at(-1)?.name).toBe('placing it edge to edge');
    editor.commands.undo();
    expect(placementsOf(docOf(editor))[0]?.position).toBe('column');
  });

  it('and taken off, while it stays on the tray', () => {
    const editor = editorOf({ ...PAGE, tray: ['heron'] });
    removePlacements(editor, ['heron']);
    expect(shortOf(editor)).toBe('one two three');
    expect(docOf(editor).tray).toEqual(['heron']);
  });

  it('and knows which paragraph it stands beside', () => {
    const editor = editorOf(PAGE);
    expect(paragraphNumber(editor, 'heron')).toBe(2);
    movePlacement(editor, 'heron', 'bottom');
    expect(paragraphNumber(editor, 'heron')).toBe(0);
  });
});

describe('the tray, the wants and the title', () => {
  const want = { id: 'lead', purpose: 'Lead', shape: 'any', leastWidth: 0, filledBy: null } as const;

  it('are part of the one history', () => {
    const editor = editorOf({ ...examplePage(paragraph('one')), wants: [want] });
    addToTray(editor, 'heron');
    addToTray(editor, 'heron');
    fillWant(editor, 'lead', 'bittern');
    setTitle(editor, 'Booming');
    expect(docOf(editor)).toMatchObject({
      title: 'Booming',
      tray: ['heron', 'bittern'],
      wants: [{ filledBy: 'bittern' }],
    });
    editor.commands.undo();
    expect(docOf(editor).title).toBe('Bitterns');
    editor.commands.undo();
    expect(docOf(editor)).toMatchObject({ tray: ['heron'], wants: [{ filledBy: null }] });
    editor.commands.redo();
    takeOffTray(editor, 'heron');
    expect(docOf(editor).tray).toEqual(['bittern']);
  });
});

describe('the tray', () => {
  const trayed = (editor: Editor) => docOf(editor).tray.join(' ');

  it('is put into another order, each step with its name', () => {
    const editor = editorOf({ ...examplePage(paragraph('one')), tray: ['a', 'b', 'c'] });
    expect(moveOnTray(editor, ['a'], 'c')).toBe(true);
    expect(trayed(editor)).toBe('b a c');
    expect(moveOnTray(editor, ['b'], null)).toBe(true);
    expect(trayed(editor)).toBe('a c b');
    expect(ledger.store.state.done.at(-1)?.name).toBe('moving it on the tray');
  });

  it('takes several before another in the order that they have', () => {
    const editor = editorOf({ ...examplePage(paragraph('one')), tray: ['a', 'b', 'c', 'd'] });
    expect(moveOnTray(editor, ['d', 'b'], 'a')).toBe(true);
    expect(trayed(editor)).toBe('b d a c');
    // Before one of themselves they come to stand together.
    expect(moveOnTray(editor, ['b', 'c'], 'b')).toBe(true);
    expect(trayed(editor)).toBe('b c d a');
    expect(ledger.store.state.done.at(-1)?.name).toBe('moving them on the tray');
  });

  it('stays as it is where a piece stands there already, or is not there', () => {
    const editor = editorOf({ ...examplePage(paragraph('one')), tray: ['a', 'b', 'c'] });
    expect(moveOnTray(editor, ['a'], 'b')).toBe(false);
    expect(moveOnTray(editor, ['c'], null)).toBe(false);
    expect(moveOnTray(editor, ['gone'], 'b')).toBe(false);
    expect(moveOnTray(editor, ['a'], 'gone')).toBe(false);
    expect(moveOnTray(editor, ['a'], 'a')).toBe(false);
    expect(trayed(editor)).toBe('a b c');
  });
});

describe('keys on a selected piece', () => {
  let later = Date.now();
  function press(editor: Editor, key: string, more: KeyboardEventInit = {}): boolean {
    const placement = selectedPlacement(editor);
    if (!placement) throw new Error('nothing is selected');
    return placementKey(editor, placement, new KeyboardEvent('keydown', { key, ...more }), QUIET_HOOKS);
  }

  it.each([
    ['l', 'beside-left'],
    ['R', 'beside-right'],
    ['c', 'centred'],
    ['w', 'column'],
    ['o', 'breakout'],
    ['e', 'bleed'],
  ])('%s places it %s, with the margins and width of that', (key, position) => {
    const editor = editorOf(
      examplePage(paragraph('one'), {
        type: 'placement',
        attrs: examplePlacement('centred', { id: 'heron', width: { unit: 'px', value: 300 } }),
      }),
    );
    selectPlacement(editor, 'heron');
    later += 60_000;
    vi.useFakeTimers({ now: later });
    expect(press(editor, key)).toBe(true);
    vi.runAllTimers();
    vi.useRealTimers();
    expect(placementsOf(docOf(editor))[0]).toMatchObject({ position, width: null, margins: null });
  });

  it('never type over it, and leave combinations to the browser', () => {
    const editor = editorOf(PAGE);
    selectPlacement(editor, 'heron');
    expect(press(editor, 'x')).toBe(true);
    expect(press(editor, 'z', { ctrlKey: true })).toBe(false);
    expect(press(editor, 'F5')).toBe(false);
    expect(shortOf(editor)).toBe('one [heron] two three');
    expect(press(editor, 'ArrowDown', { altKey: true })).toBe(true);
    expect(shortOf(editor)).toBe('one two [heron] three');
    expect(press(editor, 'Delete')).toBe(true);
    expect(shortOf(editor)).toBe('one two three');
  });

  it('make it wider and narrower in its own unit, within bounds', () => {
    const of = (value: number, unit: 'px' | '%') => examplePlacement('centred', { width: { unit, value } });
    expect(stepped(of(300, 'px'), 1)).toEqual({ unit: 'px', value: 310 });
    expect(stepped(of(45, 'px'), -1)).toEqual({ unit: 'px', value: 40 });
    expect(stepped(of(99, '%'), 1)).toEqual({ unit: '%', value: 100 });
    expect(stepped(of(6, '%'), -1)).toEqual({ unit: '%', value: 5 });
    expect(stepped(examplePlacement('centred'), 1)).toEqual({ unit: '%', value: 72 });
  });
});

describe('words over a placed picture', () => {
  it('are not lost when the page goes through the editor', () => {
    const words = { text: 'Booming\nagain', place: 'top', size: 60, ink: '#ffffff', plate: null } as const;
    const placement = examplePlacement('column');
    const prep = { ...AS_IT_CAME, words };
    const editor = editorOf(examplePage({ type: 'placement', attrs: { ...placement, prep } }));
    expect(placementsOf(docOf(editor))[0]?.prep?.words).toEqual(words);
  });
});
