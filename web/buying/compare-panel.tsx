import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Asset } from '#api/assets.ts';
import type { Purchase } from '#api/purchases.ts';
import type { JudgedUse } from '#api/rights.ts';
import { sayFailure } from '../api/client.ts';
import { usesQuery } from '../api/queries.ts';
import { sayPageTitle } from '../pages/say-title.ts';
import { sayPageCount } from '../pieces/say-used-on.ts';
import { Button } from '../ui/button.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Fault } from '../ui/fault.tsx';
import { Panel } from '../ui/panel.tsx';
import { CutDrawing } from './cut-drawing.tsx';
import { putOriginalInPlace } from './purchases.ts';

const titleOf = ({ label, stem }: Asset) => label.title || stem;

interface ComparePanelProps {
  readonly purchase: Purchase;
  readonly original: Asset;
  readonly onClose: () => void;
}

/** A bought original beside its comp, in each cut that stands on a page, before it takes its place. */
export function ComparePanel({ purchase: { id, comp }, original, onClose }: ComparePanelProps) {
  const { data: uses } = useQuery(usesQuery(comp.id, comp.version));
  const [fault, setFault] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const cuts = (uses ?? []).flatMap((use) =>
    use.placements.map((placement) => ({ use, placement, key: `${use.pageId} ${placement.id}` })),
  );
  const put = async () => {
    setBusy(true);
    try {
      await putOriginalInPlace(id);
      onClose();
    } catch (error) {
      setFault(sayFailure(error));
      setBusy(false);
    }
  };
  return (
    <Panel
      title={`The original of ${titleOf(comp)}`}
      about={`It is ${original.width} × ${original.height} px, and its comp ${comp.width} × ${comp.height}. See how each cut looks with it.`}
      isOpen
      onClose={onClose}
      className="w-[min(820px,calc(100vw-24px))]"
    >
      <div className="mt-3 grid gap-4">
        {cuts.map(({ use, placement, key }) => (
          <section key={key} aria-label={`On ${sayPageTitle(use.title)}`}>
            <h3 className="mb-1.25 text-sm text-soft">{sayUse(use, placement.ratio)}</h3>
            <div className="grid grid-cols-2 items-start gap-3">
              {(
                [
                  ['Now, the comp', 'The comp', comp],
                  ['Then, the original', 'The original', original],
                ] as const
              ).map(([when, which, asset]) => (
                <figure key={when}>
                  <CutDrawing
                    asset={asset}
                    placement={placement}
                    alt={`${which} on ${sayPageTitle(use.title)}`}
                  />
                  <figcaption className="mt-1 text-sm text-soft">{when}</figcaption>
                </figure>
              ))}
            </div>
          </section>
        ))}
      </div>
      <p className="mt-3 text-soft">
        What every cut shows is moved by the focal point on the Bench of the original, before or after.
      </p>
      <Fault says={fault} />
      <Deeds>
        <Button kind="action" disabled={isBusy} onClick={() => void put()}>
          Put it in place {sayPageCount(comp)}
        </Button>
        <Button disabled={isBusy} onClick={onClose}>
          Leave the comp for now
        </Button>
      </Deeds>
    </Panel>
  );
}

function sayUse({ title, target }: JudgedUse, ratio: { across: number; down: number } | null): string {
  const cut = ratio ? `cut to ${ratio.across}:${ratio.down}` : 'shown whole';
  return `“${sayPageTitle(title)}”, for the ${target}, ${cut}`;
}
