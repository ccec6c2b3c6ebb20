import { lazy, Suspense, useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { useOffer } from '../frame/commands.ts';
import { Button } from '../ui/button.tsx';

const FigurePanel = lazy(async () => ({ default: (await import('./figure-panel.tsx')).FigurePanel }));

/** The way to take one piece for use elsewhere, without a page. */
export function FigureDeed({ asset }: { readonly asset: Asset }) {
  const [isOpen, setOpen] = useState(false);
  useOffer([{ words: 'Copy this piece with its credit, for use elsewhere', act: () => setOpen(true) }]);
  return (
    <>
      <Button kind="link" onClick={() => setOpen(true)}>
        Use elsewhere...
      </Button>
      {isOpen ? (
        <Suspense>
          <FigurePanel asset={asset} onClose={() => setOpen(false)} />
        </Suspense>
      ) : null}
    </>
  );
}
