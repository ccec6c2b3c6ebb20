import { useQuery } from '@tanstack/react-query';
import type { Editor } from '@tiptap/core';
import { sayFailure } from '../api/client.ts';
import { partQuery, partsQuery, queryClient } from '../api/queries.ts';
import { LabelRow } from '../label/row.tsx';
import { putPieces } from '../pieces/pieces.ts';
import { addPart } from '../sheet/blocks/kept-part/commands.ts';
import { CHIP_LOOK } from '../ui/chips.tsx';
import { toast } from '../ui/toast.ts';

/** What the house keeps to stand on many pages, each to be added below. */
export function PartsRow({ editor }: { readonly editor: Editor }) {
  const { data } = useQuery(partsQuery);
  if (!data || data.parts.length === 0) return null;
  const add = async (id: string) => {
    try {
      const part = await queryClient.fetchQuery({ ...partQuery(id), staleTime: 0 });
      putPieces(part.pieces);
      addPart(editor, id, part.blocks);
    } catch (error) {
      toast.error(sayFailure(error));
    }
  };
  return (
    <LabelRow name="Kept parts">
      <div className="flex flex-wrap gap-1.25">
        {data.parts.map(({ id, name }) => (
          <button
            key={id}
            type="button"
            className={CHIP_LOOK}
            aria-label={`Add ${name}`}
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => void add(id)}
          >
            {name}
          </button>
        ))}
      </div>
      {data.count > data.parts.length ? (
        <p className="text-soft">And {data.count - data.parts.length} more.</p>
      ) : null}
    </LabelRow>
  );
}
