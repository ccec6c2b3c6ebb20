import type { Editor } from '@tiptap/core';
import { useEffect, useState } from 'react';
import type { Page } from '#api/pages.ts';
import type { PageDoc } from '#core/page/model.ts';
import { makeEditor } from '../sheet/editor.ts';
import { QUIET_HOOKS } from '../sheet/hooks.ts';
import { Sheet } from '../sheet/sheet.tsx';
import { useCompared } from './use-compared.ts';

interface ThenSheetProps {
  /** What it is called beside the sheet, as “The version”. */
  readonly name: string;
  readonly doc: PageDoc;
  readonly target: Page['target'];
  readonly differing: ReadonlyMap<string, string>;
  readonly looked: string | null;
}

/** Another state of the page, or its original, to be looked at beside the page as it is. */
export function ThenSheet({ name, doc, target, differing, looked }: ThenSheetProps) {
  const [editor, setEditor] = useState<Editor | null>(null);
  useEffect(() => {
    const made = makeEditor(doc, target, name, false, QUIET_HOOKS, `Text of ${name.toLowerCase()}`);
    setEditor(made);
    return () => {
      setEditor(null);
      made.destroy();
    };
  }, [name, doc, target]);
  useCompared(editor, differing, looked);
  if (!editor) return null;
  return (
    <Sheet
      name={name}
      editor={editor}
      page={doc}
      rules={target.rules}
      selected={null}
      block={null}
      isEditable={false}
    />
  );
}
