import * as v from 'valibot';

/** Pieces of the shelf that are dragged, as against files from the desktop. */
const TYPE = 'application/x-placard-pieces';
const IdsSchema = v.array(v.string());

export function dragPieces(data: DataTransfer, ids: readonly string[]): void {
  data.setData(TYPE, JSON.stringify(ids));
  data.effectAllowed = 'move';
}

export const holdsPieces = (data: DataTransfer) => data.types.includes(TYPE);

/** The pieces of a drop; none for anything else. */
export function droppedPieces(data: DataTransfer): readonly string[] {
  try {
    const read = v.safeParse(IdsSchema, JSON.parse(data.getData(TYPE)));
    return read.success ? read.output : [];
  } catch {
    return [];
  }
}
