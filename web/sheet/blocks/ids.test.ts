// @vitest-environment jsdom
import type { Editor } from '@tiptap/core';
import { afterEach, describe, expect, it } from 'vitest';
import { blank, examplePage, examplePlacement, PLAIN_RULES, paragraph, placed } from '#core/page/testing.ts';
import { ledger } from '../../undo/ledger.ts';
import { makeEditor } from '../editor.ts';
import { QUIET_HOOKS } from '../hooks.ts';
import { fromEditor } from '../page-json.ts';
import { layNothingOut } from '../testing.ts';

layNothingOut();

let open: Editor | null = null;
afterEach(() => {
  open?.destroy();
  ledger.forget('test');
});

function editorOf(...blocks: Parameters<typeof examplePage>): Editor {
  const target = { id: 'reserve', version: 1, rules: PLAIN_RULES };
  open = makeEditor(examplePage(...blocks), target, 'test', true, QUIET_HOOKS);
  document.body.append(open.view.dom);
  return open;
}

const idsOf = (editor: Editor) => fromEditor(editor.state.doc).blocks.map(({ attrs }) => attrs.id);
const isFresh = (id: string | undefined) => expect(id).toMatch(/^[0-9a-f-]{36}$/);

describe('the IDs of blocks on the sheet', () => {
  it('stay while letters are typed, and when a block becomes another kind', () => {
    const editor = editorOf(paragraph('one', 'a'), paragraph('two', 'b'));
    editor.chain().setTextSelection(2).insertContent('x').setHeading({ level: 2 }).run();
    expect(idsOf(editor)).toEqual(['a', 'b']);
  });

  it('of a block that is split stays with its beginning; the rest is new', () => {
    const editor = editorOf(paragraph('one', 'a'), paragraph('two', 'b'));
    editor.chain().setTextSelection(3).splitBlock().run();
    const [first, second, third] = idsOf(editor);
    expect([first, third]).toEqual(['a', 'b']);
    isFresh(second);
  });

  it('of a copy are new, the original’s stay', () => {
    const editor = editorOf(
      paragraph('one', 'a'),
      placed(examplePlacement('column', { id: 'h' })),
      blank('z'),
    );
    const { doc, tr } = editor.state;
    editor.view.dispatch(tr.insert(doc.content.size, doc.content));
    const ids = idsOf(editor);
    expect(ids.slice(0, 3)).toEqual(['a', 'h', 'z']);
    expect(new Set(ids).size).toBe(6);
  });

  it('are of the list as a whole, and come back when it is text again', () => {
    const editor = editorOf(paragraph('one', 'a'), blank('z'));
    editor.chain().setTextSelection(2).toggleBulletList().run();
    isFresh(idsOf(editor)[0]);
    expect(fromEditor(editor.state.doc).blocks[0]).toMatchObject({
      content: [{ type: 'listItem', content: [{ type: 'paragraph', content: [{ text: 'one' }] }] }],
    });
    editor.chain().setTextSelection(3).toggleBulletList().run();
    expect(idsOf(editor)).toEqual(['a', 'z']);
  });

  it('come back with what undo brings back', () => {
    const editor = editorOf(paragraph('one', 'a'), paragraph('two', 'b'), blank('z'));
    editor.chain().deleteRange({ from: 0, to: 5 }).run();
    expect(idsOf(editor)).toEqual(['b', 'z']);
    editor.commands.undo();
    expect(idsOf(editor)).toEqual(['a', 'b', 'z']);
  });
});
