import { lazy, Suspense, useState } from 'react';
import type { Asset } from '#api/assets.ts';
import type { HouseRules } from '#core/page/target.ts';
import { useOffer } from '../frame/commands.ts';
import { Button } from '../ui/button.tsx';

const ReplacePanel = lazy(async () => ({ default: (await import('./replace-panel.tsx')).ReplacePanel }));

interface ReplaceDeedProps {
  readonly asset: Asset;
  readonly rules: HouseRules;
  /** Saves what is not saved yet of the page on which one is. */
  readonly before?: () => Promise<void>;
}

/** The way to put another piece in the place of this one on every page: from its label, and from "Find or do". */
export function ReplaceDeed({ asset, rules, before }: ReplaceDeedProps) {
  const [isOpen, setOpen] = useState(false);
  const open = async () => {
    await before?.();
    setOpen(true);
  };
  useOffer([{ words: 'Replace this piece on every page...', act: () => void open() }]);
  return (
    <>
      <Button kind="link" onClick={() => void open()}>
        Replace on every page...
      </Button>
      {isOpen ? (
        <Suspense>
          <ReplacePanel asset={asset} rules={rules} onClose={() => setOpen(false)} />
        </Suspense>
      ) : null}
    </>
  );
}
