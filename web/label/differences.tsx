import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { may } from '#api/people.ts';
import { type SaidDifference, SaidDifferencesSchema } from '#api/rights.ts';
import { sayDifference } from '#core/rights/differences.ts';
import { requestJson, requestVoid, sayFailure } from '../api/client.ts';
import { meQuery, queryClient } from '../api/queries.ts';
import { changePiece } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { Fault } from '../ui/fault.tsx';
import { ledger } from '../undo/ledger.ts';

interface DifferencesProps {
  readonly asset: Asset;
  readonly isEditable: boolean;
}

/** What the file and the source say otherwise than the label, each to be taken over or to be left. */
export function Differences({ asset, isEditable }: DifferencesProps) {
  const { data: me } = useQuery(meQuery);
  const [fault, setFault] = useState<string | null>(null);
  const maySay = isEditable && me ? may(me.role, 'say-rights') : false;
  const { id, version } = asset;
  const { data = [] } = useQuery({
    queryKey: ['asset', id, 'differences', version],
    queryFn: () => requestJson('get /assets/{id}/differences', SaidDifferencesSchema, { path: { id } }),
    enabled: maySay,
  });
  if (!maySay || data.length === 0) return null;
  const doing = async (deed: () => Promise<void>) => {
    setFault(null);
    await deed().catch((error: unknown) => setFault(sayFailure(error)));
  };
  return (
    <>
      {data.map((one) => (
        <div key={`${one.by} ${one.about}`}>
          <p className="text-due">{sayDifference(one)}</p>
          <div className="flex flex-wrap gap-x-3">
            <Button
              kind="link"
              onClick={() =>
                void doing(() => changePiece(id, { label: one.patch }, `taking over what the ${one.by} says`))
              }
            >
              Take it over
            </Button>
            <Button kind="link" onClick={() => void doing(() => leave(id, one))}>
              Leave the label
            </Button>
          </div>
        </div>
      ))}
      <Fault says={fault} />
    </>
  );
}

/** The label is right: said once, and taken back by one undo. */
async function leave(id: string, { by, about, says }: SaidDifference): Promise<void> {
  const say = async (isKept: boolean) => {
    await requestVoid('put /assets/{id}/differences', { path: { id }, body: { by, about, says, isKept } });
    await queryClient.invalidateQueries({ queryKey: ['asset', id, 'differences'] });
  };
  await say(true);
  ledger.add({
    name: 'leaving the label as it is',
    scope: `piece ${id}`,
    undo: () => say(false),
    redo: () => say(true),
  });
}
