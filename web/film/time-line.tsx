import { type PointerEvent, type ReactNode, useEffect, useRef, useState } from 'react';
import type { Cue } from '#core/film/cue.ts';
import { type Edited, movedTo, withEdge } from '#core/film/edit-cues.ts';
import type { Span } from '#core/film/recipe.ts';
import { cx } from '../ui/cx.ts';
import { type Clock, useMoment } from './clock.ts';
import { axisTime, shortTime } from './say-time.ts';
import { Wave } from './wave.tsx';

/** One of the lanes of captions or chapters that are drawn along the time. */
export interface LaneOf {
  readonly name: string;
  readonly one: string;
  readonly cues: readonly Cue[];
  readonly at: number | null;
  /** Which of them ask for a look. */
  readonly asking: ReadonlySet<number>;
  readonly isEditable: boolean;
  readonly onSelect: (at: number) => void;
  readonly onShow: (edited: Edited) => void;
  readonly onEdit: (edited: Edited, name: string, before: readonly Cue[]) => void;
}

interface TimeLineProps {
  readonly seconds: number;
  readonly wave: readonly number[];
  readonly silences: readonly Span[];
  readonly kept: readonly Span[];
  readonly keptSays: string;
  readonly lanes: readonly LaneOf[];
  readonly clock: Clock;
  readonly perSecond: number;
}

const LABEL_PX = 118;
/** Beyond what is in sight so much is drawn, in seconds. */
const BEYOND = 2;

/** The film over time: what is heard, what is said when, its parts, and what of it stays. */
export function TimeLine({
  seconds,
  wave,
  silences,
  kept,
  keptSays,
  lanes,
  clock,
  perSecond,
}: TimeLineProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const [seen, setSeen] = useState({ from: 0, to: 60 });
  const look = () => {
    const element = scroller.current;
    if (!element) return;
    const from = element.scrollLeft / perSecond - BEYOND;
    setSeen({ from: Math.max(0, from), to: from + element.clientWidth / perSecond + 2 * BEYOND });
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: another scale shows another stretch.
  useEffect(() => {
    const element = scroller.current;
    if (!element) return;
    const watch = new ResizeObserver(look);
    watch.observe(element);
    return () => watch.disconnect();
  }, [perSecond]);
  useFollow(scroller, clock, perSecond);
  const width = Math.ceil(seconds * perSecond);
  const inSight = <T extends Span>(spans: readonly T[]) =>
    spans.flatMap((span, at) =>
      span.to / 1000 >= seen.from && span.from / 1000 <= seen.to ? [{ span, at }] : [],
    );
  const seek = (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0) return;
    const left = event.currentTarget.getBoundingClientRect().left;
    clock.seek(((event.clientX - left) / perSecond) * 1000);
  };
  return (
    <div
      className="grid min-h-0 border-t border-line bg-panel"
      style={{ gridTemplateColumns: `${LABEL_PX}px minmax(0,1fr)` }}
    >
      <div className="pt-[27px] pl-4.5 text-2xs font-semibold text-soft">
        <p className="h-16 pt-3">Sound</p>
        {lanes.map(({ name }) => (
          <p key={name} className="h-10.5 pt-4.5">
            {name}
          </p>
        ))}
        <p className="h-10.5 pt-4.5">Kept</p>
      </div>
      <div ref={scroller} className="overflow-x-auto overflow-y-hidden" onScroll={look}>
        <div className="relative min-h-full" style={{ width }}>
          <div className="cursor-pointer" onPointerDown={seek}>
            <Axis seconds={seconds} seen={seen} perSecond={perSecond} />
            <Wave wave={wave} seconds={seconds} silences={silences} seen={seen} perSecond={perSecond} />
          </div>
          {lanes.map((lane) => (
            <Lane
              key={lane.name}
              lane={lane}
              clock={clock}
              perSecond={perSecond}
              inSight={inSight(lane.cues)}
            />
          ))}
          <Kept kept={kept} says={keptSays} seconds={seconds} perSecond={perSecond} />
          <Cursor clock={clock} perSecond={perSecond} />
        </div>
      </div>
    </div>
  );
}

/** What plays stays in sight. */
function useFollow(
  scroller: { readonly current: HTMLDivElement | null },
  clock: Clock,
  perSecond: number,
): void {
  useEffect(
    () =>
      clock.store.subscribe(() => {
        const element = scroller.current;
        if (!element) return;
        const left = (clock.store.state.at / 1000) * perSecond;
        const isSeen = left >= element.scrollLeft && left <= element.scrollLeft + element.clientWidth - 24;
        if (!isSeen) element.scrollLeft = Math.max(0, left - element.clientWidth * 0.2);
      }),
    [scroller, clock, perSecond],
  );
}

const STEPS = [1, 2, 4, 10, 20, 60, 120, 300, 600, 1800, 3600];
const LEAST_STEP_PX = 80;

function Axis({
  seconds,
  seen,
  perSecond,
}: {
  readonly seconds: number;
  readonly seen: { from: number; to: number };
  readonly perSecond: number;
}) {
  const step = STEPS.find((one) => one * perSecond >= LEAST_STEP_PX) ?? 3600;
  const first = Math.floor(seen.from / step) * step;
  const marks = Array.from({ length: Math.ceil((seen.to - first) / step) + 1 }, (_, at) => first + at * step);
  return (
    <div className="relative h-[23px] border-b border-ink" aria-hidden="true">
      {marks
        .filter((mark) => mark <= seconds)
        .map((mark) => (
          <span
            key={mark}
            className="absolute top-1 font-mono text-2xs text-soft"
            style={{ left: mark * perSecond }}
          >
            {axisTime(mark * 1000)}
          </span>
        ))}
    </div>
  );
}

interface LaneProps {
  readonly lane: LaneOf;
  readonly clock: Clock;
  readonly perSecond: number;
  readonly inSight: readonly { readonly span: Cue; readonly at: number }[];
}

function Lane({ lane, clock, perSecond, inSight }: LaneProps) {
  return (
    <ul className="relative h-10.5" aria-label={`${lane.name} over time`}>
      {inSight.map(({ span, at }) => (
        <Mark key={at} lane={lane} cue={span} at={at} clock={clock} perSecond={perSecond} />
      ))}
    </ul>
  );
}

interface MarkProps {
  readonly lane: LaneOf;
  readonly cue: Cue;
  readonly at: number;
  readonly clock: Clock;
  readonly perSecond: number;
}

type Grip = 'from' | 'to' | 'whole';

/** One of them as a line with a tick at each end, moved as a whole or by one of its ends. */
function Mark({ lane, cue, at, clock, perSecond }: MarkProps) {
  const drag = useRef<{
    readonly grip: Grip;
    readonly x: number;
    readonly before: readonly Cue[];
    edited: Edited | null;
  } | null>(null);
  const isSelected = lane.at === at;
  const left = (cue.from / 1000) * perSecond;
  const width = Math.max(3, ((cue.to - cue.from) / 1000) * perSecond);
  const begin = (grip: Grip) => (event: PointerEvent<HTMLElement>) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    lane.onSelect(at);
    if (!lane.isEditable) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { grip, x: event.clientX, before: lane.cues, edited: null };
  };
  const move = (event: PointerEvent<HTMLElement>) => {
    const held = drag.current;
    if (!held) return;
    const by = ((event.clientX - held.x) / perSecond) * 1000;
    const original = held.before[at];
    if (!original || (held.edited === null && Math.abs(event.clientX - held.x) < 3)) return;
    held.edited =
      held.grip === 'whole'
        ? movedTo(held.before, at, original.from + by)
        : withEdge(held.before, at, held.grip, original[held.grip] + by);
    lane.onShow(held.edited);
  };
  const end = () => {
    const held = drag.current;
    drag.current = null;
    if (held?.edited) lane.onEdit(held.edited, `moving a ${lane.one.toLowerCase()}`, held.before);
    else if (held) clock.seek(cue.from);
  };
  const grips = { onPointerMove: move, onPointerUp: end, onPointerCancel: end };
  const tone = lane.asking.has(at) ? 'text-due' : isSelected ? 'text-action' : 'text-ink';
  return (
    <li className={cx('absolute top-1.5 h-9', tone)} style={{ left, width }}>
      <button
        type="button"
        className={cx(
          'block size-full truncate pt-0 text-left text-2xs leading-4',
          isSelected && 'font-strong',
        )}
        aria-label={`${lane.one} ${at + 1}, ${shortTime(cue.from)} to ${shortTime(cue.to)}: ${cue.text}`}
        aria-pressed={isSelected}
        onClick={({ detail }) => {
          if (detail !== 0) return;
          lane.onSelect(at);
          clock.seek(cue.from);
        }}
        onPointerDown={begin('whole')}
        {...grips}
      >
        <span className="absolute inset-x-0 top-0 truncate">{cue.text.replaceAll('\n', ' ')}</span>
        <span
          className={cx('absolute inset-x-0 top-[22px] border-t border-current', isSelected && 'border-t-2')}
        />
        <span className="absolute top-[18px] left-0 h-[9px] border-l border-current" />
        <span className="absolute top-[18px] right-0 h-[9px] border-l border-current" />
      </button>
      {lane.isEditable
        ? (['from', 'to'] as const).map((grip) => (
            <span
              key={grip}
              className={cx(
                'absolute top-3 h-5 w-2 cursor-ew-resize touch-none',
                grip === 'from' ? '-left-1' : '-right-1',
              )}
              onPointerDown={begin(grip)}
              {...grips}
            />
          ))
        : null}
    </li>
  );
}

/** What of the film stays: a line, hatched where something is left out. */
function Kept({
  kept,
  says,
  seconds,
  perSecond,
}: {
  readonly kept: readonly Span[];
  readonly says: string;
  readonly seconds: number;
  readonly perSecond: number;
}): ReactNode {
  const px = (millis: number) => (millis / 1000) * perSecond;
  const [first] = kept;
  const outs: Span[] = [];
  let last = 0;
  for (const { from, to } of [...kept, { from: Math.round(seconds * 1000), to: 0 }]) {
    if (from > last) outs.push({ from: last, to: from });
    last = to;
  }
  return (
    <div className="relative h-10.5" aria-hidden="true">
      <span className="absolute top-1 text-2xs whitespace-nowrap" style={{ left: px(first?.from ?? 0) + 6 }}>
        {says}
      </span>
      {outs.map(({ from, to }) => (
        <span
          key={from}
          className="absolute top-2.5 h-5 bg-[repeating-linear-gradient(-45deg,var(--color-hatch)_0_3px,transparent_3px_7px)]"
          style={{ left: px(from), width: Math.max(2, px(to - from)) }}
        />
      ))}
      {kept.map(({ from, to }) => (
        <span
          key={from}
          className="absolute top-[18px] h-[9px] border-x border-ink after:absolute after:inset-x-0 after:top-1 after:border-t after:border-ink"
          style={{ left: px(from), width: px(to - from) }}
        />
      ))}
    </div>
  );
}

/** The moment that it is at, through all lanes. */
function Cursor({ clock, perSecond }: { readonly clock: Clock; readonly perSecond: number }) {
  const at = useMoment(clock, (moment) => moment);
  return (
    <span
      className="pointer-events-none absolute inset-y-0 left-0 border-l border-due"
      style={{ transform: `translateX(${(at / 1000) * perSecond}px)` }}
    />
  );
}
