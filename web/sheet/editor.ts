import { Editor, Extension } from '@tiptap/core';
import { Document } from '@tiptap/extension-document';
import { closeHistory, undoDepth } from '@tiptap/pm/history';
import { Plugin, Selection } from '@tiptap/pm/state';
import type { EditorView } from '@tiptap/pm/view';
import { StarterKit } from '@tiptap/starter-kit';
import type { Page } from '#api/pages.ts';
import { tableFromText } from '#core/page/blocks/table/from-text.ts';
import { isLinkAddress } from '#core/page/inline.ts';
import type { PageDoc } from '#core/page/model.ts';
import { writeText } from '#core/page/write.ts';
import { carriedText } from '../arrivals/carried-text.ts';
import { type FoundFile, filesOfDrop } from '../arrivals/dropped.ts';
import { droppedPieces, holdsPieces } from '../drag/dragged.ts';
import { ledger } from '../undo/ledger.ts';
import { BLOCK_MARKS, BLOCK_MARKS_LOOK } from './block-marks.ts';
import { emptiedRows } from './blocks/emptied.ts';
import { closedAround } from './blocks/flow.ts';
import { blockIds } from './blocks/ids.ts';
import { SHEET_KINDS } from './blocks/kinds.ts';
import { caretFirst } from './caret-first.ts';
import { CHOSEN_LOOK, chosenKey, chosenPieces } from './chosen-pieces.ts';
import { boundaryAt, selectedPlacement } from './commands.ts';
import { foundMarks } from './find.ts';
import type { SheetHooks } from './hooks.ts';
import { placementKey } from './keys.ts';
import { LEAD_LOOK, leadMark } from './lead-mark.ts';
import { WORD_MARKS } from './marks.ts';
import { mostBlocks } from './most-blocks.ts';
import { linkSays, NEW_WINDOW_LOOK, newWindow } from './new-window.ts';
import { OPTIONAL_FACTS, toEditor } from './page-json.ts';
import { pictureOffer } from './picture-offer.ts';
import { isOfSheet, readRichText } from './rich-text.ts';
import { NAME_META } from './step-name.ts';

import { typedLetters } from './typed-letters.ts';

/** The page's own facts are attributes of the document, so that one history holds text, tray, wants and title. */
const PageDocument = Document.extend({
  addAttributes() {
    return {
      title: { default: '', rendered: false },
      wants: { default: [], rendered: false },
      tray: { default: [], rendered: false },
      ...Object.fromEntries(OPTIONAL_FACTS.map((fact) => [fact, { default: null, rendered: false }])),
      language: { default: null, rendered: false },
    };
  },
});

export function makeEditor(
  page: PageDoc,
  target: Page['target'],
  scope: string,
  isEditable: boolean,
  hooks: SheetHooks,
  name = 'Text of the page',
): Editor {
  let isForeign = false;
  let isShiftHeld = false;
  let isMadeTable = false;
  return new Editor({
    element: document.createElement('div'),
    editable: isEditable,
    content: toEditor(page),
    extensions: [
      StarterKit.configure({
        document: false,
        paragraph: false,
        heading: false,
        bulletList: false,
        orderedList: false,
        listItem: false,
        listKeymap: false,
        blockquote: false,
        code: false,
        codeBlock: false,
        horizontalRule: false,
        strike: false,
        underline: false,
        // There is always a line to write in behind what ends the page.
        trailingNode: { node: 'paragraph' },
        undoRedo: { depth: 300, newGroupDelay: 600 },
        dropcursor: { color: 'var(--color-due)', width: 3 },
        link: { openOnClick: false, autolink: true, isAllowedUri: (uri) => isLinkAddress(uri) },
      }),
      PageDocument,
      ...WORD_MARKS,
      newWindow(target.rules.language),
      linkSays,
      ...SHEET_KINDS.flatMap(({ nodes }) => nodes({ rules: target.rules, targetId: target.id })),
      blockIds,
      emptiedRows,
      leadMark,
      ...BLOCK_MARKS,
      chosenPieces,
      pictureOffer(hooks),
      mostBlocks(hooks.onTooLong),
      ledgerExtension(scope),
      foundMarks,
      caretFirst,
      typedLetters,
    ],
    editorProps: {
      attributes: {
        class: `sheet-text placard-column ${LEAD_LOOK} ${NEW_WINDOW_LOOK} ${BLOCK_MARKS_LOOK} ${CHOSEN_LOOK}`,
        'aria-label': name,
        role: 'textbox',
        'aria-multiline': 'true',
      },
      handleDOMEvents: {
        keydown: (_view, { shiftKey }) => {
          isShiftHeld = shiftKey;
          return false;
        },
      },
      transformPastedHTML: (html) => {
        isForeign = !isOfSheet(html);
        if (!isForeign) return html;
        const read = readRichText(html, target.rules);
        // The editor puts the text in its place first; what was framed in it stands there as its code.
        if (read.embeds.length > 0 || read.leftOut.length > 0) queueMicrotask(() => hooks.onRichText(read));
        return read.html;
      },
      transformPasted: (slice) => {
        const whole = isForeign ? closedAround(slice) : slice;
        isForeign = false;
        return whole;
      },
      handlePaste: (view, event) => {
        if (isMadeTable) return false;
        const files = picturesOf(event.clipboardData);
        const { empty, $from } = view.state.selection;
        const isAlone = empty && $from.parent.content.size === 0;
        const text = event.clipboardData?.getData('text/plain') ?? '';
        if (files.length === 0 && hooks.onPastedText(text, isAlone)) return true;
        // With Shift, as without any style, text stays the text that it is.
        if (files.length === 0) return !isShiftHeld && pasteTable(view, event, text);
        hooks.onFiles(
          files,
          view.state.selection.$to.depth === 0 ? view.state.selection.to : view.state.selection.$to.after(1),
        );
        return true;
      },
    },
  });

  /** Text that is a table becomes one, by the same way as one that is pasted as such. */
  function pasteTable(view: EditorView, event: ClipboardEvent, text: string): boolean {
    if (event.clipboardData?.types.includes('text/html')) return false;
    const made = tableFromText(text, () => crypto.randomUUID());
    if (!made) return false;
    isMadeTable = true;
    view.pasteHTML(writeText(made, target.rules), event);
    isMadeTable = false;
    return true;
  }

  function picturesOf(data: DataTransfer | null): readonly FoundFile[] {
    if (!data || data.types.includes('text/html')) return [];
    return [...data.files].map((file) => ({ file, folder: '' }));
  }
}

/** Keys and drops need the editor itself, so they are set once it is there. */
export function connectSheet(editor: Editor, hooks: SheetHooks): void {
  editor.setOptions({
    editorProps: {
      ...editor.options.editorProps,
      handleDrop: (_view, event, _slice, isMoved) => {
        const at = boundaryAt(editor, event.clientX, event.clientY);
        const data = event.dataTransfer;
        // Pieces of this window are put down by the sheet's place (`sheet-place.tsx`) before the editor hears of it.
        if (data && holdsPieces(data)) {
          hooks.onPieces(droppedPieces(data), at);
          return true;
        }
        if (data && data.files.length === 0 && !isMoved && dropsEmbed(editor, hooks, data, at)) return true;
        if (!data || data.files.length === 0) return false;
        void filesOfDrop(data).then((files) => hooks.onFiles(files, at));
        return true;
      },
      handleKeyDown: (view, event) => {
        if (chosenKey(view, event)) return true;
        if (isLinkKey(event) && !editor.state.selection.empty && !selectedPlacement(editor)) {
          // Elsewhere the same keys find things.
          event.stopPropagation();
          hooks.onLinkWords();
          return true;
        }
        const placement = selectedPlacement(editor);
        return placement ? placementKey(editor, placement, event, hooks) : false;
      },
    },
  });
}

const isLinkKey = ({ key, ctrlKey, metaKey }: KeyboardEvent) =>
  (ctrlKey || metaKey) && key.toLowerCase() === 'k';

/** Writes each step of the editor's history into the ledger, under the name its transaction carries. */
function ledgerExtension(scope: string) {
  return Extension.create({
    name: 'ledger',
    // Done right after something was typed, a step that has a name would be taken back together with it.
    addProseMirrorPlugins: () => [
      new Plugin({
        filterTransaction: (tr) => {
          if (typeof tr.getMeta(NAME_META) === 'string') closeHistory(tr);
          return true;
        },
      }),
    ],
    onTransaction({ editor, transaction }) {
      if (!transaction.docChanged) return;
      const before = this.storage.depth;
      const depth = undoDepth(editor.state);
      this.storage.depth = depth;
      // Undo and redo move the depth too; they are the ledger's own doing.
      if (transaction.getMeta('history$') !== undefined || depth <= before) return;
      const name: unknown = transaction.getMeta(NAME_META);
      ledger.add({
        name: typeof name === 'string' ? name : 'typing',
        scope,
        undo: () => void editor.commands.undo(),
        redo: () => void editor.commands.redo(),
      });
      // What is typed right after a step that has a name is a step of its own.
      if (typeof name === 'string') editor.view.dispatch(closeHistory(editor.state.tr));
    },
    addStorage() {
      return { depth: 0 };
    },
  });
}

/** Embed code, or the address of a known thing, that was dragged here from elsewhere. */
function dropsEmbed(editor: Editor, hooks: SheetHooks, data: DataTransfer, at: number): boolean {
  const text = carriedText(data);
  if (text.trim() === '') return false;
  editor.view.dispatch(editor.state.tr.setSelection(Selection.near(editor.state.doc.resolve(at), -1)));
  return hooks.onPastedText(text, true);
}
