import { useQuery } from '@tanstack/react-query';
import type { SealedPicture } from '#api/gather.ts';
import { sayFailure } from '../api/client.ts';
import { Button } from '../ui/button.tsx';
import { clipQuery, readingQuery } from './gather-queries.ts';
import { Group, type GroupProps, Sorted } from './source-group.tsx';

interface ReadingProps extends GroupProps {
  readonly address: string;
  readonly onTakeAll: (pictures: readonly SealedPicture[]) => void;
}

/** What stands at an address: the picture, or every picture of the page with what the page says of it. */
export function ReadingGroup({ address, onTakeAll, ...props }: ReadingProps) {
  const reading = useQuery(readingQuery(address));
  const host = hostOf(address);
  if (reading.isPending) return <Group name={host} about="is read" />;
  if (reading.error) {
    return (
      <Group
        name={host}
        about={sayFailure(reading.error)}
        isDue
        way={
          <Button kind="link" onClick={() => void reading.refetch()}>
            Read it again
          </Button>
        }
      />
    );
  }
  const { kind, title, pictures, leftOut } = reading.data;
  return (
    <Group
      name={kind === 'picture' ? host : title || host}
      about={sayRead(kind, host, pictures.length, leftOut)}
      way={
        pictures.length > 1 ? (
          <Button kind="link" onClick={() => onTakeAll(pictures)}>
            Take all {pictures.length}
          </Button>
        ) : null
      }
    >
      <Sorted name={title || host} pictures={pictures} {...props} question={AS_THEY_ARE} />
    </Group>
  );
}

/** What a person points at is shown whole, whatever the question would fold away. */
const AS_THEY_ARE = { words: '', commercial: false, changes: false, shape: 'any', leastWidth: 0 } as const;

function sayRead(kind: 'picture' | 'page', host: string, count: number, leftOut: number): string {
  if (kind === 'picture') return 'This is the address of a picture.';
  if (count === 0) return `This page of ${host} shows no picture that can be taken.`;
  const shown =
    count === 1
      ? `1 picture on this page of ${host}`
      : `${count} pictures on this page of ${host}, largest first`;
  return leftOut > 0 ? `${shown}; ${leftOut} smaller ones are left out` : shown;
}

export function hostOf(address: string): string {
  return URL.canParse(address) ? new URL(address).hostname || address : address;
}

/** A page that was handed in by a clipper: read like any address, with the words that were selected there. */
export function ClipGroup({ clipId, ...props }: Omit<ReadingProps, 'address'> & { readonly clipId: string }) {
  const clip = useQuery(clipQuery(clipId));
  if (clip.error) return <Group name="Clipped" about={sayFailure(clip.error)} isDue />;
  if (!clip.data) return <Group name="Clipped" about="is opened" />;
  return (
    <>
      {clip.data.selection ? (
        <blockquote className="mb-3 border-l-3 border-action bg-panel px-3 py-2 font-serif text-lg leading-body font-normal italic">
          {clip.data.selection}{' '}
          <span className="font-sans text-sm font-normal text-soft">
            selected on {hostOf(clip.data.address)}
          </span>
        </blockquote>
      ) : null}
      <ReadingGroup address={clip.data.address} {...props} />
    </>
  );
}
