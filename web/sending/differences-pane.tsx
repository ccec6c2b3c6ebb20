import { type ReactNode, useEffect, useRef } from 'react';
import type { Delivery, SaidDifference } from '#api/deliveries.ts';
import { sayCompared } from '#core/deliver/say.ts';
import { sayBytes } from '#core/media/weight.ts';
import { Button, LinkButton } from '../ui/button.tsx';
import { sayTime } from '../ui/dates.ts';
import { Evidence } from './evidence.tsx';

interface DifferencesPaneProps {
  readonly delivery: Delivery;
  readonly earlier: readonly Delivery[];
  readonly chosen: number | null;
  readonly mayMend: boolean;
  /** Whether what mends a loss, by its code, holds for the target already. */
  readonly isMended: (code: string) => boolean;
  readonly isEditable: boolean;
  /** How its code comes to where it stands, where that is by hand and was not done yet. */
  readonly paste: ReactNode;
  readonly onChoose: (number: number | null) => void;
  readonly onReadBack: () => void;
  readonly onMend: (code: string) => void;
  readonly onLook: (id: string) => void;
  /** Shows what would become of the page as it is now; null where nothing is known of that. */
  readonly onLookAhead: (() => void) | null;
}

/** What can be mended by writing the page otherwise for its target, by what was lost. */
export const MENDS: Readonly<Record<string, string>> = {
  'caption-lost': 'Write captions as plain text there',
  'beside-lost': 'Put sides on the pictures themselves there',
};

/** What does not stand there as it was sent: what readers miss first, each with what mends it. */
export function DifferencesPane({
  delivery,
  earlier,
  chosen,
  mayMend,
  isMended,
  isEditable,
  paste,
  onChoose,
  onReadBack,
  onMend,
  onLook,
  onLookAhead,
}: DifferencesPaneProps) {
  const { differences, answered, foundAt, foundBytes } = delivery;
  const lost = differences.filter(({ isLost }) => isLost).length;
  const isRead = foundAt !== null;
  return (
    <aside className="overflow-auto bg-panel px-4 pt-3 pb-7.5" aria-label="What differs">
      {paste ?? (
        <h2 className="text-lg">{isRead ? sayCompared(lost, differences.length) : 'Not read back yet'}</h2>
      )}
      {delivery.words ? <p className="text-due">{delivery.words}</p> : null}
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
      {isRead ? (
        <p className="border-t border-hairline pt-2.75 text-soft">
          <strong className="text-ink">
            {differences.length === 0 ? 'All of it is as it was sent' : 'Everything else came through'}:
          </strong>{' '}
          {answered === '0 of 0' ? 'there are no pictures on it' : `${answered} pictures answer`}
          {foundBytes === null ? '' : `, ${sayBytes(foundBytes)} load at first`}, read back {sayTime(foundAt)}
          .
        </p>
      ) : null}
      {isEditable && delivery.state === 'out' ? (
        <Button kind="link" onClick={onReadBack}>
          Read it back again
        </Button>
      ) : null}
      {onLookAhead ? (
        <div>
          <Button kind="link" onClick={onLookAhead}>
            What would become of it as it is now
          </Button>
        </div>
      ) : null}
      {earlier.length > 0 ? (
        <section className="mt-5 border-t border-hairline pt-2.75" aria-labelledby="earlier-sendings">
          <h3 className="font-semibold" id="earlier-sendings">
            Sent before
          </h3>
          <ul>
            {earlier.map((one) => (
              <li key={one.id}>
                <Button kind="link" onClick={() => onLook(one.id)}>
                  {sayTime(one.at)}
                </Button>{' '}
                <span className="text-soft">by {one.by}</span>
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      {isEditable && delivery.address !== null ? (
        <Evidence key={delivery.id} deliveryId={delivery.id} />
      ) : null}
    </aside>
  );
}

/** What mends all of a kind stands at the first of them. */
export const isFirstOf = (differences: readonly SaidDifference[], at: number): boolean =>
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

export function DifferenceLine({ number, difference, isChosen, mend, mayMend, onChoose, onMend }: LineProps) {
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
