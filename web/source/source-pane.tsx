import type { PageDoc } from '#core/page/model.ts';
import type { HouseRules } from '#core/page/target.ts';
import type { PageSession } from '../page/use-page-session.ts';
import { usePieces } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { Deeds } from '../ui/deeds.tsx';
import type { Lost } from './lost.ts';
import { type SourceState, useSource } from './use-source.ts';

interface SourcePaneProps {
  readonly session: PageSession;
  readonly doc: PageDoc;
  /** The block that is looked at on the sheet. */
  readonly block: string | null;
  readonly rules: HouseRules;
  readonly isEditable: boolean;
}

/** The source of a page, tied to its sheet block by block; what is typed in it is shown before anything of it is dropped. */
export default function SourcePane({ session, doc, block, rules, isEditable }: SourcePaneProps) {
  const pieces = usePieces();
  const source = useSource({ session, doc, block, rules, pieces, isEditable });
  return (
    <section aria-label="Source" className="grid h-full min-h-0 grid-rows-[minmax(0,1fr)_auto] bg-panel">
      <div ref={source.place} className="min-h-0 min-w-0 overflow-hidden" />
      <Typed
        state={source.state}
        lineOf={source.lineOf}
        goTo={source.goTo}
        onKeep={source.keep}
        onRevert={source.revert}
      />
    </section>
  );
}

interface TypedProps {
  readonly state: SourceState;
  readonly lineOf: (from: number) => number;
  readonly goTo: (from: number) => void;
  readonly onKeep: () => void;
  readonly onRevert: () => void;
}

/** So many things are listed; the others are struck out in the source as well. */
const MOST_LISTED = 50;

/** What was typed stands beside the page until it is kept: what of it cannot be kept, and the two ways on. */
function Typed({ state, lineOf, goTo, onKeep, onRevert }: TypedProps) {
  if (state.kind === 'same') return null;
  const reading = state.kind === 'typed' ? state.reading : null;
  const lost = reading?.kind === 'read' ? reading.lost : [];
  return (
    <div className="m-3.5 max-h-[40vh] overflow-auto border-t-7 border-ink bg-panel px-4 py-3 shadow-card">
      <div role="status">
        <h2 className="text-base">{sayTyped(state)}</h2>
      </div>
      {reading?.kind === 'refused' ? <p className="mt-1">{reading.why}</p> : null}
      {lost.length > 0 ? (
        <ul className="mt-1.5">
          {lost.slice(0, MOST_LISTED).map((one) => (
            <LostRow
              key={`${one.from} ${one.to} ${one.what}`}
              lost={one}
              line={lineOf(one.from)}
              goTo={goTo}
            />
          ))}
        </ul>
      ) : null}
      {lost.length > MOST_LISTED ? <p className="text-soft">And {lost.length - MOST_LISTED} more.</p> : null}
      <Deeds>
        {reading?.kind === 'refused' ? null : (
          <Button kind="action" disabled={reading === null} onClick={onKeep}>
            {lost.length > 0 ? 'Keep the rest' : 'Keep what I typed'}
          </Button>
        )}
        <Button onClick={onRevert}>Back to what it was</Button>
      </Deeds>
    </div>
  );
}

function LostRow({
  lost: { what, why, from },
  line,
  goTo,
}: {
  readonly lost: Lost;
  readonly line: number;
  readonly goTo: (from: number) => void;
}) {
  return (
    <li className="flex flex-wrap items-baseline gap-x-2 py-0.5">
      <Button kind="link" onClick={() => goTo(from)}>
        Line {line}
      </Button>
      <span className="min-w-0 flex-1 wrap-anywhere">
        <code className="font-mono text-sm line-through">{what}</code>: {why}.
      </span>
    </li>
  );
}

function sayTyped(state: SourceState): string {
  if (state.kind !== 'typed') return 'What you typed is being read.';
  if (state.reading.kind === 'refused') return 'What you typed cannot be kept.';
  const { length } = state.reading.lost;
  if (length === 0) return 'What you typed is not on the page yet.';
  return length === 1
    ? 'One thing typed here cannot be kept.'
    : `${length} things typed here cannot be kept.`;
}
