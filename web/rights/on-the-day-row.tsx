import { useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { sayDay } from '#core/rights/say-judgement.ts';
import { type Afterwards, lastDayOf } from '#core/rights/terms.ts';
import { BuyDeed } from '../buying/buy-deed.tsx';
import { LabelRow } from '../label/row.tsx';
import { useLabelChange } from '../label/use-label-change.ts';
import { usePiece } from '../pieces/pieces.ts';
import { FindPiece } from '../replace/find-piece.tsx';
import { Button } from '../ui/button.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Fault } from '../ui/fault.tsx';
import { Panel } from '../ui/panel.tsx';

/** Whether its agency sells the licence anew; of others what was agreed is said by hand. */
const isSold = ({ label }: Asset): boolean => label.licence === 'agency' && label.sourceId !== '';

interface OnTheDayRowProps {
  readonly asset: Asset;
  readonly pages: number;
  readonly isEditable: boolean;
  /** Opens what was agreed, where it is renewed. */
  readonly onRenew: () => void;
}

/** What happens to a piece on its pages once its last day is over: said beforehand, and then done by itself. */
export function OnTheDayRow({ asset, pages, isEditable, onRenew }: OnTheDayRowProps) {
  const { fault, save } = useLabelChange(asset);
  const [isChoosing, setChoosing] = useState(false);
  const { terms } = asset.label;
  const day = lastDayOf(terms);
  if (day === null || (pages === 0 && terms.afterwards.do === 'unsaid')) return null;
  const decide = (afterwards: Afterwards, name: string) =>
    save({ label: { terms: { ...terms, afterwards } } }, name);
  // The server writes who decided.
  const mine = { by: '', personId: '' };
  return (
    <LabelRow name="On the day">
      <SaysAfterwards asset={asset} day={day} />
      {isEditable ? (
        <Deeds>
          {isSold(asset) ? (
            <BuyDeed comps={[asset]} words="Renew..." />
          ) : (
            <Button onClick={onRenew}>Renew...</Button>
          )}
          {terms.afterwards.do === 'unsaid' ? (
            <>
              <Button onClick={() => setChoosing(true)}>Replace it then...</Button>
              <Button onClick={() => void decide({ do: 'take-off', ...mine }, 'taking it off on the day')}>
                Take it off then
              </Button>
            </>
          ) : (
            <Button onClick={() => void decide({ do: 'unsaid' }, 'what happens on the day')}>
              Do nothing then
            </Button>
          )}
        </Deeds>
      ) : null}
      <Fault says={fault} />
      <Panel
        title={`What takes the place of ${asset.label.title || asset.stem}`}
        about={`After ${sayDay(day)}, on every page at once. It is kept for 30 days and can be brought back.`}
        isOpen={isChoosing}
        onClose={() => setChoosing(false)}
      >
        <FindPiece
          except={asset.id}
          onChoose={({ id }) => {
            setChoosing(false);
            void decide({ do: 'replace', piece: id, ...mine }, 'replacing it on the day');
          }}
        />
      </Panel>
    </LabelRow>
  );
}

function SaysAfterwards({ asset, day }: { readonly asset: Asset; readonly day: string }) {
  const { afterwards } = asset.label.terms;
  const fresh = usePiece(afterwards.do === 'replace' ? afterwards.piece : null);
  switch (afterwards.do) {
    case 'unsaid':
      return <p className="text-due">Nobody has said what happens after {sayDay(day)}.</p>;
    case 'renew':
      return (
        <p>
          On {sayDay(day)} it is renewed at {asset.label.source}. {afterwards.by} decided so.
        </p>
      );
    case 'take-off':
      return (
        <p>
          After {sayDay(day)} it is taken off its pages. {afterwards.by} decided so.
        </p>
      );
    case 'replace':
      return (
        <p>
          After {sayDay(day)} {fresh ? `“${fresh.label.title || fresh.stem}”` : 'another piece'} takes its
          place. {afterwards.by} decided so.
        </p>
      );
  }
}
