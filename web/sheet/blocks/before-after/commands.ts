import type { Editor } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import type { Size } from '#core/media/dimensions.ts';
import { isSameShape, shapeNear } from '#core/page/blocks/before-after/shapes.ts';
import { shownSize } from '#core/page/picture.ts';
import { corePieces } from '../../../pieces/pieces.ts';
import { chosenBlocks, isEmptyLine, putInPlace, trimmed } from '../arrange.ts';
import type { Gathered } from '../gathered.ts';
import { placementOf } from '../placement/node.ts';

const isPiece = ({ type }: Node) => type.name === 'placement';

/** Makes a before-and-after of two pieces among the chosen blocks, where nothing is said between them; false where there are not two. */
export function makePair(editor: Editor): boolean {
  const all = chosenBlocks(editor);
  const chosen = all && trimmed(all, isPiece);
  if (!chosen?.blocks.every((block) => isPiece(block) || isEmptyLine(block))) return false;
  const made = pairOf(editor, chosen.blocks.filter(isPiece));
  return made !== null && putInPlace(editor, chosen, made, 'making a before-and-after');
}

/** Makes a before-and-after of two gathered pieces, the first before; false for fewer or more. */
export function pairOfPieces(editor: Editor, { pieces, put }: Gathered): boolean {
  const made = pairOf(editor, pieces);
  if (made) put(made, 'making a before-and-after');
  return made !== null;
}

/** Two pieces over each other, the second cut to the shape of the first where it is of another. */
function pairOf(editor: Editor, nodes: readonly Node[]): Node | null {
  const [before, after, ...more] = nodes;
  if (!before || !after || more.length > 0) return null;
  const [one, other] = [sizeOf(before), sizeOf(after)];
  const isFit = !one || !other || isSameShape(one, other);
  const ratio = one ? shapeNear(one.width / one.height) : null;
  const cut = isFit ? after : after.type.create({ ...after.attrs, ratio });
  return editor.schema.node('beforeAfter', null, [before, cut]);
}

function sizeOf(node: Node): Size | null {
  const placement = placementOf(node);
  const piece = corePieces().get(placement.asset);
  return piece ? shownSize(placement, piece) : null;
}
