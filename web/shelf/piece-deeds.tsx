import { useQuery } from '@tanstack/react-query';
import type { Asset } from '#api/assets.ts';
import { may } from '#api/people.ts';
import type { HouseRules } from '#core/page/target.ts';
import { sayFailure } from '../api/client.ts';
import { meQuery, pinsQuery } from '../api/queries.ts';
import { FigureDeed } from '../figure/figure-deed.tsx';
import { sayPageTitle } from '../pages/say-title.ts';
import { bringBack, foldPiece, pin, throwAway, unpin } from '../pieces/put-away.ts';
import { ReplaceDeed } from '../replace/replace-deed.tsx';
import { Button, type ButtonKind } from '../ui/button.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Alert, AlertAction, AlertCancel, AlertContent, AlertTrigger } from '../ui/panel.tsx';
import { toast } from '../ui/toast.ts';

/** What can be done with a piece besides saying more of it: kept at hand, unfolded, thrown away, brought back. */
export function PieceDeeds({
  asset,
  isEditable,
  replacedUnder,
  onGone,
}: {
  readonly asset: Asset;
  readonly isEditable: boolean;
  /** The rules under which it can be replaced on pages; null for those who change no pages. */
  readonly replacedUnder: HouseRules | null;
  readonly onGone: () => void;
}) {
  const pins = useQuery(pinsQuery);
  const { data: me } = useQuery(meQuery);
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
      <div className="px-1 pt-2.5">
        <p className="text-due">It was thrown away, and is kept for 30 days.</p>
        <Button onClick={() => void act(() => bringBack([asset]))()}>Bring it back</Button>
      </div>
    ) : null;
  }
  return (
    <div className="flex flex-wrap gap-x-4 gap-y-0.5 px-1 pt-2.5">
      <Button kind="link" onClick={() => void act(() => (isPinned ? unpin(asset.id) : pin(asset.id)))()}>
        {isPinned ? 'Unpin' : 'Pin'}
      </Button>
      {asset.foldedInto && isEditable ? (
        <Button kind="link" onClick={() => void act(() => foldPiece(asset.id, null, asset.foldedInto))()}>
          Unfold it
        </Button>
      ) : null}
      {me && may(me.role, 'take-away') ? <FigureDeed asset={asset} /> : null}
      {replacedUnder ? <ReplaceDeed asset={asset} rules={replacedUnder} /> : null}
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
  readonly kind?: ButtonKind;
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
    <Alert>
      <AlertTrigger asChild>
        <Button kind={kind}>{words}</Button>
      </AlertTrigger>
      <AlertContent
        title={assets.length === 1 ? 'It is in use' : 'Some of them are in use'}
        about={
          <>
            <p>
              Thrown away, it is missing on {pages.length === 1 ? 'this page' : `these ${pages.length} pages`}
              . It is kept for 30 days and can be brought back.
            </p>
            {titles.length > 0 ? (
              <ul className="mb-3 list-disc pl-4.5">
                {titles.map(([id, title]) => (
                  <li key={id}>{sayPageTitle(title)}</li>
                ))}
              </ul>
            ) : null}
          </>
        }
      >
        <Deeds>
          <AlertAction asChild>
            <Button kind="action" onClick={() => void onThrow()}>
              Throw away all the same
            </Button>
          </AlertAction>
          <AlertCancel asChild>
            <Button>Leave it</Button>
          </AlertCancel>
        </Deeds>
      </AlertContent>
    </Alert>
  );
}
