import { type ReactNode, useId, useRef } from 'react';
import type { Mark } from '#core/embed/gathered.ts';
import { Folded } from '../ui/folded.tsx';

interface PastedBoxProps {
  readonly text: string;
  readonly marks: readonly Mark[];
  readonly onChange: (text: string) => void;
}

/**
 * The pasted text, with what is kept of it and what does not come along marked in it. The marks lie under the letters of
 * a plain field, so that it is edited as any text is.
 */
export function PastedBox({ text, marks, onChange }: PastedBoxProps) {
  const id = useId();
  const under = useRef<HTMLDivElement>(null);
  return (
    <div className="grid rounded-sm border border-control bg-panel">
      <label className="sr-only" htmlFor={id}>
        An address, or embed code
      </label>
      <div
        ref={under}
        className="pointer-events-none col-start-1 row-start-1 max-h-95 min-h-37.5 w-full overflow-hidden p-3 font-mono text-sm leading-4.75 font-normal tracking-normal wrap-anywhere break-all whitespace-pre-wrap text-transparent"
        aria-hidden="true"
      >
        {marked(text, marks)}
      </div>
      <textarea
        id={id}
        className="col-start-1 row-start-1 field-sizing-content max-h-95 min-h-37.5 w-full resize-none overflow-auto p-3 font-mono text-sm leading-4.75 font-normal tracking-normal wrap-anywhere break-all whitespace-pre-wrap text-ink placeholder:text-soft"
        value={text}
        spellCheck={false}
        autoCapitalize="off"
        placeholder="https://…  or  <iframe …"
        onChange={(event) => onChange(event.target.value)}
        onScroll={(event) => under.current?.scrollTo({ top: event.currentTarget.scrollTop })}
      />
    </div>
  );
}

/** More letters than these are shown without marks, which would only slow the field down. */
const MOST_MARKED = 50_000;

const MARK_LOOK: Readonly<Record<Mark['as'], string>> = {
  fact: 'bg-action-soft',
  dropped: 'bg-due-soft line-through decoration-due decoration-1',
};

function marked(text: string, marks: readonly Mark[]): ReactNode[] {
  if (text.length > MOST_MARKED) return [];
  const parts: ReactNode[] = [];
  let at = 0;
  for (const { from, to, as } of marks) {
    parts.push(text.slice(at, from));
    parts.push(
      <span key={from} data-as={as} className={MARK_LOOK[as]}>
        {text.slice(from, to)}
      </span>,
    );
    at = to;
  }
  // A field keeps room for a last line that is still empty; so does what lies under it.
  parts.push(`${text.slice(at)}\n`);
  return parts;
}

interface LeftOutProps {
  readonly text: string;
  readonly marks: readonly Mark[];
}

/** What does not come along, part by part, with why: the marks in words. */
export function LeftOut({ text, marks }: LeftOutProps) {
  const dropped = marks.filter(({ as }) => as === 'dropped');
  if (dropped.length === 0) return null;
  return (
    <Folded
      className="mt-2.5"
      words={
        <>
          {dropped.length} {dropped.length === 1 ? 'part does' : 'parts do'} not come along
        </>
      }
    >
      <ul className="mt-2">
        {dropped.slice(0, 40).map(({ from, to, why }) => (
          <li className="border-t border-hairline py-1.25 text-soft" key={from}>
            <code className="wrap-anywhere text-ink">{shortened(text.slice(from, to))}</code> {why}
          </li>
        ))}
      </ul>
    </Folded>
  );
}

const LONG = 60;
const shortened = (text: string) => (text.length > LONG ? `${text.slice(0, LONG)}…` : text);
