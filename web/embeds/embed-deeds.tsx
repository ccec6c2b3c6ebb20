import { useQuery } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import type { Asset } from '#api/assets.ts';
import type { Embed } from '#core/embed/model.ts';
import { sayFailure } from '../api/client.ts';
import { pagesQuery } from '../api/queries.ts';
import { putOnTray } from '../arrivals/arrivals.ts';
import { noteArrival } from '../pieces/put-away.ts';
import { Button } from '../ui/button.tsx';
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
  const keep = async (): Promise<Asset | null> => {
    if (piece) return piece;
    setBusy(true);
    try {
      const { asset, isNew, sentence } = await keepEmbed(embed);
      if (isNew) noteArrival(asset);
      else toast(sentence);
      onKept(asset);
      return asset;
    } catch (error) {
      toast.error(sayFailure(error));
      return null;
    } finally {
      setBusy(false);
    }
  };
  const placeOn = async (pageId: string) => {
    const asset = await keep();
    if (!asset) return;
    try {
      await putOnTray(pageId, [asset.id], null);
      navigate(`/pages/${pageId}?piece=${asset.id}`);
    } catch (error) {
      toast.error(sayFailure(error));
    }
  };
  return (
    <div className="embed-deeds" ref={deeds}>
      {piece ? (
        <p className="embed-deeds-where">
          On the shelf as <Link to={`/shelf?piece=${piece.id}`}>{piece.label.title || piece.stem}</Link>
          {sayPages(piece)}
        </p>
      ) : (
        <Button kind="action" disabled={isBusy} onClick={() => void keep()}>
          {isBusy ? 'Fetching its poster...' : 'Put on the shelf'}
        </Button>
      )}
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <Button disabled={isBusy}>Place on a page...</Button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className="popover" align="start" sideOffset={6}>
            {(pages.data ?? []).slice(0, 20).map(({ id, title }) => (
              <DropdownMenu.Item key={id} className="menu-item" onSelect={() => void placeOn(id)}>
                {title || 'Untitled page'}
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </div>
  );
}

function sayPages({ usedOn }: Asset): string {
  if (usedOn.length === 0) return ', on no page yet.';
  return `, used on ${usedOn.map(({ title }) => title).join(', ')}.`;
}
