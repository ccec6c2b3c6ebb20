import { useState } from 'react';
import type { Asset } from '#api/assets.ts';
import type { Purchase } from '#api/purchases.ts';
import { sayFailure } from '../api/client.ts';
import { sayPageCount } from '../pieces/say-used-on.ts';
import { CutsCompared } from '../replace/cuts-compared.tsx';
import { Button } from '../ui/button.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Fault } from '../ui/fault.tsx';
import { Panel } from '../ui/panel.tsx';
import { putOriginalInPlace } from './purchases.ts';

const titleOf = ({ label, stem }: Asset) => label.title || stem;

interface ComparePanelProps {
  readonly purchase: Purchase;
  readonly original: Asset;
  readonly onClose: () => void;
}

/** A bought original beside its comp, in each cut that stands on a page, before it takes its place. */
export function ComparePanel({ purchase: { id, comp }, original, onClose }: ComparePanelProps) {
  const [fault, setFault] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
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
      <div className="mt-3">
        <CutsCompared
          now={{ asset: comp, when: 'Now, the comp', which: 'The comp' }}
          then={{ asset: original, when: 'Then, the original', which: 'The original' }}
        />
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
