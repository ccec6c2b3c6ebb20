import type { Editor } from '@tiptap/core';
import { useEffect } from 'react';
import { showCompared, showHere } from '../sheet/block-marks.ts';

const NOTHING: ReadonlyMap<string, string> = new Map();

/** Marks on a sheet what differs from the one beside it, and what is looked at, for as long as they are compared. */
export function useCompared(
  editor: Editor | null,
  differing: ReadonlyMap<string, string>,
  looked: string | null,
): void {
  useEffect(() => {
    if (editor) showCompared(editor, differing);
  }, [editor, differing]);
  useEffect(() => {
    if (editor) showHere(editor, looked);
  }, [editor, looked]);
  useEffect(
    () => () => {
      if (!editor || editor.isDestroyed) return;
      showCompared(editor, NOTHING);
      showHere(editor, null);
    },
    [editor],
  );
}
