import { useQuery } from '@tanstack/react-query';
import type { Asset } from '#api/assets.ts';
import type { SealedPicture } from '#api/gather.ts';
import { AlbumsGroup } from './albums-group.tsx';
import type { GatherAsked } from './gather-address.ts';
import { sourcesQuery } from './gather-queries.ts';
import { ClipGroup, ReadingGroup } from './reading-group.tsx';
import { ShelfGroup } from './shelf-group.tsx';
import { SourceGroup } from './source-group.tsx';

interface ResultsProps {
  readonly asked: GatherAsked;
  readonly group: Parameters<typeof SourceGroup>[0] extends infer P ? Omit<P, 'source'> : never;
  readonly openAsset: string | null;
  readonly onAsk: (change: Readonly<Record<string, string | null>>) => void;
  readonly onHeld: (asset: Asset) => void;
  readonly onTakeHeld: (asset: Asset) => void;
  readonly onTakeAll: (pictures: readonly SealedPicture[]) => void;
}

/** What was found: in what was read from an address or a clip, or at the sources that were asked. */
export function Results({ asked, group, openAsset, onAsk, onHeld, onTakeHeld, onTakeAll }: ResultsProps) {
  const sources = useQuery(sourcesQuery);
  if (asked.clipId) return <ClipGroup clipId={asked.clipId} onTakeAll={onTakeAll} {...group} />;
  if (asked.address) return <ReadingGroup address={asked.address} onTakeAll={onTakeAll} {...group} />;
  const wanted = (sources.data ?? []).filter(({ id }) => asked.from === null || id === asked.from);
  return (
    <>
      {asked.from === null ? (
        <ShelfGroup question={asked.question} openId={openAsset} onOpen={onHeld} onTake={onTakeHeld} />
      ) : null}
      {wanted.map((source) =>
        source.kind === 'drive' && asked.question.words === '' ? (
          <AlbumsGroup
            key={source.id}
            source={source}
            albumId={asked.albumId}
            onAlbum={(albumId) => onAsk({ album: albumId })}
            onTakeAll={onTakeAll}
            {...group}
          />
        ) : (
          <SourceGroup key={source.id} source={source} {...group} />
        ),
      )}
    </>
  );
}
