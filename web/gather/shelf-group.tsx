import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { Asset, AssetQuery } from '#api/assets.ts';
import type { GatherQuestion } from '#core/gather/question.ts';
import { termsOf } from '#core/rights/house-licence.ts';
import { sayFailure } from '../api/client.ts';
import { askShelf, shelfCountQuery } from '../api/queries.ts';
import { failureOf } from '../api/unanswered.tsx';
import { putPieces } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { ResultRows } from './result-rows.tsx';
import { Group } from './source-group.tsx';

interface ShelfGroupProps {
  readonly question: GatherQuestion;
  readonly openId: string | null;
  readonly onOpen: (asset: Asset) => void;
  readonly onTake: (asset: Asset) => void;
}

const NONE: ReadonlySet<string> = new Set();
const SHOWN = '24';

/** What is held already and answers the question: it comes first, since it costs nothing. */
export function ShelfGroup({ question, openId, onOpen, onTake }: ShelfGroupProps) {
  const [isOpen, setOpen] = useState(false);
  const asked = shelfQuestion(question);
  const shelf = useQuery({
    queryKey: ['shelf', 'gather', asked],
    queryFn: ({ signal }) => askShelf(asked, signal),
    placeholderData: (before) => before,
  });
  useEffect(() => {
    if (shelf.data) putPieces(shelf.data.assets);
  }, [shelf.data]);
  const assets = shelf.data?.assets ?? [];
  const counted = useQuery(shelfCountQuery(asked));
  const found = counted.data?.found ?? 0;
  const failure = failureOf(shelf) ?? failureOf(counted);
  const byId = (id: string) => assets.find((asset) => asset.id === id);
  const on = (deed: (asset: Asset) => void) => (id: string) => {
    const asset = byId(id);
    if (asset) deed(asset);
  };
  return (
    <Group
      name="On your shelf"
      isDue={failure !== null}
      about={
        failure
          ? sayFailure(failure)
          : found === 0
            ? 'nothing that fits'
            : `${found} ${found === 1 ? 'fits' : 'fit'}`
      }
      way={
        failure ? null : found > 0 ? (
          <Button kind="link" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
            {isOpen ? 'Fold them away' : `Show ${Math.min(found, Number(SHOWN))}`}
          </Button>
        ) : null
      }
    >
      {isOpen ? (
        <ResultRows
          name="On your shelf"
          pictures={assets.map((asset) => ({
            id: asset.id,
            look: asset.thumb,
            title: asset.label.title || asset.stem,
            width: asset.width,
            height: asset.height,
            note: `${asset.width} × ${asset.height} · ${termsOf(asset.label).short}`,
            isDue: false,
          }))}
          openId={openId}
          chosen={NONE}
          onOpen={on(onOpen)}
          onChoose={on(onOpen)}
          onTake={on(onTake)}
        />
      ) : null}
    </Group>
  );
}

/** The question as the shelf is asked it. */
function shelfQuestion(question: GatherQuestion): AssetQuery {
  return {
    words: question.words,
    limit: SHOWN,
    ...(question.commercial ? { licence: 'commercial' } : {}),
    ...(question.shape === 'any' ? {} : { shape: question.shape }),
    ...(question.leastWidth > 0 ? { leastWidth: String(question.leastWidth) } : {}),
  };
}
