import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { sayFailure } from '../api/client.ts';
import { askShelf } from '../api/queries.ts';
import { Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';

const FOUND = '12';
const titleOf = (asset: Asset) => asset.label.title || asset.stem;

interface FindPieceProps {
  /** The piece that is not offered: the one whose place is taken. */
  readonly except: string;
  readonly onChoose: (fresh: Asset) => void;
}

/** Finds the piece of the shelf that takes the place of another, by its words. */
export function FindPiece({ except, onChoose }: FindPieceProps) {
  const [words, setWords] = useState('');
  const found = useQuery({
    queryKey: ['find', 'to replace', words],
    queryFn: ({ signal }) => askShelf({ words, limit: FOUND }, signal),
    placeholderData: (before) => before,
  });
  const others = found.data?.assets.filter(({ id }) => id !== except) ?? [];
  return (
    <div className="mt-3 grid gap-3">
      <Field
        name="The piece that takes its place"
        hint="Words of its title, its maker or its name. The newest come first."
      >
        {(control) => (
          <Input {...control} autoFocus value={words} onChange={(event) => setWords(event.target.value)} />
        )}
      </Field>
      <Fault says={found.error ? sayFailure(found.error) : null} />
      <ul className="flex max-h-[42vh] flex-wrap gap-3 overflow-y-auto" aria-label="Pieces of the shelf">
        {others.map((one) => (
          <li key={one.id} className="w-30">
            <button type="button" className="w-full text-left" onClick={() => onChoose(one)}>
              <img className="h-20 w-full bg-ground object-contain" src={one.thumb} alt="" />
              <span className="block truncate">{titleOf(one)}</span>
              <span className="block truncate font-mono text-2xs text-soft">
                {one.width} × {one.height}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {found.data && others.length === 0 ? (
        <p className="text-soft">
          Nothing of that name is on the shelf. Try a word of the title, or the maker.
        </p>
      ) : null}
    </div>
  );
}
