import { useQuery } from '@tanstack/react-query';
import type { Album, SealedPicture, SourceAbout } from '#api/gather.ts';
import { sayFailure } from '../api/client.ts';
import { Button } from '../ui/button.tsx';
import { albumQuery, albumsQuery } from './gather-queries.ts';
import { Group, type GroupProps, Sorted } from './source-group.tsx';

interface AlbumsProps extends GroupProps {
  readonly source: SourceAbout;
  readonly albumId: string | null;
  readonly onAlbum: (albumId: string | null) => void;
  readonly onTakeAll: (pictures: readonly SealedPicture[]) => void;
}

/** The albums of a drive, with what of each is not on the shelf yet; one opened at a time. */
export function AlbumsGroup({ source, albumId, onAlbum, onTakeAll, ...props }: AlbumsProps) {
  const albums = useQuery(albumsQuery(source.id));
  if (albums.isPending) return <Group name={source.name} about="is asked" />;
  if (albums.error) return <Group name={source.name} about={sayFailure(albums.error)} isDue />;
  const list = albums.data ?? [];
  return (
    <Group
      name={source.name}
      about={`${list.length} ${list.length === 1 ? 'album' : 'albums'}, ${source.about}`}
    >
      <ul>
        {list.map((album) => (
          <li
            className="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3 gap-y-0.5 border-t border-hairline py-1.25"
            key={album.id}
          >
            <p>
              <strong>{album.name}</strong> <span className="text-soft">{sayFresh(album)}</span>
            </p>
            <Button
              kind="link"
              aria-expanded={album.id === albumId}
              aria-label={`${album.id === albumId ? 'Close' : 'Open'} ${album.name}`}
              onClick={() => onAlbum(album.id === albumId ? null : album.id)}
            >
              {album.id === albumId ? 'Close' : 'Open'}
            </Button>
            {album.id === albumId ? (
              <OpenAlbum source={source} album={album} onTakeAll={onTakeAll} {...props} />
            ) : null}
          </li>
        ))}
      </ul>
    </Group>
  );
}

function sayFresh({ files, fresh }: Album): string {
  if (fresh === 0) return `${files} files, all held already`;
  return fresh === files ? `${files} files` : `${files} files, ${fresh} of them new or changed`;
}

interface OpenAlbumProps extends GroupProps {
  readonly source: SourceAbout;
  readonly album: Album;
  readonly onTakeAll: (pictures: readonly SealedPicture[]) => void;
}

function OpenAlbum({ source, album, onTakeAll, ...props }: OpenAlbumProps) {
  const files = useQuery(albumQuery(source.id, album.id));
  if (files.error) return <p className="text-due">{sayFailure(files.error)}</p>;
  if (!files.data) return <p className="text-soft">is opened</p>;
  const { pictures } = files.data;
  // An album is looked through whole: what a question would fold away may be just what it was opened for.
  const anything = { words: '', commercial: false, changes: false, shape: 'any', leastWidth: 0 } as const;
  return (
    <div className="col-span-full grid grid-cols-1 justify-items-start gap-2.5 pt-1 pb-1.5">
      <Button onClick={() => onTakeAll(pictures)}>
        {album.fresh === 0 ? 'Take all again' : `Take all ${pictures.length}`}
      </Button>
      <div className="w-full">
        <Sorted name={album.name} pictures={pictures} {...props} question={anything} />
      </div>
    </div>
  );
}
