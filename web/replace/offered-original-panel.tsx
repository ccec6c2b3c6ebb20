import { useQuery } from '@tanstack/react-query';
import { strictest } from '#core/page/target.ts';
import { targetsQuery } from '../api/queries.ts';
import { useStore } from '../ui/store.ts';
import { offeredOriginal } from './offered-original.ts';
import { ReplacePanel } from './replace-panel.tsx';

/** Wherever one is: the original of a comp beside it, before it takes its place. */
export function OfferedOriginalPanel() {
  const offered = useStore(offeredOriginal);
  const rules = strictest(useQuery(targetsQuery).data ?? [])?.rules;
  if (!offered || !rules) return null;
  return (
    <ReplacePanel
      asset={offered.comp}
      by={offered.original}
      rules={rules}
      onClose={() => offeredOriginal.set(null)}
    />
  );
}
