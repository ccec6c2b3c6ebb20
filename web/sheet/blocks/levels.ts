import type { Node } from '@tiptap/pm/model';

/** The level of a heading at a place, one under the last before it. */
export function levelUnder(doc: Node, at: number): number {
  let above = 1;
  doc.nodesBetween(0, Math.min(at, doc.content.size), (node, pos) => {
    if (pos < at && node.type.name === 'heading') above = Number(node.attrs.level);
  });
  return Math.min(4, above + 1);
}
