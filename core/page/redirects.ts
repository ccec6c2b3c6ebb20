import type { Cut, Piece } from './picture.ts';

/** An address that was out and the one that answers for it now, both relative to the page. */
export interface Redirect {
  readonly from: string;
  readonly to: string;
  /** Moved permanently (RFC 9110, 15.4.2). */
  readonly status: 301;
}

/**
 * The redirects that keep a page's files answering after their pieces were renamed: each file under every name its
 * piece went out under before. `former` holds those stems by piece.
 */
export function redirectsOf(
  cuts: readonly Cut[],
  pieces: ReadonlyMap<string, Piece>,
  former: ReadonlyMap<string, readonly string[]>,
  pathOf: (fileName: string) => string,
): readonly Redirect[] {
  return cuts.flatMap(({ assetId, fileName }) => {
    const stem = pieces.get(assetId)?.stem ?? '';
    return (former.get(assetId) ?? []).map(
      (old): Redirect => ({
        from: pathOf(`${old}${fileName.slice(stem.length)}`),
        to: pathOf(fileName),
        status: 301,
      }),
    );
  });
}
