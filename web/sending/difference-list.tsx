import { useEffect, useRef } from 'react';
import type { SaidDifference } from '#api/deliveries.ts';
import { Button, LinkButton } from '../ui/button.tsx';

/** What can be mended by writing the page otherwise for its target, by what was lost. */
const MENDS: Readonly<Record<string, string>> = {
  'caption-lost': 'Write captions as plain text there',
  'beside-lost': 'Put sides on the pictures themselves there',
};

export interface DifferenceListProps {
  readonly differences: readonly SaidDifference[];
  readonly chosen: number | null;
  readonly mayMend: boolean;
  /** Whether what mends a loss, by its code, holds for the target already. */
  readonly isMended: (code: string) => boolean;
  readonly onChoose: (number: number | null) => void;
  readonly onMend: (code: string) => void;
}

/** Differences by their numbers, each with what mends it. */
export function DifferenceList({
  differences,
  chosen,
  mayMend,
  isMended,
  onChoose,
  onMend,
}: DifferenceListProps) {
  return (
    <ol className="mt-2.5">
      {differences.map((one, at) => (
        <DifferenceLine
          // biome-ignore lint/suspicious/noArrayIndexKey: a number is what a difference is called by here.
          key={at}
          number={at + 1}
          difference={one}
          isChosen={chosen === at + 1}
          mend={isFirstOf(differences, at) && !isMended(one.code) ? MENDS[one.code] : undefined}
          mayMend={mayMend}
          onChoose={onChoose}
          onMend={onMend}
        />
      ))}
    </ol>
  );
}

/** What mends all of a kind stands at the first of them. */
const isFirstOf = (differences: readonly SaidDifference[], at: number): boolean =>
  differences.findIndex(({ code }) => code === differences[at]?.code) === at;

interface LineProps {
  readonly number: number;
  readonly difference: SaidDifference;
  readonly isChosen: boolean;
  readonly mend: string | undefined;
  readonly mayMend: boolean;
  readonly onChoose: (number: number | null) => void;
  readonly onMend: (code: string) => void;
}

function DifferenceLine({ number, difference, isChosen, mend, mayMend, onChoose, onMend }: LineProps) {
  const { sentence, why, isLost, code } = difference;
  const line = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (isChosen) line.current?.scrollIntoView({ block: 'nearest' });
  }, [isChosen]);
  return (
    <li
      className="grid grid-cols-[24px_minmax(0,1fr)] gap-x-3 gap-y-1 border-t border-hairline pt-2.75 pb-3.25 data-[chosen=true]:bg-action-soft data-[chosen=true]:shadow-[-16px_0_0_var(--color-action-soft),16px_0_0_var(--color-action-soft)]"
      data-chosen={isChosen}
      ref={line}
    >
      <button
        type="button"
        className="size-6 bg-ink text-center font-sans text-sm leading-6 font-semibold text-panel data-[lost=true]:bg-measure data-[lost=true]:text-white"
        data-lost={isLost}
        aria-label={`Show difference ${number} on both`}
        aria-pressed={isChosen}
        onClick={() => onChoose(isChosen ? null : number)}
      >
        {number}
      </button>
      <div className="grid min-w-0 gap-1">
        <p>
          <span className="sr-only">{isLost ? 'Lost: ' : 'Different: '}</span>
          <strong className="wrap-anywhere">{sentence}</strong>
        </p>
        <p className="wrap-anywhere text-soft">{why}</p>
        {mend === undefined ? null : mayMend ? (
          <div>
            <Button kind="action" onClick={() => onMend(code)}>
              {mend}
            </Button>
          </div>
        ) : (
          <p>
            {mend}: the site owner has that in{' '}
            <LinkButton kind="link" to="/rules#rules-sending">
              House rules
            </LinkButton>
            .
          </p>
        )}
      </div>
    </li>
  );
}
