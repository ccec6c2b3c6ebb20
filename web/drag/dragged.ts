import * as v from 'valibot';

/** What is dragged, one or several that are chosen together: pieces of the shelf or of a tray, or such as stand on a sheet. */
export type Dragged =
  | { readonly from: 'shelf' | 'tray'; readonly ids: readonly string[] }
  | { readonly from: 'sheet'; readonly ids: readonly string[]; readonly placementIds: readonly string[] };

/** The type under which another window of Placard reads which pieces are dragged. */
export const PIECES_TYPE = 'application/x-placard-pieces';
/** As many as are chosen at once by hand; what claims more was not dragged here. */
const MOST = 2_000;
const IdsSchema = v.pipe(v.array(v.pipe(v.string(), v.maxLength(64))), v.maxLength(MOST));

export const holdsPieces = (data: Pick<DataTransfer, 'types'>) => data.types.includes(PIECES_TYPE);

/** The pieces that were dragged here from another window; none for anything else. */
export function droppedPieces(data: Pick<DataTransfer, 'getData'>): readonly string[] {
  try {
    const read = v.safeParse(IdsSchema, JSON.parse(data.getData(PIECES_TYPE)));
    return read.success ? read.output : [];
  } catch {
    return [];
  }
}
