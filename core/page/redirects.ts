import { earlierCutFileName } from '../naming/clash.ts';
import type { Cut } from './picture.ts';
import type { Piece } from './piece.ts';

/** An address that was out and the one that answers for it now, both relative to the page. */
export interface Redirect {
  readonly from: string;
  readonly to: string;
  /** Moved permanently (RFC 9110, 15.4.2). */
  readonly status: 301;
}

/** A name under which files of a piece went out. `scheme` 1 is from before the stem was set apart in file names. */
export interface NameOut {
  readonly stem: string;
  readonly scheme: number;
}

/**
 * The redirects that keep a page's files answering after their pieces were renamed, or files came to be called otherwise:
 * each file under every name its piece went out under before. `out` holds those by piece. Where two files of the page
 * went out under one name, the one that stands first on it keeps it.
 */
export function redirectsOf(
  cuts: readonly Cut[],
  pieces: ReadonlyMap<string, Pick<Piece, 'stem'>>,
  out: ReadonlyMap<string, readonly NameOut[]>,
  pathOf: (fileName: string) => string,
): readonly Redirect[] {
  const taken = new Set(cuts.map(({ fileName }) => fileName));
  return cuts.flatMap(({ assetId, fileName }) => {
    const own = pieces.get(assetId)?.stem ?? '';
    return (out.get(assetId) ?? [])
      .flatMap(({ stem, scheme }) => {
        const now = `${stem}${fileName.slice(own.length)}`;
        return scheme === 1 ? [earlierCutFileName(stem, fileName), now] : [now];
      })
      .flatMap((before): Redirect[] => {
        if (taken.has(before)) return [];
        taken.add(before);
        return [{ from: pathOf(before), to: pathOf(fileName), status: 301 }];
      });
  });
}
