import { Button } from '../ui/button.tsx';
import { type Clock, useMoment } from './clock.ts';
import { shortTime } from './say-time.ts';
import { SCALES } from './scales.ts';

interface PlayBarProps {
  readonly clock: Clock;
  readonly end: number;
  readonly scale: number;
  readonly onScale: (scale: number) => void;
}

/** Plays, says where it is, and how much of the time is in sight. */
export function PlayBar({ clock, end, scale, onScale }: PlayBarProps) {
  const isPlaying = useMoment(clock, (_, playing) => playing);
  const now = useMoment(clock, (at) => shortTime(at));
  return (
    <div className="flex items-center gap-3 border-t border-line bg-panel px-4 py-1.5">
      <Button data-plays onClick={() => clock.toggle()}>
        {isPlaying ? 'Pause' : 'Play'}
      </Button>
      <p className="font-mono text-mono">
        {now} <span className="text-soft">of {shortTime(end)}</span>
      </p>
      <span className="grow" />
      <Button kind="quiet" disabled={scale === 0} onClick={() => onScale(scale - 1)}>
        Wider
      </Button>
      <Button kind="quiet" disabled={scale === SCALES.length - 1} onClick={() => onScale(scale + 1)}>
        Closer
      </Button>
    </div>
  );
}
