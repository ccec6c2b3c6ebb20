import type { Difference } from '#core/page/compare.ts';
import { usePieces } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { sayWhat, sayWhere } from './say-difference.ts';
import { WordsCompared } from './words-compared.tsx';

interface DifferenceRowProps {
  readonly difference: Difference;
  readonly isLooked: boolean;
  readonly onLook: () => void;
  /** What can be done about it, in a word or two; null for nothing. */
  readonly deed: { readonly words: string; readonly act: () => void } | null;
}

/** One thing that differs: what it is, what became of it, its words before and after. */
export function DifferenceRow({ difference, isLooked, onLook, deed }: DifferenceRowProps) {
  const pieces = usePieces();
  const where = sayWhere(difference, pieces);
  return (
    <li className={cx('-mx-2 border-t border-hairline px-2 py-1.5', isLooked && 'bg-action-soft')}>
      <div className="flex items-baseline gap-2">
        {difference.kind === 'fact' ? (
          <b className="min-w-0 flex-1 font-semibold">{where}</b>
        ) : (
          <button
            type="button"
            className="min-w-0 flex-1 cursor-pointer text-left font-semibold wrap-anywhere hover:underline"
            aria-pressed={isLooked}
            onClick={onLook}
          >
            {where}
          </button>
        )}
        {deed ? (
          <Button kind="link" className="flex-none" aria-label={`${deed.words}: ${where}`} onClick={deed.act}>
            {deed.words}
          </Button>
        ) : null}
      </div>
      <p className="text-sm text-soft">{sayWhat(difference)}</p>
      <Words of={difference} />
    </li>
  );
}

/** What was said and what is said, where it is for people to read: leads are known by IDs. */
function Words({ of: one }: { readonly of: Difference }) {
  if (one.kind === 'fact')
    return one.id === 'lead' ? null : <WordsCompared before={one.before} after={one.after} />;
  if (one.kind !== 'changed' || !one.words) return null;
  return <WordsCompared before={one.words.before} after={one.words.after} />;
}
