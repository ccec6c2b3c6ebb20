import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { Asset } from '#api/assets.ts';
import type { Embed } from '#core/embed/model.ts';
import { embedOf } from '#core/page/piece.ts';
import { sayFailure } from '../api/client.ts';
import { pagesQuery } from '../api/queries.ts';
import { putOnTray } from '../arrivals/arrivals.ts';
import { useOffer } from '../frame/commands.ts';
import { sayPageTitle } from '../pages/say-title.ts';
import { noteArrival, replacePiece } from '../pieces/put-away.ts';
import { sayUsedOn } from '../pieces/say-used-on.ts';
import { Button } from '../ui/button.tsx';
import { Choose } from '../ui/choose.tsx';
import { toast } from '../ui/toast.ts';
import { heldEmbedsQuery } from './embed-queries.ts';
import { keepEmbed } from './held-embeds.ts';

interface EmbedDeedsProps {
  readonly embed: Embed;
  /** The piece it is already, or null. */
  readonly piece: Asset | null;
  /** It was put on the shelf just now, by the button that is gone with that. */
  readonly isJustKept: boolean;
  readonly onKept: (asset: Asset) => void;
}

/** What is done with an embed once it is seen: onto the shelf, onto a page. */
export function EmbedDeeds({ embed, piece, isJustKept, onKept }: EmbedDeedsProps) {
  const deeds = useRef<HTMLDivElement>(null);
  // The hand goes on where it was: to what can be done with it next.
  useEffect(() => {
    if (isJustKept) deeds.current?.querySelector('button')?.focus();
  }, [isJustKept]);
  const [isBusy, setBusy] = useState(false);
  const navigate = useNavigate();
  const pages = useQuery(pagesQuery);
  const held = useQuery(heldEmbedsQuery);
  // Only what stands on a page has a place that another can take.
  const others = (held.data?.assets ?? []).filter(
    (other) =>
      other.usedOn.length > 0 && other.id !== piece?.id && embedOf(other)?.embed.address !== embed.address,
  );
  /** The piece it is on the shelf, or becomes now; null where that could not be. */
  const pieceOf = async (): Promise<Asset | null> => {
    if (piece) return piece;
    setBusy(true);
    try {
      const { asset, isNew, sentence } = await keepEmbed(embed);
      if (isNew) noteArrival(asset);
      else toast(sentence);
      return asset;
    } catch (error) {
      toast.error(sayFailure(error));
      return null;
    } finally {
      setBusy(false);
    }
  };
  /** From now on it is shown as the piece that it is. */
  const show = (asset: Asset) => {
    if (!piece) onKept(asset);
  };
  const keep = async () => {
    const asset = await pieceOf();
    if (asset) show(asset);
  };
  useOffer(piece || isBusy ? [] : [{ words: 'Put this embed on the shelf', act: () => void keep() }]);
  const [params] = useSearchParams();
  // Whoever came from where it stands on a page goes back there, instead of placing it again.
  const forPage = params.has('use')
    ? undefined
    : pages.data?.pages.find(({ id }) => id === params.get('page'));
  const placeOn = async (pageId: string) => {
    const asset = await pieceOf();
    if (!asset) return;
    try {
      await putOnTray(pageId, [asset.id], pageId === forPage?.id ? params.get('want') : null);
      navigate(`/pages/${pageId}?piece=${asset.id}`);
    } catch (error) {
      toast.error(sayFailure(error));
      show(asset);
    }
  };
  const standFor = async (old: Asset) => {
    const asset = await pieceOf();
    if (!asset) return;
    try {
      await replacePiece(old, asset);
      toast(`${nameOf(asset)} stands where ${nameOf(old)} stood.`);
    } catch (error) {
      toast.error(sayFailure(error));
    }
    // Only now, so that it is asked for with the pages that it stands on by then.
    show(asset);
  };
  return (
    <div className="mb-4.5 flex flex-wrap items-center gap-2" ref={deeds}>
      {forPage ? (
        <Button kind="action" disabled={isBusy} onClick={() => void placeOn(forPage.id)}>
          Put on the tray of {forPage.title || 'the page'}
        </Button>
      ) : null}
      {piece ? (
        <p className="flex-[1_0_100%]">
          On the shelf as <Link to={`/shelf?piece=${piece.id}`}>{piece.label.title || piece.stem}</Link>
          {`, ${sayUsedOn(piece)}.`}
          {piece.usedOn.length > 0 ? ' What is changed here is changed wherever it stands.' : ''}
        </p>
      ) : (
        <Button kind={forPage ? 'plain' : 'action'} disabled={isBusy} onClick={() => void keep()}>
          {isBusy ? 'Fetching its poster...' : 'Put on the shelf'}
        </Button>
      )}
      <Choose
        words="Place on a page..."
        isBusy={isBusy}
        choices={(pages.data?.pages ?? []).slice(0, 20).map(({ id, title }) => [id, sayPageTitle(title)])}
        onChoose={(id) => void placeOn(id)}
      />
      {others.length > 0 ? (
        <Choose
          words="In the place of..."
          isBusy={isBusy}
          choices={others.map((other) => [other.id, `${nameOf(other)}, ${sayUsedOn(other)}`])}
          onChoose={(id) => {
            const old = others.find((other) => other.id === id);
            if (old) void standFor(old);
          }}
        />
      ) : null}
    </div>
  );
}

const nameOf = ({ label, stem }: Asset) => label.title || stem;
