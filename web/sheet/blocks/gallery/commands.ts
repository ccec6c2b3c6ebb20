import type { Editor } from '@tiptap/core';
import type { Node, Schema } from '@tiptap/pm/model';
import { GALLERY_LIMIT, galleryPerRow } from '#core/page/blocks/gallery/schema.ts';
import { chosenBlocks, isEmptyLine, putInPlace, trimmed } from '../arrange.ts';
import type { Gathered } from '../gathered.ts';

const isPiece = ({ type }: Node) => type.name === 'placement';

/** Makes a gallery of the pieces among the chosen blocks, where nothing is said between them; false where there are none. */
export function makeGallery(editor: Editor): boolean {
  const all = chosenBlocks(editor);
  const chosen = all && trimmed(all, isPiece);
  if (!chosen?.blocks.every((block) => isPiece(block) || isEmptyLine(block))) return false;
  const made = galleryOf(editor.schema, chosen.blocks.filter(isPiece));
  return made !== null && putInPlace(editor, chosen, made, 'making a gallery');
}

/** Makes a gallery of gathered pieces, each of which opens larger; false where there are too many, or none. */
export function galleryOfPieces(editor: Editor, gathered: Gathered): boolean {
  const larger = gathered.pieces.map((piece) =>
    piece.attrs.click?.kind === 'link'
      ? piece
      : piece.type.create({ ...piece.attrs, click: { kind: 'larger' } }),
  );
  const made = galleryOf(editor.schema, larger);
  if (made) gathered.put(made, 'making a gallery');
  return made !== null;
}

function galleryOf(schema: Schema, pieces: readonly Node[]): Node | null {
  if (pieces.length === 0 || pieces.length > GALLERY_LIMIT) return null;
  return schema.node('gallery', { perRow: galleryPerRow(pieces.length) }, pieces);
}
