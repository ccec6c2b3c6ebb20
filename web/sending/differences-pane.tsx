import type { ReactNode } from 'react';
import type { Delivery } from '#api/deliveries.ts';
import { sayCompared } from '#core/deliver/say.ts';
import { sayBytes } from '#core/media/weight.ts';
import { Button } from '../ui/button.tsx';
import { sayTime } from '../ui/dates.ts';
import { DifferenceList, type DifferenceListProps } from './difference-list.tsx';
import { Evidence } from './evidence.tsx';

interface DifferencesPaneProps extends Omit<DifferenceListProps, 'differences'> {
  readonly delivery: Delivery;
  readonly earlier: readonly Delivery[];
  readonly isEditable: boolean;
  /** How its code comes to where it stands, where that is by hand and was not done yet. */
  readonly paste: ReactNode;
  readonly onReadBack: () => void;
  readonly onLook: (id: string) => void;
  /** Shows what would become of the page as it is now; null where nothing is known of that. */
  readonly onLookAhead: (() => void) | null;
}

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
      <DifferenceList
        differences={differences}
        chosen={chosen}
        isMended={isMended}
        mayMend={mayMend}
        onChoose={onChoose}
        onMend={onMend}
      />
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
