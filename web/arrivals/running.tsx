import { Progress } from '../ui/progress.tsx';
import { useStore } from '../ui/store.ts';
import { arrivals } from './arrivals.ts';
import { gatherings, isOpen } from './gatherings.ts';

/** In the top bar, wherever one is: how far what is on its way in is. */
export function RunningArrivals() {
  const all = useStore(arrivals);
  const running = useStore(gatherings).filter(isOpen);
  const open = all.filter((one) => one.state !== 'in' && one.state !== 'refused');
  const takings = running.flatMap((gathering) => gathering.takings);
  const waiting = takings.filter(({ state }) => state === 'waiting').length;
  if (open.length + waiting === 0) return null;
  const [sent, bytes] = all.reduce(([s, b], one) => [s + one.sent, b + one.bytes], [0, 0]);
  const ofFiles = bytes > 0 ? sent / bytes : 1;
  const ofTakings = takings.length > 0 ? 1 - waiting / takings.length : 1;
  return (
    <span className="flex items-center gap-2 text-sm whitespace-nowrap text-bar-ink">
      {open.length + waiting} coming in
      <Progress
        name="Coming in"
        onBar
        className="w-17.5 max-narrow:hidden"
        value={Math.min(ofFiles, ofTakings) * 100}
      />
    </span>
  );
}
