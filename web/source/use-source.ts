import { useCallback, useEffect, useRef, useState } from 'react';
import { mergePages } from '#core/page/merge.ts';
import { MOST_BLOCKS, type PageDoc } from '#core/page/model.ts';
import type { Piece } from '#core/page/piece.ts';
import { writeSource } from '#core/page/source/write.ts';
import type { HouseRules } from '#core/page/target.ts';
import { placementById } from '#core/page/walk.ts';
import type { PageSession } from '../page/use-page-session.ts';
import { showHere } from '../sheet/block-marks.ts';
import { keepDraft, keptDraft } from './draft.ts';
import type { TypedReading } from './read-typed.ts';
import { makeSourceEditor, type SourceEditor } from './source-editor.ts';
import { SourceReader } from './source-reader.ts';

/** How what stands in the source stands to the page. */
export type SourceState =
  /** It is the page's own. */
  | { readonly kind: 'same' }
  /** Something was typed, and is being read. */
  | { readonly kind: 'reading' }
  | { readonly kind: 'typed'; readonly reading: TypedReading };

interface SourceOf {
  readonly session: PageSession;
  readonly doc: PageDoc;
  readonly block: string | null;
  readonly rules: HouseRules;
  readonly pieces: ReadonlyMap<string, Piece>;
  readonly isEditable: boolean;
}

/** The source of a page beside its sheet: written anew when the page changes, read when it is typed in. */
export function useSource({ session, doc, block, rules, pieces, isEditable }: SourceOf) {
  const place = useRef<HTMLDivElement>(null);
  const editor = useRef<SourceEditor | null>(null);
  const [state, setState] = useState<SourceState>({ kind: 'same' });
  const now = useRef({ doc, pieces, base: doc, isTyped: false });
  useEffect(() => {
    now.current.doc = doc;
    now.current.pieces = pieces;
  });
  const reader = useRef<SourceReader | null>(null);

  const begin = useCallback(
    (base: PageDoc) => {
      now.current.base = base;
      now.current.isTyped = false;
      setState({ kind: 'same' });
      reader.current?.begin({ page: base, rules, pieces: now.current.pieces });
      editor.current?.show(writeSource(base, { rules, pieces: now.current.pieces }));
    },
    [rules],
  );

  useEffect(() => {
    const parent = place.current;
    if (!parent) return;
    const draft = isEditable ? keptDraft(session.pageId) : null;
    const base = draft?.base ?? now.current.doc;
    now.current.base = base;
    const source = writeSource(base, { rules, pieces: now.current.pieces });
    const made = makeSourceEditor(parent, source, isEditable, {
      saySign: (id) => saySign(id, now.current),
      onBlock: (id) => {
        made.showBlock(id);
        showHere(session.editor, id);
      },
      onTyped: (text) => {
        now.current.isTyped = true;
        keepDraft(session.pageId, { base: now.current.base, text });
        setState({ kind: 'reading' });
        reading.read(text);
      },
    });
    const reading = new SourceReader((read, text) => {
      if (text !== made.text()) return;
      made.showLost(read.kind === 'read' ? read.struck : []);
      setState({ kind: 'typed', reading: read });
    });
    reading.begin({ page: base, rules, pieces: now.current.pieces });
    editor.current = made;
    reader.current = reading;
    if (draft) made.type(draft.text);
    return () => {
      reading.stop();
      made.destroy();
      editor.current = null;
      reader.current = null;
      if (!session.editor.isDestroyed) showHere(session.editor, null);
    };
  }, [session, rules, isEditable]);

  // The page was changed on the sheet, or by others: what nobody typed over is written anew.
  useEffect(() => {
    if (!now.current.isTyped && now.current.base !== doc) begin(doc);
  }, [doc, begin]);

  useEffect(() => {
    editor.current?.showBlock(block);
  }, [block]);

  return {
    place,
    state,
    lineOf: (from: number) => editor.current?.lineOf(from) ?? 0,
    goTo: (from: number) => editor.current?.goTo(from),
    /** Puts what was typed onto the page, together with what others changed meanwhile: one step, which undo takes back. */
    keep: () => {
      if (state.kind !== 'typed' || state.reading.kind !== 'read') return;
      session.flush();
      const page = session.view.state.doc;
      const { base } = now.current;
      const typed = state.reading.page;
      const next = page === base ? typed : mergePages(base, typed, page).page;
      session.show(next, 'typing in source');
      // More than a page holds was not put there, which was said: what was typed stays.
      if (next.blocks.length > MOST_BLOCKS) return;
      keepDraft(session.pageId, null);
      begin(session.view.state.doc);
      // What was pressed is gone with what it was about.
      editor.current?.focus();
    },
    /** Forgets what was typed. */
    revert: () => {
      keepDraft(session.pageId, null);
      begin(now.current.doc);
      editor.current?.focus();
    },
  };
}

/** What Placard writes for a piece in the place of its sign. */
function saySign(
  id: string,
  { base, pieces }: { readonly base: PageDoc; readonly pieces: ReadonlyMap<string, Piece> },
): string {
  const placement = placementById(base, id);
  const piece = placement && pieces.get(placement.asset);
  if (!piece) return 'a piece that is gone';
  switch (piece.kind) {
    case 'picture':
      return `${piece.stem}, its files kept by Placard`;
    case 'embed':
      return `${piece.stem}, its embed code kept by Placard`;
    case 'document':
    case 'film':
      return `${piece.stem}, its file kept by Placard`;
  }
}
