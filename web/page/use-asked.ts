import { type Dispatch, type SetStateAction, useEffect } from 'react';
import { useSearchParams } from 'react-router';
import { onTray } from '../arrivals/arrivals.ts';
import type { KeptRow } from '../label/kept-row.ts';
import { isLabelRowName, type LabelRowName } from '../label/row.tsx';
import { pagesChanged } from '../pieces/pages-changed.ts';
import { selectedPlacement, selectPlacement } from '../sheet/commands.ts';
import type { Opened } from './opened.ts';
import { open } from './tray-hands.ts';
import type { PageSession } from './use-page-session.ts';

/** Opens what the address asks for (?use=, ?piece=, ?want=, ?row=), or else the label that was being edited here. */
export function useAsked(
  session: PageSession | null,
  kept: KeptRow | null,
  setOpened: (opened: Opened) => void,
  setRow: (row: LabelRowName | null) => void,
): void {
  const [params] = useSearchParams();
  useEffect(() => {
    if (!session) return;
    const isAsked = ['use', 'piece', 'want', 'row'].some((name) => params.has(name));
    const asked = (name: string) => params.get(name);
    const { of = null, row = asked('row') } = isAsked || !kept ? {} : kept;
    const [use, piece, want] = [of?.use ?? asked('use'), of?.piece ?? asked('piece'), asked('want')];
    if (use) selectPlacement(session.editor, use);
    else if (piece) open(session, { kind: 'asset', id: piece }, setOpened);
    else if (want) setOpened({ kind: 'want', id: want });
    if (isLabelRowName(row)) setRow(row);
  }, [session, params, kept, setOpened, setRow]);
}

/** Keys that go over the sheet, or are held for another. */
const PASSING_KEYS: ReadonlySet<string> = new Set(['Tab', 'Shift', 'Control', 'Alt', 'Meta']);

/** What has the caret has the label: a piece or want that was opened beside it gives way. */
export function useCaretFirst(
  session: PageSession | null,
  setOpened: Dispatch<SetStateAction<Opened>>,
): void {
  useEffect(() => {
    if (!session) return;
    const { editor } = session;
    const isInText = () => editor.view.hasFocus() && !selectedPlacement(editor);
    const look = () => {
      if (isInText()) setOpened((opened) => (opened?.kind === 'several' ? opened : null));
    };
    // Tab leads from several chosen on the tray over the sheet to their label: they are let go by what is done on the sheet.
    const work = (event: Event) => {
      const isPassing = event instanceof KeyboardEvent && PASSING_KEYS.has(event.key);
      if (!isPassing && isInText()) setOpened(null);
    };
    const { dom } = editor.view;
    const deeds = ['keyup', 'pointerup', 'beforeinput'] as const;
    editor.on('focus', look);
    editor.on('selectionUpdate', look);
    for (const deed of deeds) dom.addEventListener(deed, work);
    return () => {
      editor.off('focus', look);
      editor.off('selectionUpdate', look);
      for (const deed of deeds) dom.removeEventListener(deed, work);
    };
  }, [session, setOpened]);
}

/** What was gathered for this page, or replaced on it, by a job or on another screen, comes to it by itself. */
export function useGathered(session: PageSession | null, pageId: string): void {
  useEffect(() => {
    if (!session) return;
    const catchUp = (event: Event) => {
      if (event instanceof CustomEvent && event.detail === pageId)
        void session.saver.catchUp().catch(() => undefined);
    };
    const takeOver = () => void session.saver.catchUp().catch(() => undefined);
    onTray.addEventListener('change', catchUp);
    pagesChanged.addEventListener('change', takeOver);
    return () => {
      onTray.removeEventListener('change', catchUp);
      pagesChanged.removeEventListener('change', takeOver);
    };
  }, [session, pageId]);
}
