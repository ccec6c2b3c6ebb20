import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { sayBytes } from '#core/media/weight.ts';
import { ASKED_SECONDS, type Coming, sayThere, thereAfter } from '#core/proof/slow-line.ts';
import { useMeasure } from '../measure/told.ts';
import { useRoom } from '../measure/use-room.ts';
import { Button } from '../ui/button.tsx';
import { heightOf } from './look.ts';
import { Screenful } from './screenful.tsx';

const ComingChart = lazy(() => import('./coming-chart.tsx'));

interface SlowLookProps {
  /** The page as it is proofed, on the origin that serves previews. */
  readonly address: string;
  readonly viewport: number;
}

const GAP_PX = 22;
const LEAST_PX = 92;
const MOST_PX = 420;
/** So that the chart stands under them without scrolling. */
const LEAST_HEIGHT_PX = 360;
const REST_PX = 440;
/** A page that has been silent for so long has all that it asks for before anybody scrolls. */
const SILENT_MILLIS = 2500;
const LONGEST_MILLIS = 30_000;

/** The page as it comes by a slow line: a browser loads it through one, and what it got by when is told and drawn. */
export function SlowLook(props: SlowLookProps) {
  const [run, setRun] = useState(newRun);
  return (
    <Run
      key={`${run} ${props.address} ${props.viewport}`}
      {...props}
      run={run}
      onAgain={() => setRun(newRun())}
    />
  );
}

const newRun = () => Math.random().toString(36).slice(2, 10).padEnd(8, '0');

interface RunProps extends SlowLookProps {
  readonly run: string;
  readonly onAgain: () => void;
}

function Run({ address, viewport, run, onAgain }: RunProps) {
  const room = useRef<HTMLElement>(null);
  const frame = useRef<HTMLIFrameElement>(null);
  const measure = useMeasure(frame);
  const coming: Coming = measure ?? { painted: null, loads: [] };
  const isDone = useIsSilent(coming);
  const whole = useRoom(room, 880, false);
  const frames = ASKED_SECONDS.length + 1;
  const shown = Math.round(
    Math.min(
      viewport,
      MOST_PX,
      (Math.max(LEAST_HEIGHT_PX, window.innerHeight - REST_PX) * viewport) / heightOf(viewport),
      Math.max(LEAST_PX, (whole - GAP_PX * (frames - 1)) / frames),
    ),
  );
  const of = coming.loads.length;
  const bytes = coming.loads.reduce((sum, load) => sum + load.bytes, 0);
  const last = Math.max(coming.painted ?? 0, ...coming.loads.map(({ at }) => at));
  return (
    <section className="overflow-auto px-4.5 pt-3.5 pb-7.5" ref={room} aria-label="The page on a slow line">
      <div className="flex items-start gap-5.5">
        <Screenful
          title="As it comes"
          about={isDone ? 'All that comes before anybody scrolls.' : 'It comes...'}
          address={slowAddress(address, run)}
          viewport={viewport}
          shown={shown}
          frame={frame}
        />
        {ASKED_SECONDS.map((seconds) => {
          const there = thereAfter(coming, seconds);
          const isKnown = isDone || (!there.hasText && last > seconds * 1000);
          return (
            <Screenful
              key={seconds}
              title={`After ${seconds} s`}
              about={isKnown ? firstLarge(`${sayThere(there, of)}.`) : 'Not known yet.'}
              address={isKnown && there.hasText ? `${address}&late=${there.late.join('.')}` : null}
              viewport={viewport}
              shown={shown}
            />
          );
        })}
      </div>
      <div className="mt-4 max-w-190 bg-panel px-4 pt-3 pb-2 shadow-card">
        <div className="flex flex-wrap items-baseline justify-between gap-x-4">
          <h2 className="text-lg">What had come by when</h2>
          <Button kind="link" onClick={onAgain}>
            Load it again
          </Button>
        </div>
        <p className="text-sm text-soft" role="status">
          {isDone
            ? `By a line of 1.6 Mbit/s, 150 ms there and back, all is there after ${(last / 1000).toFixed(1)} s: ${of === 0 ? 'no pictures' : `${of === 1 ? 'one picture' : `${of} pictures`}, ${sayBytes(bytes)}`}.`
            : 'By a line of 1.6 Mbit/s, 150 ms there and back.'}
        </p>
        <Suspense>
          <ComingChart coming={coming} />
        </Suspense>
      </div>
    </section>
  );
}

/** By the slow line the document itself comes too, and it says so to all that it names. */
function slowAddress(address: string, run: string): string {
  const url = new URL(address);
  url.pathname = `/slow/${run}${url.pathname}`;
  url.searchParams.set('line', run);
  return url.href;
}

/** Whether a page that has come asks for nothing more. */
function useIsSilent({ painted, loads }: Coming): boolean {
  const [isSilent, setSilent] = useState(false);
  const count = loads.length;
  useEffect(() => {
    const longest = setTimeout(() => setSilent(true), LONGEST_MILLIS);
    return () => clearTimeout(longest);
  }, []);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each picture that comes begins the silence anew.
  useEffect(() => {
    if (painted === null) return;
    const silent = setTimeout(() => setSilent(true), SILENT_MILLIS);
    return () => clearTimeout(silent);
  }, [painted, count]);
  return isSilent;
}

const firstLarge = (text: string) => `${text.slice(0, 1).toUpperCase()}${text.slice(1)}`;
