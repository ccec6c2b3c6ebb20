import type { CaptionTrack } from '#api/captions.ts';
import type { TrackKind } from '#core/film/cue.ts';
import { Button } from '../ui/button.tsx';
import { useStore } from '../ui/store.ts';
import type { TrackKeeper } from './track-keeper.ts';

interface KeptSaysProps {
  readonly keeper: TrackKeeper;
  readonly tracks: readonly CaptionTrack[];
  readonly language: string;
  readonly kind: TrackKind;
}

/** Only where something keeps it from being kept. */
export function KeptSays({ keeper, tracks, language, kind }: KeptSaysProps) {
  const { keeping } = useStore(keeper.store);
  const theirs = tracks.find((one) => one.kind === kind && one.language === language);
  if (keeping === 'kept' || keeping === 'keeping') return null;
  if (keeping === 'clash')
    return (
      <div className="border-b border-hairline px-4 py-2" role="alert">
        <p className="text-due">Somebody has changed them meanwhile. Nothing of theirs was written over.</p>
        <Button kind="link" onClick={() => keeper.takeTheirs(theirs)}>
          Take theirs
        </Button>{' '}
        <Button kind="link" onClick={() => keeper.keepMine(theirs)}>
          Keep what is here
        </Button>
      </div>
    );
  return (
    <p className="border-b border-hairline px-4 py-2 text-due" role="alert">
      {keeping.failed}{' '}
      <Button kind="link" onClick={() => keeper.keepMine(theirs)}>
        Try again
      </Button>
    </p>
  );
}
