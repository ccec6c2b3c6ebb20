import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Gathering, Taking } from '#api/gather.ts';
import { Button } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { Progress } from '../ui/progress.tsx';
import { useStore } from '../ui/store.ts';
import {
  type Arrival,
  arrivals,
  clearArrivals,
  pauseAll,
  pauseArrival,
  resumeAll,
  resumeArrival,
  stopAll,
  stopArrival,
} from './arrivals.ts';
import {
  clearGatherings,
  gatherings,
  goOnWithGathering,
  isHalted,
  isOpen,
  stopGathering,
} from './gatherings.ts';

/** So many lines stand open; the rest are counted until they are asked for. */
const SHOWN = 9;

/** Files and found pictures on their way in, each with how far it is and what became of it. Gone when there are none. */
export function ComingIn() {
  const files = useStore(arrivals);
  const gathered = useStore(gatherings);
  const [showsAll, setShowsAll] = useState(false);
  const takings = gathered.flatMap((gathering) => gathering.takings.map((taking) => ({ gathering, taking })));
  const minutes = useTimeLeft(files);
  const count = files.length + takings.length;
  const clear = () => {
    clearArrivals();
    clearGatherings();
  };
  useClearedWhenIn(
    count > 0 &&
      files.every(({ state }) => state === 'in') &&
      takings.every(({ taking }) => taking.state === 'in'),
    clear,
  );
  if (count === 0) return null;
  const settled =
    files.filter(({ state }) => state === 'in' || state === 'refused').length +
    takings.filter(({ taking }) => taking.state !== 'waiting').length;
  const ordered = [...files].sort((a, b) => Number(b.state === 'refused') - Number(a.state === 'refused'));
  const shownFiles = showsAll ? ordered : ordered.slice(0, SHOWN);
  const shownTakings = showsAll ? takings : takings.slice(0, Math.max(0, SHOWN - shownFiles.length));
  const hidden = count - shownFiles.length - shownTakings.length;
  return (
    <section
      className="flex items-start gap-4.5 overflow-x-auto border-t border-line bg-panel px-4.5 py-2"
      aria-label="Coming in"
    >
      <div className="min-w-24 flex-none">
        <strong className="block">Coming in</strong>
        <span className="block text-soft" role="status">
          {settled} of {count} {takings.length > 0 && files.length === 0 ? 'pictures' : 'files'}
        </span>
        {minutes ? <span className="block text-soft">{minutes}</span> : null}
        <BatchDeeds files={files} gathered={gathered} hasSettled={settled > 0} onClear={clear} />
      </div>
      <ul className="flex min-w-0 gap-4.5">
        {shownFiles.map((one) => (
          <ArrivalLine key={one.id} arrival={one} />
        ))}
        {shownTakings.map(({ gathering, taking }) => (
          <TakingLine key={`${gathering.jobId} ${taking.ordinal}`} taking={taking} />
        ))}
        {hidden > 0 || showsAll ? (
          <li className="w-57.5 flex-none">
            <Button kind="link" aria-expanded={showsAll} onClick={() => setShowsAll(!showsAll)}>
              {showsAll ? 'Only the first' : `${hidden} more`}
            </Button>
          </li>
        ) : null}
      </ul>
    </section>
  );
}

/** When all has come in and nothing was refused, the list has been seen after this long. */
const SEEN_MILLIS = 20_000;

/** Clears by itself what asks for nothing any more. */
function useClearedWhenIn(isAllIn: boolean, clear: () => void): void {
  const now = useRef(clear);
  useEffect(() => {
    now.current = clear;
  });
  useEffect(() => {
    if (!isAllIn) return;
    const seen = setTimeout(() => now.current(), SEEN_MILLIS);
    return () => clearTimeout(seen);
  }, [isAllIn]);
}

interface BatchProps {
  readonly files: readonly Arrival[];
  readonly gathered: readonly Gathering[];
  readonly hasSettled: boolean;
  readonly onClear: () => void;
}

function BatchDeeds({ files, gathered, hasSettled, onClear }: BatchProps) {
  const open = files.filter(({ state }) => state !== 'in' && state !== 'refused' && state !== 'looking');
  const halted = open.filter(({ state }) => state === 'paused' || state === 'cut');
  const running = gathered.filter(isOpen);
  const stop = () => {
    stopAll();
    for (const { jobId } of running) void stopGathering(jobId);
  };
  return (
    <div className="flex gap-3">
      {open.length > 1 && halted.length < open.length ? (
        <Button kind="link" onClick={pauseAll}>
          Pause all
        </Button>
      ) : null}
      {halted.length > 1 ? (
        <Button kind="link" onClick={resumeAll}>
          Go on with all
        </Button>
      ) : null}
      {gathered.some(isHalted) && running.length === 0 ? (
        <Button
          kind="link"
          onClick={() => {
            for (const { jobId } of gathered.filter(isHalted)) void goOnWithGathering(jobId);
          }}
        >
          Go on gathering
        </Button>
      ) : null}
      {open.length > 1 || running.length > 0 ? (
        <Button kind="link" onClick={stop}>
          {running.length > 0 && open.length === 0 ? 'Stop' : 'Stop all'}
        </Button>
      ) : null}
      {hasSettled && open.length === 0 && running.length === 0 ? (
        <Button kind="link" onClick={onClear}>
          Clear
        </Button>
      ) : null}
    </div>
  );
}

function ArrivalLine({ arrival }: { readonly arrival: Arrival }) {
  const { id, name, state, sentence, sent, bytes, assetId } = arrival;
  const share = state === 'in' ? 1 : bytes > 0 ? sent / bytes : 0;
  const isOnItsWay = state === 'waiting' || state === 'sending';
  return (
    <li className="w-57.5 flex-none">
      <div className={cx('truncate font-mono text-mono', state === 'refused' ? 'text-due' : '')}>
        {assetId && state === 'in' ? <Link to={`/shelf?piece=${assetId}`}>{name}</Link> : name}
      </div>
      {state === 'refused' ? null : <Bar name={name} share={share} />}
      <p className={state === 'refused' || state === 'cut' ? 'text-due' : 'text-soft'}>{sentence}</p>
      {state === 'in' || state === 'refused' || state === 'looking' ? null : (
        <p className="flex gap-3 text-sm">
          {isOnItsWay ? (
            <Button kind="link" onClick={() => pauseArrival(id)} aria-label={`Pause ${name}`}>
              Pause
            </Button>
          ) : (
            <Button kind="link" onClick={() => resumeArrival(id)} aria-label={`Go on with ${name}`}>
              Go on
            </Button>
          )}
          <Button kind="link" onClick={() => stopArrival(id)} aria-label={`Stop ${name}`}>
            Stop
          </Button>
        </p>
      )}
    </li>
  );
}

const TAKING_WORDS: Readonly<Record<Taking['state'], string>> = {
  waiting: 'Is fetched',
  in: '',
  refused: '',
  stopped: 'Stopped. Nothing of it was kept.',
};

function TakingLine({ taking }: { readonly taking: Taking }) {
  const { name, state, sentence } = taking;
  return (
    <li className="w-57.5 flex-none">
      <div className={cx('truncate font-mono text-mono', state === 'refused' ? 'text-due' : '')}>{name}</div>
      {state === 'waiting' || state === 'in' ? <Bar name={name} share={state === 'in' ? 1 : null} /> : null}
      <p className={state === 'refused' ? 'text-due' : 'text-soft'}>{sentence || TAKING_WORDS[state]}</p>
    </li>
  );
}

/** How far something is; without a share, that it is under way. */
function Bar({ name, share }: { readonly name: string; readonly share: number | null }) {
  return <Progress name={name} value={share === null ? null : share * 100} className="my-1" />;
}

const MINUTE_MILLIS = 60_000;

/** "2 min left", from what has come since the files began to come. */
function useTimeLeft(files: readonly Arrival[]): string | null {
  const began = useRef<{ at: number; sent: number } | null>(null);
  const bytes = files.reduce((sum, one) => sum + (one.state === 'refused' ? 0 : one.bytes), 0);
  const sent = files.reduce((sum, one) => sum + (one.state === 'in' ? one.bytes : one.sent), 0);
  const isComing = files.some(({ state }) => state === 'sending');
  useEffect(() => {
    if (!isComing) began.current = null;
    else began.current ??= { at: performance.now(), sent };
  }, [isComing, sent]);
  const start = began.current;
  if (!isComing || !start || sent <= start.sent) return null;
  const elapsed = performance.now() - start.at;
  if (elapsed < 2000) return null;
  const left = ((bytes - sent) / (sent - start.sent)) * elapsed;
  return left < MINUTE_MILLIS ? 'under a minute left' : `${Math.round(left / MINUTE_MILLIS)} min left`;
}
