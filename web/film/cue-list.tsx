import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState } from 'react';
import type { Cue } from '#core/film/cue.ts';
import {
  type Edited,
  joinedWithNext,
  parted,
  remedyOf,
  sayRemedyOf,
  withEdge,
  without,
  withText,
} from '#core/film/edit-cues.ts';
import { judgeCue, paceOf, sayCueFault } from '#core/film/judge-cues.ts';
import type { CaptionRules } from '#core/film/rules.ts';
import { Button } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import type { Clock } from './clock.ts';
import { readTyped, shortTime } from './say-time.ts';

interface CueListProps {
  readonly cues: readonly Cue[];
  readonly at: number | null;
  readonly clock: Clock;
  readonly rules: CaptionRules;
  /** What one of them is called: "Caption", "Chapter". */
  readonly name: string;
  /** Chapters are not read against a clock. */
  readonly isJudged: boolean;
  readonly isEditable: boolean;
  /** Where the film ends, in milliseconds. */
  readonly end: number;
  readonly onSelect: (at: number) => void;
  readonly onEdit: (edited: Edited, name: string) => void;
}

const GUESSED_PX = 47;

/** What is said, line by line; each is written in where it stands. */
export function CueList(props: CueListProps) {
  const { cues, at } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: cues.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => GUESSED_PX,
    overscan: 6,
  });
  useEffect(() => {
    if (at !== null) virtual.scrollToIndex(at, { align: 'auto' });
  }, [at, virtual]);
  return (
    <div ref={scroller} className="min-h-0 overflow-y-auto">
      <ol
        className="relative"
        style={{ height: virtual.getTotalSize() }}
        aria-label={`${props.name}s, in the order of time`}
      >
        {virtual.getVirtualItems().map(({ index, start }) => (
          <li
            key={index}
            ref={virtual.measureElement}
            data-index={index}
            className="absolute inset-x-0 top-0"
            style={{ transform: `translateY(${start}px)` }}
            aria-setsize={cues.length}
            aria-posinset={index + 1}
          >
            <CueRow {...props} index={index} isSelected={index === at} />
          </li>
        ))}
      </ol>
    </div>
  );
}

interface CueRowProps extends CueListProps {
  readonly index: number;
  readonly isSelected: boolean;
}

function CueRow({
  cues,
  index,
  isSelected,
  clock,
  rules,
  name,
  isJudged,
  isEditable,
  end,
  onSelect,
  onEdit,
}: CueRowProps) {
  const cue = cues[index];
  if (!cue) return null;
  const faults = isJudged ? judgeCue(cues, index, rules, end) : [];
  const pace = Math.round(paceOf(cue));
  const number = `${name} ${index + 1}`;
  const select = () => {
    onSelect(index);
    clock.seek(cue.from);
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions lint/a11y/useKeyWithClickEvents: its fields and buttons do the same by key.
    <div
      className={cx(
        'grid grid-cols-[78px_minmax(0,1fr)_44px] gap-x-2 border-b border-l-4 border-hairline border-l-transparent px-3 py-1',
        isSelected && 'border-l-due bg-ground',
      )}
      onClick={({ target }) => {
        if (target instanceof Element && !target.closest('button,textarea,input')) select();
      }}
    >
      <div className="font-mono text-mono text-soft">
        {(['from', 'to'] as const).map((edge) => (
          <TimeInput
            key={edge}
            name={`${number} ${edge === 'from' ? 'begins' : 'ends'}`}
            value={cue[edge]}
            isEditable={isEditable}
            onFocus={() => onSelect(index)}
            onChange={(moment) =>
              onEdit(withEdge(cues, index, edge, moment), `moving a ${name.toLowerCase()}`)
            }
          />
        ))}
      </div>
      <div>
        <CueText
          cue={cue}
          name={number}
          isEditable={isEditable}
          onFocus={() => {
            if (!isSelected) select();
          }}
          onChange={(text) => onEdit(withText(cues, index, text), `writing a ${name.toLowerCase()}`)}
        />
        {faults.map((fault) => {
          const remedy = isEditable ? remedyOf(cues, index, fault, rules) : null;
          return (
            <p key={fault.code} className="mt-0.5 font-semibold text-due">
              {sayCueFault(fault)}{' '}
              {remedy ? (
                <Button
                  kind="link"
                  className="font-normal"
                  onClick={() => onEdit(remedy(), 'mending a caption')}
                >
                  {sayRemedyOf(fault, shortTime)}
                </Button>
              ) : null}{' '}
              {isEditable && fault.code === 'too-fast' && fault.canPart ? (
                <Button
                  kind="link"
                  className="font-normal"
                  onClick={() => onEdit(parted(cues, index), 'parting a caption')}
                >
                  Part it in two
                </Button>
              ) : null}
            </p>
          );
        })}
        {isSelected && isEditable ? (
          <div className="mt-1 flex flex-wrap gap-x-3">
            {isJudged && faults.every((fault) => fault.code !== 'too-fast') ? (
              <Button kind="link" onClick={() => onEdit(parted(cues, index), 'parting a caption')}>
                Part
              </Button>
            ) : null}
            {index < cues.length - 1 && isJudged ? (
              <Button
                kind="link"
                onClick={() => onEdit(joinedWithNext(cues, index, rules), 'joining two captions')}
              >
                Join with the next
              </Button>
            ) : null}
            <Button
              kind="link"
              aria-label={`Remove ${number.toLowerCase()}`}
              onClick={() => onEdit(without(cues, index), `removing a ${name.toLowerCase()}`)}
            >
              Remove
            </Button>
          </div>
        ) : null}
      </div>
      <span
        className={cx(
          'text-right font-mono text-mono leading-6',
          isJudged && pace > rules.perSecond ? 'text-due' : 'text-soft',
        )}
      >
        {isJudged && cue.text !== '' ? (
          <>
            {pace} <abbr title="letters a second">/s</abbr>
          </>
        ) : null}
      </span>
    </div>
  );
}

interface TimeInputProps {
  readonly name: string;
  readonly value: number;
  readonly isEditable: boolean;
  readonly onFocus: () => void;
  readonly onChange: (millis: number) => void;
}

/** A moment, typed as it is said; what is none is put back. */
function TimeInput({ name, value, isEditable, onFocus, onChange }: TimeInputProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const keep = () => {
    const millis = typed === null ? null : readTyped(typed);
    setTyped(null);
    if (millis !== null && shortTime(millis) !== shortTime(value)) onChange(millis);
  };
  return (
    <input
      className="block h-6 w-full rounded-xs bg-transparent px-0 read-only:cursor-default hover:not-read-only:bg-panel focus:bg-panel"
      aria-label={name}
      value={typed ?? shortTime(value)}
      readOnly={!isEditable}
      onFocus={onFocus}
      onChange={({ target }) => setTyped(target.value)}
      onBlur={keep}
      onKeyDown={({ key }) => {
        if (key === 'Enter') keep();
        if (key === 'Escape') setTyped(null);
      }}
    />
  );
}

interface CueTextProps {
  readonly cue: Cue;
  readonly name: string;
  readonly isEditable: boolean;
  readonly onFocus: () => void;
  readonly onChange: (text: string) => void;
}

/** What is said, written in where it stands; kept as one change when it is left. */
function CueText({ cue, name, isEditable, onFocus, onChange }: CueTextProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const keep = () => {
    if (typed !== null && typed !== cue.text) onChange(typed);
    setTyped(null);
  };
  return (
    <textarea
      className="-mx-1 mt-0.5 block field-sizing-content w-[calc(100%+8px)] resize-none bg-transparent px-1 leading-5 outline-offset-0"
      aria-label={name}
      rows={1}
      value={typed ?? cue.text}
      readOnly={!isEditable}
      maxLength={2000}
      onFocus={onFocus}
      onChange={({ target }) => setTyped(target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.stopPropagation();
        event.currentTarget.blur();
      }}
    />
  );
}
