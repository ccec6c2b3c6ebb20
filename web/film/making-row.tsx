import { useMutation } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import type { Asset } from '#api/assets.ts';
import type { FilmWork } from '#api/films.ts';
import { FILM_FORMATS } from '#core/film/facts.ts';
import { sayBytes } from '#core/media/weight.ts';
import { sayFailure } from '../api/client.ts';
import { Button } from '../ui/button.tsx';
import { Fault } from '../ui/fault.tsx';
import { Progress } from '../ui/progress.tsx';
import { orderFilm, tellPiece } from './tracks.ts';

interface MakingRowProps {
  readonly asset: Extract<Asset, { readonly kind: 'film' }>;
  readonly work: FilmWork | undefined;
  readonly isEditable: boolean;
}

/** The files that are made of a film for the web, how far that is, and how to stop it or go on. */
export function MakingRow({ asset, work, isEditable }: MakingRowProps) {
  const job = work?.job ?? null;
  const isUnderWay = job?.state === 'waiting' || job?.state === 'running';
  const ordering = useMutation({ mutationFn: (deed: 'make' | 'stop') => orderFilm(asset.id, deed) });
  const seen = useRef('');
  useEffect(() => {
    // Each file that is made is told of where the piece is shown.
    const now = `${job?.id} ${job?.state} ${job ? Math.floor(job.done / 100) : 0}`;
    if (job && seen.current !== '' && seen.current !== now) void tellPiece(asset.id);
    seen.current = now;
  }, [asset.id, job]);
  return (
    <div>
      {asset.made.length > 0 ? (
        <ul aria-label="Files for the web">
          {asset.made.map(({ format, width, height, bytes }) => (
            <li key={`${format} ${width}`} className="flex justify-between gap-2">
              <span>
                {FILM_FORMATS[format].says}
                {width > 0 ? `, ${width} × ${height}` : ''}
              </span>
              <span className="font-mono text-mono">{sayBytes(bytes)}</span>
            </li>
          ))}
        </ul>
      ) : null}
      {isUnderWay && job ? (
        <>
          <p role="status">{job.words || 'It waits for its turn.'}</p>
          <Progress name="Making it for the web" value={job.of > 0 ? (job.done / job.of) * 100 : null} />
        </>
      ) : null}
      {job?.state === 'failed' ? <Fault says={job.words} /> : null}
      {job?.state === 'stopped' && asset.made.length === 0 ? (
        <p className="text-due">It was stopped before it was made.</p>
      ) : null}
      {isEditable && isUnderWay ? (
        <Button kind="link" disabled={ordering.isPending} onClick={() => ordering.mutate('stop')}>
          Stop making it
        </Button>
      ) : null}
      {isEditable &&
      !isUnderWay &&
      (asset.made.length === 0 || job?.state === 'stopped' || job?.state === 'failed') ? (
        <Button kind="link" disabled={ordering.isPending} onClick={() => ordering.mutate('make')}>
          Make it for the web
        </Button>
      ) : null}
      <Fault says={ordering.error ? sayFailure(ordering.error) : null} />
    </div>
  );
}
