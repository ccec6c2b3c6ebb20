import type { Editor } from '@tiptap/core';
import { beforeAll } from 'vitest';
import type { Block } from '#core/page/blocks/block.ts';
import { examplePage, PLAIN_RULES } from '#core/page/testing.ts';
import { ledger } from '../undo/ledger.ts';
import { makeEditor } from './editor.ts';
import { QUIET_HOOKS } from './hooks.ts';
import { fromEditor } from './page-json.ts';

/** jsdom lays nothing out, and the editor asks where the selection is to bring it into sight. */
export function layNothingOut(): void {
  beforeAll(() => {
    const nowhere = () => ({
      left: 0,
      top: 0,
      right: 0,
      bottom: 0,
      width: 0,
      height: 0,
      x: 0,
      y: 0,
      toJSON: () => '',
    });
    Range.prototype.getBoundingClientRect = nowhere;
    Range.prototype.getClientRects = () => Object.assign([], { item: () => null });
  });
}

let open: Editor | null = null;

/** A sheet with these blocks, for a target of plain rules; the one before it is closed. */
export function editorOf(...blocks: Block[]): Editor {
  open?.destroy();
  const target = { id: 'reserve', version: 1, rules: PLAIN_RULES };
  open = makeEditor(examplePage(...blocks), target, 'test', true, QUIET_HOOKS);
  document.body.append(open.view.dom);
  return open;
}

/** After each test. */
export function closeEditor(): void {
  open?.destroy();
  open = null;
  ledger.forget('test');
}

export const blocksOf = (editor: Editor): readonly Block[] => fromEditor(editor.state.doc).blocks;

/** What stands on the clipboard after all of a sheet was copied. */
export function copied({ view, state }: Editor): string {
  return view.serializeForClipboard(state.doc.slice(0, state.doc.content.size)).dom.innerHTML;
}

/** jsdom has no events of the clipboard. */
export const pasting = () => Object.assign(new Event('paste'), { clipboardData: null }) as ClipboardEvent;
