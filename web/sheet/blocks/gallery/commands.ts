import type { Editor } from '@tiptap/core';
import type { Node, Schema } from '@tiptap/pm/model';
import { GALLERY_LIMIT, galleryPerRow } from '#core/page/blocks/gallery/schema.ts';
import { chosenBlocks, isEmptyLine, putArranged, putInPlace, trimmed, usesOf } from '../arrange.ts';

const isPiece = ({ type }: Node) => type.name === 'placement';

/** Makes a gallery of the pieces among the chosen blocks, where nothing is said between them; false where there are none. */
export function makeGallery(editor: Editor): boolean {
  const all = chosenBlocks(editor);
  const chosen = all && trimmed(all, isPiece);
  if (!chosen?.blocks.every((block) => isPiece(block) || isEmptyLine(block))) return false;
  const made = galleryOf(editor.schema, chosen.blocks.filter(isPiece));
  return made !== null && putInPlace(editor, chosen, made, 'making a gallery');
}

/** Makes a gallery of pieces behind the caret, each of which opens larger; false where there are too many, or none. */
export function galleryOfPieces(editor: Editor, assetIds: readonly string[]): boolean {
  const made = galleryOf(editor.schema, usesOf(editor.schema, assetIds, { click: { kind: 'larger' } }));
  if (made) putArranged(editor, made, assetIds, 'making a gallery');
  return made !== null;
}

function galleryOf(schema: Schema, pieces: readonly Node[]): Node | null {
  if (pieces.length === 0 || pieces.length > GALLERY_LIMIT) return null;
  return schema.node('gallery', { perRow: galleryPerRow(pieces.length) }, pieces);
}
