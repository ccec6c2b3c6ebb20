// @vitest-environment jsdom
import type { Editor } from '@tiptap/core';
import { afterEach, describe, expect, it } from 'vitest';
import type { Block } from '#core/page/blocks/block.ts';
import { plainText } from '#core/page/inline.ts';
import { blank, examplePlacement, heading, paragraph, placed } from '#core/page/testing.ts';
import { putPieces } from '../../pieces/pieces.ts';
import { exampleAsset } from '../../testing.tsx';
import {
  afterSelection,
  changeBlock,
  movePlacement,
  placePiece,
  removePlacements,
  selectPlacement,
} from '../commands.ts';
import { fromEditor } from '../page-json.ts';
import { blocksOf, closeEditor, copied, editorOf, layNothingOut, pasting } from '../testing.ts';
import { blockOfType, takeApart } from './arrange.ts';
import { bannerOfPieces, bannerOfPlaced, makeBanner } from './banner/commands.ts';
import { makePair, pairOfPieces } from './before-after/commands.ts';
import {
  addColumn,
  columnsOfPieces,
  leadColumn,
  makeColumns,
  removeColumn,
  shareColumns,
} from './columns/commands.ts';
import { galleryOfPieces, makeGallery } from './gallery/commands.ts';
import { ofTray } from './gathered.ts';
import { makeTeaser, removeTeaser, setLead, teaserId } from './teaser/commands.ts';

layNothingOut();

const docOf = (editor: Editor) => fromEditor(editor.state.doc);

afterEach(closeEditor);

/** "gallery(a b) columns(60: Words | 40*: -)": what stands on the page, by the names of pieces and the words of lines. */
function shortOf(editor: Editor): string {
  const short = (block: Block): string => {
    if (block.type === 'placement') return block.attrs.id.slice(0, 8);
    if (block.type === 'gallery') return `gallery(${block.content.map(short).join(' ')})`;
    if (block.type === 'beforeAfter') return `pair(${block.content.map(short).join(' ')})`;
    if (block.type === 'teaser')
      return `teaser(${block.content.map(({ attrs }) => attrs.asset).join(' ')}${block.attrs.words ? `: ${block.attrs.words}` : ''})`;
    if (block.type === 'banner') return `banner(${block.content.map(short).join(' ')})`;
    if (block.type === 'bannerWords') return `over: ${block.content.map(short).join(' ')}`;
    if (block.type === 'columns') return `columns(${block.content.map(short).join(' | ')})`;
    if (block.type === 'column')
      return `${block.attrs.share}${block.attrs.leads ? '*' : ''}: ${block.content.map(short).join(' ')}`;
    return block.type === 'paragraph' || block.type === 'heading'
      ? plainText(block.content) || '-'
      : block.type;
  };
  return blocksOf(editor).map(short).join(' ');
}

const piece = (id: string, asset = 'heron') => placed(examplePlacement('column', { id, asset }));
const gallery = (...ids: string[]): Block => ({
  type: 'gallery',
  attrs: { id: 'gallery', perRow: 3, gap: 8, caption: 'Five' },
  content: ids.map((id) => piece(id)),
});
const pair = (...ids: string[]): Block => ({
  type: 'beforeAfter',
  attrs: { id: 'pair', divider: 50 },
  content: ids.map((id) => piece(id)),
});
const column = (id: string, share: number, ...words: string[]) =>
  ({
    type: 'column',
    attrs: { id, share, leads: false },
    content: words.map((said) => paragraph(said, `${id}-${said}`)),
  }) as Extract<Block, { type: 'column' }>;
const columns = (...content: Extract<Block, { type: 'column' }>[]): Block => ({
  type: 'columns',
  attrs: { id: 'columns', gap: 28 },
  content,
});

const all = (editor: Editor) => editor.commands.selectAll();
function caretIn(editor: Editor, text: string): void {
  editor.state.doc.descendants((node, pos) => {
    if (node.isText && node.text === text) editor.commands.setTextSelection(pos);
  });
}

describe('a gallery', () => {
  it('is made of pieces among the chosen lines, and taken apart', () => {
    const editor = editorOf(
      paragraph('Before'),
      piece('a'),
      piece('b'),
      blank(),
      piece('c'),
      paragraph('After'),
    );
    all(editor);
    expect(makeGallery(editor)).toBe(true);
    expect(shortOf(editor)).toBe('Before gallery(a b c) After');
    expect(() => editor.state.doc.check()).not.toThrow();
    const around = blockOfType(editor, 'gallery');
    if (around) takeApart(editor, around, 'taking it apart');
    expect(shortOf(editor)).toBe('Before a b c After');
  });

  it('is not made where something is said between them, nor of no piece', () => {
    const editor = editorOf(piece('a'), paragraph('Between'), piece('b'), blank());
    all(editor);
    expect(makeGallery(editor)).toBe(false);
    expect(shortOf(editor)).toBe('a Between b -');
    expect(galleryOfPieces(editor, ofTray(editor, []))).toBe(false);
    expect(
      galleryOfPieces(
        editor,
        ofTray(
          editor,
          Array.from({ length: 201 }, () => 'heron'),
        ),
      ),
    ).toBe(false);
  });

  it('lets pieces move in, along and out, by keys', () => {
    const editor = editorOf(paragraph('Before'), gallery('a', 'b'), piece('c'), paragraph('After'));
    const steps = ['gallery(a b c)', 'gallery(a c b)', 'gallery(c a b)', 'c gallery(a b)'];
    for (const step of steps) {
      movePlacement(editor, 'c', 'up');
      expect(shortOf(editor)).toBe(`Before ${step} After`);
    }
    editor.commands.undo();
    expect(shortOf(editor)).toBe('Before gallery(c a b) After');
  });

  it('takes a piece of the tray behind the one that is selected, and goes with its last', () => {
    const editor = editorOf(gallery('a', 'b'), blank());
    selectPlacement(editor, 'a');
    placePiece(editor, 'bittern', afterSelection(editor));
    expect(shortOf(editor)).toMatch(/^gallery\(a \S{8} b\) -$/);
    const alone = editorOf(gallery('a'), blank());
    removePlacements(alone, ['a']);
    expect(shortOf(alone)).toBe('-');
    alone.commands.undo();
    expect(shortOf(alone)).toBe('gallery(a) -');
  });

  it('is copied and pasted with its settings and those of its pieces', () => {
    const editor = editorOf(gallery('a', 'b'), blank());
    const html = copied(editor);
    const other = editorOf(blank());
    other.view.pasteHTML(html, pasting());
    const [pasted] = blocksOf(other);
    expect(pasted).toMatchObject({
      type: 'gallery',
      attrs: { perRow: 3, gap: 8, caption: 'Five' },
      content: [{ attrs: { asset: 'heron' } }, { attrs: { asset: 'heron' } }],
    });
  });
});

describe('a before-and-after', () => {
  it('is made of two pieces, the second cut to the shape of the first', () => {
    putPieces([
      exampleAsset({ id: 'wide', original: { width: 3000, height: 2000 } }),
      exampleAsset({ id: 'square', original: { width: 2000, height: 2000 } }),
    ]);
    const editor = editorOf(piece('a', 'wide'), piece('b', 'square'), blank());
    all(editor);
    expect(makePair(editor)).toBe(true);
    expect(shortOf(editor)).toBe('pair(a b) -');
    const [made] = blocksOf(editor);
    expect(made?.type === 'beforeAfter' && made.content.map(({ attrs }) => attrs.ratio)).toEqual([
      null,
      { across: 3, down: 2 },
    ]);
    expect(pairOfPieces(editor, ofTray(editor, ['wide']))).toBe(false);
    expect(pairOfPieces(editor, ofTray(editor, ['wide', 'square', 'heron']))).toBe(false);
  });

  it('holds two and no third, and exchanges them', () => {
    const editor = editorOf(pair('a', 'b'), piece('c'), blank());
    movePlacement(editor, 'c', 'up');
    expect(shortOf(editor)).toBe('c pair(a b) -');
    movePlacement(editor, 'b', 'up');
    expect(shortOf(editor)).toBe('c pair(b a) -');
    movePlacement(editor, 'b', 'down');
    expect(shortOf(editor)).toBe('c pair(a b) -');
  });
});

describe('columns', () => {
  it.each<readonly [string, readonly Block[], string]>([
    ['each of two to four lines', [paragraph('One'), paragraph('Two')], 'columns(50: One | 50: Two)'],
    ['a line and nothing beside it', [paragraph('One')], 'columns(50: One | 50: -)'],
    [
      'each piece with its words',
      [piece('a'), paragraph('x'), heading('y'), piece('b'), paragraph('z')],
      'columns(50: a x y | 50: b z)',
    ],
    [
      'half of many lines each',
      ['1', '2', '3', '4', '5'].map((said) => paragraph(said, said)),
      'columns(50: 1 2 3 | 50: 4 5)',
    ],
  ])('are made of %s', (_what, blocks, after) => {
    const editor = editorOf(...blocks);
    all(editor);
    expect(makeColumns(editor)).toBe(true);
    expect(shortOf(editor).replace(/ -$/, '')).toBe(after);
    expect(() => editor.state.doc.check()).not.toThrow();
  });

  it('are not made of what stands in an arrangement already', () => {
    const editor = editorOf(paragraph('One'), gallery('a'), paragraph('Two'));
    all(editor);
    expect(makeColumns(editor)).toBe(false);
    expect(columnsOfPieces(editor, ofTray(editor, ['heron']))).toBe(false);
  });

  it('get shares, a first on a phone, another and one less', () => {
    const editor = editorOf(columns(column('l', 50, 'Left'), column('r', 50, 'Right')), blank());
    shareColumns(editor, 'columns', [60, 40]);
    leadColumn(editor, 'columns', 1);
    expect(shortOf(editor)).toBe('columns(60: Left | 40*: Right) -');
    leadColumn(editor, 'columns', 0);
    addColumn(editor, 'columns');
    expect(shortOf(editor)).toBe('columns(60: Left | 40: Right | 50: -) -');
    removeColumn(editor, 'r');
    expect(shortOf(editor)).toBe('columns(60: Left Right | 50: -) -');
    removeColumn(editor, 'l');
    expect(shortOf(editor)).toBe('Left Right -');
    editor.commands.undo();
    expect(shortOf(editor)).toBe('columns(60: Left Right | 50: -) -');
  });

  it('take a piece of the tray behind the line that is written', () => {
    const editor = editorOf(columns(column('l', 50, 'Left'), column('r', 50, 'Right')), blank());
    caretIn(editor, 'Left');
    placePiece(editor, 'bittern', afterSelection(editor));
    expect(shortOf(editor)).toMatch(/^columns\(50: Left \S{8} \| 50: Right\) -$/);
  });

  it('are copied and pasted, and come from a page as they went out', () => {
    const editor = editorOf(columns(column('l', 60, 'Left'), column('r', 40, 'Right')), blank());
    const html = copied(editor);
    const other = editorOf(blank());
    other.view.pasteHTML(html, pasting());
    expect(shortOf(other)).toMatch(/^columns\(60: Left \| 40: Right\)/);
    const third = editorOf(blank());
    third.view.pasteHTML(
      '<div class="columns of-2" style="--gap:12px;--shares:minmax(0, 70fr) minmax(0, 30fr)"><div class="column"><p>One</p></div><div class="column leads"><p>Two</p></div></div>',
      pasting(),
    );
    expect(shortOf(third)).toMatch(/^columns\(70: One \| 30\*: Two\)/);
  });
});

describe('a banner', () => {
  const held = () => putPieces([exampleAsset({ label: { title: 'Heron at dawn' } })]);

  it('is made of a picture and the words chosen with it, and is taken apart again', () => {
    held();
    const editor = editorOf(paragraph('Before'), heading('Booming'), piece('a'), paragraph('At dawn'));
    editor.commands.setTextSelection({ from: 10, to: editor.state.doc.content.size });
    expect(makeBanner(editor)).toBe(true);
    expect(shortOf(editor)).toMatch(/^Before banner\(a over: Booming At dawn\)/);
    expect(() => editor.state.doc.check()).not.toThrow();
    const around = blockOfType(editor, 'banner');
    if (around) takeApart(editor, around, 'taking the banner apart');
    expect(shortOf(editor)).toMatch(/^Before a Booming At dawn/);
  });

  it('is made of nothing else than one picture and lines', () => {
    held();
    const editor = editorOf(piece('a'), { type: 'rule', attrs: { id: 'rule' } }, paragraph('x'));
    editor.commands.selectAll();
    expect(makeBanner(editor)).toBe(false);
    const two = editorOf(piece('a'), piece('b'), paragraph('x'));
    two.commands.selectAll();
    expect(makeBanner(two)).toBe(false);
  });

  it('is made of a piece of the tray, and of one where it stands, with its title over it', () => {
    held();
    const editor = editorOf(paragraph('Here'), piece('a'));
    expect(bannerOfPieces(editor, ['heron', 'heron'])).toBe(false);
    expect(bannerOfPieces(editor, ['heron'])).toBe(true);
    expect(shortOf(editor)).toMatch(/^Here banner\(\S+ over: Heron at dawn\) a/);
    expect(bannerOfPlaced(editor, 'a')).toBe(true);
    expect(shortOf(editor)).toMatch(/banner\(a over: Heron at dawn\)/);
    editor.commands.undo();
    expect(shortOf(editor)).toMatch(/\) a/);
  });

  it('takes the width of a picture that broke out of the column', () => {
    held();
    const editor = editorOf(placed(examplePlacement('bleed', { id: 'a', asset: 'heron' })), paragraph('x'));
    bannerOfPlaced(editor, 'a');
    expect(blocksOf(editor)[0]).toMatchObject({ attrs: { position: 'bleed' } });
  });

  it('is copied with its settings, and stays whole when its picture is taken out', () => {
    held();
    const editor = editorOf(piece('a'), paragraph('x'));
    bannerOfPlaced(editor, 'a');
    const made = blocksOf(editor)[0];
    changeBlock(editor, made?.attrs.id ?? '', { place: 'top', plate: null, link: '/walks' }, 'x');
    const html = copied(editor);
    removePlacements(editor, ['a']);
    expect(shortOf(editor)).toMatch(/^banner\(over: Heron at dawn\)/);
    placePiece(editor, 'heron', 1);
    expect(shortOf(editor)).toMatch(/^banner\(\S+ over: Heron at dawn\)/);
    expect(() => editor.state.doc.check()).not.toThrow();
    const other = editorOf(blank());
    other.view.pasteHTML(html, pasting());
    expect(blocksOf(other)[0]).toMatchObject({
      type: 'banner',
      attrs: { place: 'top', plate: null, link: '/walks' },
    });
  });

  it('has a line of words, and no second heading, where Enter is pressed behind its heading', () => {
    held();
    const editor = editorOf(piece('a'), paragraph('x'));
    bannerOfPlaced(editor, 'a');
    editor.commands.focus();
    const end = blockOfType(editor, 'heading');
    editor.commands.setTextSelection((end?.pos ?? 0) + (end?.node.nodeSize ?? 0) - 1);
    editor.commands.splitBlock();
    expect(blockOfType(editor, 'paragraph')).not.toBeNull();
    expect(blockOfType(editor, 'bannerWords')?.node.childCount).toBe(2);
  });
});

describe('a teaser', () => {
  const square = { across: 1, down: 1 };

  it('is made of a use of a piece, before the article, in a shape of its own', () => {
    const editor = editorOf(paragraph('Here'), piece('a'));
    makeTeaser(editor, examplePlacement('bleed', { id: 'a', asset: 'heron' }), square);
    expect(shortOf(editor)).toMatch(/^teaser\(heron\) Here a/);
    expect(blocksOf(editor)[0]).toMatchObject({
      content: [{ attrs: { position: 'column', ratio: square, click: { kind: 'nothing' } } }],
    });
    expect(docOf(editor).tray).toEqual(['heron']);
    editor.commands.undo();
    expect(shortOf(editor)).toMatch(/^Here a/);
  });

  it('gets another picture and keeps its words', () => {
    const editor = editorOf(paragraph('Here'));
    makeTeaser(editor, examplePlacement('column', { asset: 'heron' }), null);
    changeBlock(editor, teaserId(editor) ?? '', { words: 'They boom.' }, 'the words of the teaser');
    makeTeaser(editor, examplePlacement('column', { asset: 'bittern' }), null);
    expect(shortOf(editor)).toMatch(/^teaser\(bittern: They boom\.\) Here/);
    removeTeaser(editor);
    expect(shortOf(editor)).toMatch(/^Here/);
  });

  it('is one of its page, whatever is pasted', () => {
    const editor = editorOf(paragraph('Here'));
    makeTeaser(editor, examplePlacement('column', { asset: 'heron' }), null);
    editor.commands.selectAll();
    const html = copied(editor);
    editor.commands.setTextSelection(editor.state.doc.content.size - 1);
    editor.view.pasteHTML(html, pasting());
    expect(shortOf(editor).match(/teaser/g)).toHaveLength(1);
  });

  it('goes with its picture', () => {
    const editor = editorOf(paragraph('Here'));
    makeTeaser(editor, examplePlacement('column', { asset: 'heron' }), null);
    const [made] = blocksOf(editor);
    removePlacements(editor, [made?.type === 'teaser' ? (made.content[0]?.attrs.id ?? '') : '']);
    expect(shortOf(editor)).toMatch(/^Here/);
  });

  it('is chosen apart from the lead, which undo takes back', () => {
    const editor = editorOf(piece('a'), paragraph('x'));
    setLead(editor, 'a');
    expect(docOf(editor).lead).toBe('a');
    setLead(editor, null);
    expect(docOf(editor).lead).toBeUndefined();
    editor.commands.undo();
    expect(docOf(editor).lead).toBe('a');
  });
});
