import type { Editor } from '@tiptap/core';
import { Fragment, type Node } from '@tiptap/pm/model';
import type { Transaction } from '@tiptap/pm/state';
import { ReplaceStep } from '@tiptap/pm/transform';
import { movedOf } from '#core/page/merge-order.ts';
import type { PageDoc } from '#core/page/model.ts';
import { factsOf, toEditor } from './page-json.ts';
import { PICTURE_OFFER } from './rich-text.ts';
import { NAME_META } from './step-name.ts';

/**
 * Shows a page in which what others did was put together with what is open. Only what differs is touched, so that the caret
 * stays where it is and what was done here can still be undone; what others did is theirs to undo.
 */
export function showMerged(editor: Editor, page: PageDoc): void {
  const { tr } = editor.state;
  makeInto(tr, editor.schema.nodeFromJSON(toEditor(page)));
  for (const [name, fact] of Object.entries(factsOf(page))) tr.setDocAttribute(name, fact);
  editor.view.dispatch(tr.setMeta('addToHistory', false).setMeta(NAME_META, 'what others did'));
}

/** Makes a document into another, block by block. What is the sheet's alone, as a picture that is offered, stays in its place. */
export function makeInto(tr: Transaction, next: Node): void {
  const { doc } = tr;
  const [before, after] = [placesOf(doc), placesOf(next)];
  const moved = movedOf(before.map(idOf), after.map(idOf));
  const known = new Set(before.map(idOf));
  const stays = new Set(after.map(idOf).filter((id) => known.has(id) && !moved.has(id)));
  // From the end, so that what is before keeps its place.
  let [at, to] = [before.length - 1, after.length - 1];
  while (at >= 0 || to >= 0) {
    const [was, now] = [before[at], after[to]];
    if (was?.node.type.name === PICTURE_OFFER) at -= 1;
    else if (was && !stays.has(idOf(was))) {
      tr.delete(was.pos, was.pos + was.node.nodeSize);
      at -= 1;
    } else if (now && !stays.has(idOf(now))) {
      tr.insert(was ? was.pos + was.node.nodeSize : 0, now.node);
      to -= 1;
    } else if (was && now) {
      change(tr, was, now.node);
      at -= 1;
      to -= 1;
    } else break;
  }
}

interface Placed {
  readonly node: Node;
  readonly pos: number;
}

function placesOf(doc: Node): readonly Placed[] {
  const places: Placed[] = [];
  doc.forEach((node, pos) => {
    places.push({ node, pos });
  });
  return places;
}

const idOf = ({ node }: Placed): string => String(node.attrs.id);

/** A block as a page has it: the very same where nothing is offered in it. */
function withoutOffers(node: Node): Node {
  if (node.isTextblock || node.childCount === 0) return node;
  const kept: Node[] = [];
  node.forEach((child) => {
    if (child.type.name !== PICTURE_OFFER) kept.push(withoutOffers(child));
  });
  const isSame = kept.length === node.childCount && kept.every((child, at) => child === node.child(at));
  return isSame ? node : node.copy(Fragment.from(kept));
}

/** Makes one block into what it is now, by its smallest difference. */
function change(tr: Transaction, { node, pos }: Placed, now: Node): void {
  if (node.eq(now) || withoutOffers(node).eq(now)) return;
  // What two people made of one banner may hold more than the editor knows of: it is shown whole.
  const isKnown = now.type.validContent(now.content) && node.type === now.type && !node.isAtom;
  if (!isKnown) {
    tr.replaceWith(pos, pos + node.nodeSize, now);
    return;
  }
  const start = node.content.findDiffStart(now.content);
  const end = node.content.findDiffEnd(now.content);
  if (start !== null && end) {
    const overlap = Math.max(0, start - Math.min(end.a, end.b));
    const slice = now.slice(start, end.b + overlap);
    // As it is, or not at all: to make it fit, the editor would change what stands round it.
    const step = new ReplaceStep(pos + 1 + start, pos + 1 + end.a + overlap, slice);
    if (tr.maybeStep(step).failed !== null) tr.replaceWith(pos, pos + node.nodeSize, now);
  }
  if (tr.doc.nodeAt(pos)?.sameMarkup(now) === false) tr.setNodeMarkup(pos, null, now.attrs);
}
