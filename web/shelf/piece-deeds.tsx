import { useQuery } from '@tanstack/react-query';
import { AlertDialog } from 'radix-ui';
import { toast } from 'sonner';
import type { Asset } from '#api/assets.ts';
import { sayFailure } from '../api/client.ts';
import { pinsQuery } from '../api/queries.ts';
import { sayPageTitle } from '../pages/say-title.ts';
import { bringBack, foldPiece, pin, throwAway, unpin } from '../pieces/put-away.ts';
import { Button } from '../ui/button.tsx';

/** What can be done with a piece besides saying more of it: kept at hand, unfolded, thrown away, brought back. */
export function PieceDeeds({
  asset,
  isEditable,
  onGone,
}: {
  readonly asset: Asset;
  readonly isEditable: boolean;
  readonly onGone: () => void;
}) {
  const pins = useQuery(pinsQuery);
  const isPinned = pins.data?.includes(asset.id) ?? false;
  const act = (work: () => Promise<void>, done?: string) => async () => {
    try {
      await work();
      if (done) toast(done);
    } catch (error) {
      toast.error(sayFailure(error));
    }
  };
  if (asset.deletedAt) {
    return isEditable ? (
      <div className="label-after">
        <p className="due">It was thrown away, and is kept for 30 days.</p>
        <Button onClick={() => void act(() => bringBack([asset]))()}>Bring it back</Button>
      </div>
    ) : null;
  }
  return (
    <div className="label-after piece-deeds">
      <Button kind="link" onClick={() => void act(() => (isPinned ? unpin(asset.id) : pin(asset.id)))()}>
        {isPinned ? 'No longer keep it at hand' : 'Keep it at hand'}
      </Button>
      {asset.foldedInto && isEditable ? (
        <Button kind="link" onClick={() => void act(() => foldPiece(asset.id, null, asset.foldedInto))()}>
          Let it stand by itself
        </Button>
      ) : null}
      {isEditable ? (
        <ThrowAway
          assets={[asset]}
          words="Throw it away"
          onThrow={async () => {
            await act(() => throwAway([asset]))();
            onGone();
          }}
        />
      ) : null}
    </div>
  );
}

interface ThrowAwayProps {
  readonly assets: readonly Asset[];
  readonly words: string;
  readonly kind?: 'plain' | 'link';
  readonly onThrow: () => Promise<void>;
}

/** Shows first where pieces are used; one that is on no page goes at once. */
export function ThrowAway({ assets, words, kind = 'link', onThrow }: ThrowAwayProps) {
  const pages = [...new Map(assets.flatMap(({ usedOn }) => usedOn).map((page) => [page.id, page])).values()];
  const titles = pages
    .slice(0, 12)
    .flatMap(({ id, title }) => (title === null ? [] : [[id, title] as const]));
  if (pages.length === 0) {
    return (
      <Button kind={kind} onClick={() => void onThrow()}>
        {words}
      </Button>
    );
  }
  return (
    <AlertDialog.Root>
      <AlertDialog.Trigger asChild>
        <Button kind={kind}>{words}</Button>
      </AlertDialog.Trigger>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="dialog-ground" />
        <AlertDialog.Content className="dialog">
          <AlertDialog.Title asChild>
            <h2>{assets.length === 1 ? 'It is in use' : 'Some of them are in use'}</h2>
          </AlertDialog.Title>
          <AlertDialog.Description asChild>
            <div>
              <p>
                Thrown away, it is missing on{' '}
                {pages.length === 1 ? 'this page' : `these ${pages.length} pages`}. It is kept for 30 days and
                can be brought back.
              </p>
              {titles.length > 0 ? (
                <ul className="compare-facts">
                  {titles.map(([id, title]) => (
                    <li key={id}>{sayPageTitle(title)}</li>
                  ))}
                </ul>
              ) : null}
            </div>
          </AlertDialog.Description>
          <div className="dialog-actions">
            <AlertDialog.Action asChild>
              <Button kind="action" onClick={() => void onThrow()}>
                Throw away all the same
              </Button>
            </AlertDialog.Action>
            <AlertDialog.Cancel asChild>
              <Button>Leave it</Button>
            </AlertDialog.Cancel>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
