import { useEffect, useLayoutEffect, useRef } from 'react';
import { begunAt, withEdge } from '#core/film/edit-cues.ts';
import { cx } from '../ui/cx.ts';
import type { Clock } from './clock.ts';
import type { TrackKeeper } from './track-keeper.ts';

const KEYS: readonly (readonly [string, string])[] = [
  ['Enter', 'begins a line where it plays, and ends it'],
  ['Space', 'plays'],
  ['← →', 'a second'],
  ['Alt ← →', 'moves its beginning by a tenth, with Shift its end'],
];

/** What the keys do, where there is room to say it. */
export function KeyStrip({ one }: { readonly one: string }) {
  return (
    <p
      className={cx(
        'flex flex-wrap gap-x-4 gap-y-1 border-t border-hairline bg-panel px-4.5 py-2 text-sm text-soft max-narrow:hidden',
      )}
    >
      {KEYS.map(([key, does]) => (
        <span key={key}>
          <kbd className="rounded-sm border border-line px-1.25 font-mono text-2xs">{key}</kbd>{' '}
          {does.replace('line', one)}
        </span>
      ))}
    </p>
  );
}

interface WorkKeys {
  readonly clock: Clock;
  readonly keeper: TrackKeeper;
  readonly isEditable: boolean;
  readonly end: number;
  readonly one: string;
}

const SECOND = 1000;
const TENTH = 100;

/** The keys of the work: none of them where somebody types, and none that a button or a menu has for itself. */
export function useWorkKeys({ clock, keeper, isEditable, end, one }: WorkKeys) {
  /** The line that Enter began and has not ended yet. */
  const begun = useRef<number | null>(null);
  const area = useRef<HTMLDivElement>(null);
  const onKey = (event: KeyboardEvent) => {
    const { target, key } = event;
    if (!(target instanceof HTMLElement) || event.ctrlKey || event.metaKey || event.defaultPrevented) return;
    // Where nothing of the screen has the focus, its keys are heard all the same.
    if (!area.current?.contains(target) && !target.matches('body,main')) return;
    const isArrow = key === 'ArrowLeft' || key === 'ArrowRight';
    const way = key === 'ArrowLeft' ? -1 : 1;
    const { cues, at } = keeper.store.state;
    const cue = at === null ? undefined : cues[at];
    if (event.altKey && isArrow) {
      event.preventDefault();
      if (!isEditable || at === null || !cue) return;
      const edge = event.shiftKey ? 'to' : 'from';
      keeper.edit(withEdge(cues, at, edge, cue[edge] + way * TENTH), `moving a ${one}`);
      return;
    }
    if (target.closest('textarea,input,select,[role=radio],[role=menu],[role=dialog]')) return;
    if (isArrow && !event.shiftKey) {
      event.preventDefault();
      clock.seek(clock.store.state.at + way * SECOND);
      return;
    }
    const isButton = target.closest('button,a') !== null;
    if (key === ' ' && !isButton) {
      event.preventDefault();
      clock.toggle();
    }
    if (key !== 'Enter' || !isEditable || (isButton && !target.hasAttribute('data-plays'))) return;
    event.preventDefault();
    const moment = clock.store.state.at;
    const open = begun.current;
    if (open !== null && cues[open]) {
      begun.current = null;
      keeper.edit(withEdge(cues, open, 'to', moment), `ending a ${one}`);
      clock.pause();
      focusText(open);
      return;
    }
    const edited = begunAt(cues, moment, end);
    begun.current = edited.at;
    keeper.edit(edited, `beginning a ${one}`);
  };
  const latest = useRef(onKey);
  useEffect(() => {
    latest.current = onKey;
  });
  // Before it is painted: whoever sees the screen may press its keys.
  useLayoutEffect(() => {
    const hear = (event: KeyboardEvent) => latest.current(event);
    document.addEventListener('keydown', hear);
    return () => document.removeEventListener('keydown', hear);
  }, []);
  return area;
}

/** The text of a line: at once, so that no letter that is typed next is lost; once it is drawn where it is not in sight. */
function focusText(at: number): void {
  const find = () => document.querySelector<HTMLTextAreaElement>(`aside [data-index="${at}"] textarea`);
  const text = find();
  if (text) text.focus();
  else requestAnimationFrame(() => find()?.focus());
}
