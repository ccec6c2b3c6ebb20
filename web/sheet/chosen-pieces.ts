import { type Editor, Extension } from '@tiptap/core';
import { Fragment, type Node, Slice } from '@tiptap/pm/model';
import { type EditorState, NodeSelection, Plugin, PluginKey, type Transaction } from '@tiptap/pm/state';
import { Decoration, DecorationSet, type EditorView } from '@tiptap/pm/view';
import { forEachBlock } from './blocks/walk.ts';
import { NAME_META } from './step-name.ts';

/** Pieces that are chosen together on the sheet, wherever they stand, in the order of their choice. */
type Chosen = readonly string[];

const key = new PluginKey<Chosen>('chosenPieces');
const NONE: Chosen = [];

/** How chosen pieces look. */
export const CHOSEN_LOOK =
  '[&_[data-chosen]]:outline-3 [&_[data-chosen]]:outline-action [&_[data-chosen]]:outline-offset-2';

/**
 * Ctrl or Cmd and a press, or with Enter, choose a piece besides those that are chosen, as on the tray. Cut and copied, the
 * chosen go together and keep their settings; Delete takes them off the page, Escape lets them go.
 */
export const chosenPieces = Extension.create({
  name: 'chosenPieces',
  addProseMirrorPlugins: () => [
    new Plugin<Chosen>({
      key,
      state: {
        init: () => NONE,
        apply: (tr, chosen, _before, { doc }) => {
          const said: unknown = tr.getMeta(key);
          const next = Array.isArray(said) ? said.map(String) : chosen;
          if (next.length === 0) return NONE;
          if (!tr.docChanged) return next;
          const there = new Set(placedIn(doc).map(({ id }) => id));
          const left = next.filter((id) => there.has(id));
          return left.length === next.length ? next : left;
        },
      },
      props: {
        decorations: (state) => {
          const chosen = new Set(chosenIn(state));
          if (chosen.size === 0) return null;
          const marks = placedIn(state.doc)
            .filter(({ id }) => chosen.has(id))
            .map(({ pos, node }) => Decoration.node(pos, pos + node.nodeSize, { 'data-chosen': '' }));
          return DecorationSet.create(state.doc, marks);
        },
        handleClickOn: (view, _pos, node, _nodePos, event) => {
          if (!(event.ctrlKey || event.metaKey) || node.type.name !== 'placement' || !view.editable)
            return false;
          toggle(view, String(node.attrs.id));
          return true;
        },
        handleDOMEvents: {
          cut: (view, event) => take(view, event, true),
          copy: (view, event) => take(view, event, false),
        },
      },
    }),
  ],
});

export const chosenIn = (state: EditorState): Chosen => key.getState(state) ?? NONE;

interface Placed {
  readonly id: string;
  readonly node: Node;
  readonly pos: number;
}

function placedIn(doc: Node): readonly Placed[] {
  const placed: Placed[] = [];
  forEachBlock(doc, (node, pos) => {
    if (node.type.name === 'placement') placed.push({ id: String(node.attrs.id), node, pos });
  });
  return placed;
}

/** The chosen pieces as they stand on the sheet, in reading order. */
export function chosenPlaced(state: EditorState): readonly Placed[] {
  const chosen = new Set(chosenIn(state));
  return placedIn(state.doc).filter(({ id }) => chosen.has(id));
}

export function choose({ view }: Pick<Editor, 'view'>, ids: Chosen): void {
  view.dispatch(view.state.tr.setMeta(key, [...ids]).setMeta('addToHistory', false));
}

/** A step after which nothing is chosen. */
export const lettingGo = (tr: Transaction): Transaction => tr.setMeta(key, []);

/** With a piece besides, or no longer; one that was selected alone is the first of the choice. */
function toggle(view: EditorView, id: string): void {
  const { selection } = view.state;
  const before = chosenIn(view.state);
  const alone =
    selection instanceof NodeSelection && selection.node.type.name === 'placement'
      ? String(selection.node.attrs.id)
      : null;
  const begun = before.length === 0 && alone !== null && alone !== id ? [alone] : before;
  choose({ view }, begun.includes(id) ? begun.filter((one) => one !== id) : [...begun, id]);
}

/** What a key does with the choice: asked before what it does with the one piece that is selected. */
export function chosenKey(view: EditorView, event: KeyboardEvent): boolean {
  const { selection } = view.state;
  const isPlaced = selection instanceof NodeSelection && selection.node.type.name === 'placement';
  if (event.key === 'Enter' && (event.ctrlKey || event.metaKey) && isPlaced && view.editable) {
    const before = chosenIn(view.state);
    const id = String(selection.node.attrs.id);
    choose({ view }, before.includes(id) ? before.filter((one) => one !== id) : [...before, id]);
    return true;
  }
  if (chosenIn(view.state).length < 2) return false;
  if (event.key === 'Escape') {
    choose({ view }, NONE);
    return true;
  }
  if (event.key !== 'Delete' && event.key !== 'Backspace') return false;
  withoutChosen(view, 'taking pieces off the page');
  return true;
}

/** Cuts or copies what is chosen together, as one run of pieces. */
function take(view: EditorView, event: ClipboardEvent, isCut: boolean): boolean {
  const placed = chosenPlaced(view.state);
  if (placed.length < 2 || !event.clipboardData) return false;
  const slice = new Slice(Fragment.from(placed.map(({ node }) => node)), 0, 0);
  const { dom, text } = view.serializeForClipboard(slice);
  event.preventDefault();
  event.clipboardData.clearData();
  event.clipboardData.setData('text/html', dom.innerHTML);
  event.clipboardData.setData('text/plain', text);
  if (isCut && view.editable) withoutChosen(view, 'cutting pieces');
  return true;
}

export function withoutChosen(view: EditorView, name: string): void {
  const { tr } = view.state;
  for (const { pos, node } of [...chosenPlaced(view.state)].reverse()) tr.delete(pos, pos + node.nodeSize);
  view.dispatch(lettingGo(tr).setMeta(NAME_META, name));
}
