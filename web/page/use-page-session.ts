import type { Editor } from '@tiptap/core';
import { NodeSelection, Selection } from '@tiptap/pm/state';
import { useEffect, useRef, useState } from 'react';
import type { Page } from '#api/pages.ts';
import type { Placement } from '#core/page/blocks/placement/schema.ts';
import type { PageDoc } from '#core/page/model.ts';
import { noteOpen } from '../api/under-way.ts';
import { putOwnViews } from '../pieces/own-views.ts';
import { putPieces } from '../pieces/pieces.ts';
import { blockAround } from '../sheet/blocks/walk.ts';
import { chosenIn } from '../sheet/chosen-pieces.ts';
import { selectedPlacement } from '../sheet/commands.ts';
import { connectSheet, makeEditor } from '../sheet/editor.ts';
import type { SheetHooks } from '../sheet/hooks.ts';
import { factsOf, fromEditor, toEditor } from '../sheet/page-json.ts';
import { showMerged } from '../sheet/show-merged.ts';
import { NAME_META } from '../sheet/step-name.ts';
import { Store } from '../ui/store.ts';
import { ledger } from '../undo/ledger.ts';
import { PageSaver } from './saver.ts';

/** A page being worked on: its editor, its saver, and what of them the screen shows. */
export interface PageSession {
  readonly pageId: string;
  readonly targetId: string;
  readonly editor: Editor;
  readonly saver: PageSaver;
  readonly view: Store<PageView>;
  /** Reads what was typed just now and keeps it on this machine. */
  readonly flush: () => void;
  /** Shows another state of the page: a step that undo takes back by its name. */
  readonly show: (doc: PageDoc, step: string) => void;
}

export interface PageView {
  readonly doc: PageDoc;
  readonly selected: Placement | null;
  /** The cursor is in this block, or a placement is selected there. */
  readonly block: string | null;
  /** How many pieces are chosen together on the sheet. */
  readonly chosen: number;
  readonly recovered: boolean;
}

/** Opens a page for work, and closes it when the screen is left. */
export function usePageSession(
  page: Page,
  isEditable: boolean,
  hooks: SheetHooks,
  onOthers: (by: string) => void,
): PageSession | null {
  const [session, setSession] = useState<PageSession | null>(null);
  const steady = useRef({ ...hooks, onOthers });
  useEffect(() => {
    steady.current = { ...hooks, onOthers };
  });
  useEffect(() => {
    putPieces(page.pieces);
    putOwnViews(page.ownViews);
    const opened = open(page, isEditable, {
      onFiles: (...args) => steady.current.onFiles(...args),
      onOfferedPicture: (...args) => steady.current.onOfferedPicture(...args),
      onPieces: (...args) => steady.current.onPieces(...args),
      onPastedText: (...args) => steady.current.onPastedText(...args),
      onRichText: (...args) => steady.current.onRichText(...args),
      onOpenLabel: () => steady.current.onOpenLabel(),
      onTooLong: (blocks) => steady.current.onTooLong(blocks),
      onBesideParagraph: () => steady.current.onBesideParagraph(),
      onLinkWords: () => steady.current.onLinkWords(),
      onOthers: (by) => steady.current.onOthers(by),
    });
    setSession(opened);
    return () => {
      opened.flush();
      opened.saver.close();
      opened.editor.destroy();
      ledger.forget(scopeOf(page.id));
    };
    // The page is asked once (see pageQuery), so this is one session for as long as it is open.
  }, [page, isEditable]);
  return session;
}

/** The caret begins in the text, or a piece at the head of the page would be selected before anybody pressed it. */
function beginInText(editor: Editor): void {
  const { doc, tr } = editor.state;
  const inText = Selection.findFrom(doc.resolve(0), 1, true);
  if (inText) editor.view.dispatch(tr.setSelection(inText).setMeta('addToHistory', false));
}

/** The ID of the innermost block that the selection begins in; null between blocks. */
function blockOf({ state: { selection } }: Editor): string | null {
  const block = selection instanceof NodeSelection ? selection.node : blockAround(selection.$from)?.block;
  const id: unknown = block?.attrs.id;
  return typeof id === 'string' ? id : null;
}

const READ_AFTER_MILLIS = 120;

const scopeOf = (pageId: string) => `page ${pageId}`;

interface SessionHooks extends SheetHooks {
  /** What somebody else did was put together with what is open. */
  readonly onOthers: (by: string) => void;
}

function open(page: Page, isEditable: boolean, hooks: SessionHooks): PageSession {
  const scope = scopeOf(page.id);
  const kept = isEditable ? PageSaver.kept(page) : null;
  const editor = makeEditor(kept?.doc ?? page.doc, page.target, scope, isEditable, hooks);
  connectSheet(editor, hooks);
  beginInText(editor);
  const shown = fromEditor(editor.state.doc);
  const saver = new PageSaver(page, kept ? page.doc : shown, {
    stirred: () => {
      if (reading !== undefined) readDoc();
    },
    merged: (doc, { updatedBy }) => {
      showMerged(editor, doc);
      hooks.onOthers(updatedBy);
    },
  });
  const view = new Store<PageView>({
    doc: shown,
    selected: null,
    block: null,
    chosen: 0,
    recovered: kept !== null,
  });
  if (kept && isEditable) saver.resume({ ...kept, doc: shown });
  let reading: ReturnType<typeof setTimeout> | undefined;
  const readDoc = () => {
    clearTimeout(reading);
    reading = undefined;
    const doc = fromEditor(editor.state.doc);
    view.set({ ...view.state, doc });
    if (isEditable) saver.change(doc);
  };
  const flush = () => {
    if (reading !== undefined) readDoc();
    saver.keep();
  };
  editor.on('transaction', ({ transaction }) => {
    const block = blockOf(editor);
    const selected = selectedPlacement(editor);
    const chosen = chosenIn(editor.state).length;
    // While letters are typed into one block nothing else on the screen changes: it is not drawn anew at each of them.
    const isTyping = transaction.docChanged && selected === null && view.state.selected === null;
    if (!isTyping || block !== view.state.block || chosen !== view.state.chosen)
      view.set({ ...view.state, selected, block, chosen });
    if (!transaction.docChanged) return;
    // Letters appear at once; the page is read from the editor when a burst of typing pauses.
    if (transaction.getMeta(NAME_META) !== undefined) readDoc();
    else {
      if (isEditable) saver.stir();
      clearTimeout(reading);
      reading = setTimeout(readDoc, READ_AFTER_MILLIS);
    }
  });
  window.addEventListener('pagehide', flush);
  const leave = noteOpen(() => {
    flush();
    return saver.save();
  });
  editor.on('destroy', () => {
    leave();
    clearTimeout(reading);
    window.removeEventListener('pagehide', flush);
  });
  return {
    pageId: page.id,
    targetId: page.target.id,
    editor,
    saver,
    view,
    flush,
    show: (doc, step) => {
      const node = editor.schema.nodeFromJSON(toEditor(doc));
      const tr = editor.state.tr.replaceWith(0, editor.state.doc.content.size, node.content);
      for (const [name, fact] of Object.entries(factsOf(doc))) tr.setDocAttribute(name, fact);
      editor.view.dispatch(tr.setMeta(NAME_META, step));
    },
  };
}
