import type { Block } from './blocks/block.ts';
import { linkedFiles } from './linked.ts';
import type { Piece } from './piece.ts';

/** The pictures that words of a page lead to, each once. */
export function linkedPictures(
  page: { readonly blocks: readonly Block[] },
  pieces: ReadonlyMap<string, Piece>,
): readonly Piece[] {
  const ids = new Set(linkedFiles(page).map(({ placement }) => placement.asset));
  return [...ids].flatMap((id) => {
    const piece = pieces.get(id);
    return piece?.kind === 'picture' ? [piece] : [];
  });
}
