import type { Editor } from '@tiptap/core';
import { NodeSelection } from '@tiptap/pm/state';
import type { Placement } from '#core/page/blocks/placement/schema.ts';
import { teaserLike } from '#core/page/lead.ts';
import { named, withOnTray } from '../../commands.ts';
import { findBlock } from '../arrange.ts';
import { forEachBlock } from '../walk.ts';

/** The ID of the page's teaser, or null. */
export function teaserId(editor: Editor): string | null {
  let id: string | null = null;
  forEachBlock(editor.state.doc, (node) => {
    if (node.type.name === 'teaser') id ??= String(node.attrs.id);
  });
  return id;
}

/** Makes the teaser of a use of a piece, cut to a shape; one that is there keeps its words, and gets this picture. */
export function makeTeaser(editor: Editor, like: Placement, ratio: Placement['ratio']): void {
  const { schema } = editor.state;
  const { attrs, content } = teaserLike({ ...like, id: crypto.randomUUID() }, ratio);
  const before = findBlock(editor, teaserId(editor) ?? '');
  const pictures = content.map((block) => schema.node('placement', block.attrs));
  const made = schema.node('teaser', before ? before.node.attrs : attrs, pictures);
  const tr = named(editor, 'making the teaser');
  const at = before?.pos ?? 0;
  tr.replaceWith(at, at + (before?.node.nodeSize ?? 0), made);
  withOnTray(tr, like.asset);
  editor.view.dispatch(tr.setSelection(NodeSelection.create(tr.doc, at + 1)).scrollIntoView());
  editor.view.focus();
}

export function removeTeaser(editor: Editor): void {
  const found = findBlock(editor, teaserId(editor) ?? '');
  if (!found) return;
  const tr = named(editor, 'removing the teaser').delete(found.pos, found.pos + found.node.nodeSize);
  editor.view.dispatch(tr);
  editor.view.focus();
}

/** Says which placement leads the article; null says that none does. */
export function setLead(editor: Editor, placementId: string | null): void {
  const name = placementId === null ? 'taking the lead away' : 'making it the lead';
  editor.view.dispatch(named(editor, name).setDocAttribute('lead', placementId));
}
