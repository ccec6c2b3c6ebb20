import type { Editor } from '@tiptap/core';
import { useEffect, useState } from 'react';
import type { Page } from '#api/pages.ts';
import type { PageDoc } from '#core/page/model.ts';
import { showCompared, showHere } from '../sheet/block-marks.ts';
import { makeEditor } from '../sheet/editor.ts';
import { QUIET_HOOKS } from '../sheet/hooks.ts';
import { Sheet } from '../sheet/sheet.tsx';

interface ThenSheetProps {
  readonly doc: PageDoc;
  readonly target: Page['target'];
  readonly differing: ReadonlyMap<string, string>;
  readonly looked: string | null;
}

/** A kept state of the page as it stood, to be looked at beside the page as it is. */
export function ThenSheet({ doc, target, differing, looked }: ThenSheetProps) {
  const [editor, setEditor] = useState<Editor | null>(null);
  useEffect(() => {
    const made = makeEditor(doc, target, 'a version', false, QUIET_HOOKS, 'Text of the version');
    setEditor(made);
    return () => {
      setEditor(null);
      made.destroy();
    };
  }, [doc, target]);
  useEffect(() => {
    if (editor) showCompared(editor, differing);
  }, [editor, differing]);
  useEffect(() => {
    if (editor) showHere(editor, looked);
  }, [editor, looked]);
  if (!editor) return null;
  return (
    <Sheet
      name="The version"
      editor={editor}
      page={doc}
      rules={target.rules}
      selected={null}
      block={null}
      isEditable={false}
    />
  );
}
