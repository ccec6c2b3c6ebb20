// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import type { KeptPart } from '#core/page/blocks/kept-part/schema.ts';
import { contentFor } from '#core/page/kept-parts.ts';
import { blank, examplePlacement, heading, paragraph, placed } from '#core/page/testing.ts';
import { onSheet } from '../../on-sheet.ts';
import { fromEditor } from '../../page-json.ts';
import { blocksOf, closeEditor, editorOf, layNothingOut } from '../../testing.ts';
import { addPart, makeAsKept, namePart, partAround, setPartApart, unlinkPart } from './commands.ts';

layNothingOut();
afterEach(closeEditor);

const HOURS = [heading('Opening hours', 3, 'h'), paragraph('Nine to five.', 'p')];
const part = (content = contentFor(HOURS, 'here')): KeptPart => ({
  type: 'keptPart',
  attrs: { id: 'here', part: 'hours' },
  content,
});

describe('a kept part on the sheet', () => {
  it('is set apart of whole blocks, whatever of them is chosen, kept under a name, and unlinked', () => {
    const editor = editorOf(paragraph('Before', 'a'), ...HOURS, paragraph('After', 'z'));
    const from = editor.state.doc.child(0).nodeSize + 3;
    const to = from + editor.state.doc.child(1).nodeSize + 2;
    onSheet(editor).setTextSelection({ from, to }).run();
    expect(setPartApart(editor)).toBe(true);
    const [, made] = blocksOf(editor);
    expect(made).toMatchObject({ type: 'keptPart', attrs: { part: '' }, content: HOURS });
    const id = made?.attrs.id ?? '';
    expect(partAround(editor)?.attrs.id).toBe(id);
    namePart(editor, id, 'hours');
    expect(blocksOf(editor)[1]).toMatchObject({ attrs: { part: 'hours' } });
    unlinkPart(editor, id);
    expect(blocksOf(editor)).toEqual([paragraph('Before', 'a'), ...HOURS, paragraph('After', 'z')]);
    editor.commands.undo();
    expect(blocksOf(editor)[1]).toMatchObject({ type: 'keptPart', attrs: { part: 'hours' } });
  });

  it('is not set apart in another, nor of what stands on a page once', () => {
    const editor = editorOf(part());
    onSheet(editor).setTextSelection(4).run();
    expect(setPartApart(editor)).toBe(false);
    const contents = editorOf({ type: 'contents', attrs: { id: 'c', deepest: 2 } });
    onSheet(contents).setNodeSelection(0).run();
    expect(setPartApart(contents)).toBe(false);
  });

  it('is added behind the block of the page that the caret is in, with its pieces on the tray', () => {
    const editor = editorOf(paragraph('Before', 'a'), paragraph('After', 'z'));
    onSheet(editor).setTextSelection(3).run();
    addPart(editor, 'hours', [...HOURS, placed(examplePlacement('column'))]);
    const page = fromEditor(editor.state.doc);
    expect(page.blocks.map(({ type }) => type)).toEqual(['paragraph', 'keptPart', 'paragraph']);
    expect(page.blocks[1]).toMatchObject({
      attrs: { part: 'hours' },
      content: [{}, {}, { type: 'placement' }],
    });
    expect(page.tray).toEqual(['heron']);
  });

  it('is made as it is kept again, in one step that undo takes back', () => {
    const own = part([paragraph('Closed.', 'own')]);
    const editor = editorOf(own, paragraph('After', 'z'));
    makeAsKept(editor, 'here', HOURS);
    expect(blocksOf(editor)[0]).toEqual(part());
    editor.commands.undo();
    expect(blocksOf(editor)[0]).toEqual(own);
  });

  it('keeps what it is and stands on its own when it is copied', () => {
    const editor = editorOf(part(), paragraph('After', 'z'));
    const html = editor.getHTML();
    expect(html).toContain('data-part="hours"');
    const other = editorOf(blank('first'));
    other.commands.setContent(html);
    expect(blocksOf(other)[0]).toMatchObject({ type: 'keptPart', attrs: { part: 'hours' } });
  });
});
