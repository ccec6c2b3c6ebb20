// @vitest-environment jsdom
import { Editor } from '@tiptap/core';
import StarterKit from '@tiptap/starter-kit';
import { afterEach, expect, it, vi } from 'vitest';
import { MOST_BLOCKS } from '#core/page/model.ts';
import { mostBlocks } from './most-blocks.ts';

let open: Editor | null = null;
afterEach(() => open?.destroy());

const lines = (count: number) => Array.from({ length: count }, () => ({ type: 'paragraph' }));

it('a page that would become too long stays as it was, and says how long it would be', async () => {
  const onTooLong = vi.fn();
  open = new Editor({
    element: document.createElement('div'),
    extensions: [StarterKit.configure({ trailingNode: false }), mostBlocks(onTooLong)],
    content: { type: 'doc', content: lines(MOST_BLOCKS - 1) },
  });
  open.commands.insertContentAt(open.state.doc.content.size, lines(1));
  expect(open.state.doc.childCount).toBe(MOST_BLOCKS);
  expect(onTooLong).not.toHaveBeenCalled();
  open.commands.insertContentAt(0, lines(3));
  expect(open.state.doc.childCount).toBe(MOST_BLOCKS);
  await vi.waitFor(() => expect(onTooLong).toHaveBeenCalledExactlyOnceWith(MOST_BLOCKS + 3));
  // Words can still be written, and lines taken away.
  open.commands.insertContentAt(1, 'reed');
  open.commands.deleteRange({ from: 0, to: 6 });
  expect(open.state.doc.childCount).toBe(MOST_BLOCKS - 1);
});
