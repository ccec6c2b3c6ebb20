import { useStore } from '../ui/store.ts';
import { arrivals } from './arrivals.ts';

/** In the top bar, wherever one is: how far the files on their way in are. */
export function RunningArrivals() {
  const all = useStore(arrivals);
  const open = all.filter((one) => one.state !== 'in' && one.state !== 'refused');
  if (open.length === 0) return null;
  const [sent, bytes] = all.reduce(([s, b], one) => [s + one.sent, b + one.bytes], [0, 0]);
  return (
    <span className="bar-running">
      {open.length} coming in
      <span className="bar-progress">
        <span style={{ width: `${bytes > 0 ? (sent / bytes) * 100 : 0}%` }} />
      </span>
    </span>
  );
}
