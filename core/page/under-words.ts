import type { PageDoc } from './model.ts';
import type { Piece } from './piece.ts';
import { placementsOf, walkPage } from './walk.ts';

/** The IDs of pieces of a page over which words stand: whether those can be read is a matter of how light the pieces are. */
export function underWords(
  page: Pick<PageDoc, 'blocks'>,
  pieces: ReadonlyMap<string, Pick<Piece, 'prep'>>,
): ReadonlySet<string> {
  const worded = placementsOf(page).flatMap(({ asset, prep }) =>
    (prep ?? pieces.get(asset)?.prep)?.words ? [asset] : [],
  );
  const grounds = [...walkPage(page)].flatMap((block) =>
    block.type === 'banner' && block.attrs.plate === null
      ? placementsOf({ blocks: block.content }).map(({ asset }) => asset)
      : [],
  );
  return new Set([...worded, ...grounds]);
}
