import { lazy, Suspense, useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { Button, type ButtonKind } from '../ui/button.tsx';

const BuyPanel = lazy(async () => ({ default: (await import('./buy-panel.tsx')).BuyPanel }));

interface BuyDeedProps {
  readonly comps: readonly Asset[];
  readonly kind?: ButtonKind;
  readonly words: string;
}

/** The way to buy the originals of comps. */
export function BuyDeed({ comps, kind, words }: BuyDeedProps) {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <Button kind={kind} onClick={() => setOpen(true)}>
        {words}
      </Button>
      {isOpen ? (
        <Suspense>
          <BuyPanel comps={comps} onClose={() => setOpen(false)} />
        </Suspense>
      ) : null}
    </>
  );
}
