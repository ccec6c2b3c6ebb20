import { useQueries } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { PageDoc } from '#core/page/model.ts';
import type { Piece } from '#core/page/piece.ts';
import { underWords } from '#core/page/under-words.ts';
import { lightsQuery } from '../api/queries.ts';

/** The pieces, with how light those of a page are over which words stand: their contrast is part of the proof. */
export function useLit(
  held: ReadonlyMap<string, Piece>,
  doc: Pick<PageDoc, 'blocks'>,
): ReadonlyMap<string, Piece> {
  const worded = useMemo(() => [...underWords(doc, held)], [held, doc]);
  const known = useQueries({
    queries: worded.map((id) => lightsQuery(id)),
    combine: (answers) => answers.map(({ data }) => data),
  });
  return useMemo(() => {
    if (worded.length === 0) return held;
    const lit = new Map(held);
    for (const [at, id] of worded.entries()) {
      const [piece, lights] = [held.get(id), known[at]];
      if (piece && lights) lit.set(id, { ...piece, lights });
    }
    return lit;
  }, [held, worded, known]);
}
