import { diffWordsWithSpace } from 'diff';
import { useMemo } from 'react';

interface WordsComparedProps {
  readonly before: string;
  readonly after: string;
}

/** Texts that differ in more places are shown whole, one after the other: nobody reads a change in each word. */
const MOST_EDITS = 400;
/** So many letters of what did not change stand beside what did. */
const AROUND = 40;

/** Two states of a text as one: what is gone struck out, what is new marked, and a little of what stands round them. */
export function WordsCompared({ before, after }: WordsComparedProps) {
  const parts = useMemo(() => partsOf(before, after), [before, after]);
  return (
    <p className="wrap-anywhere whitespace-pre-line">
      {parts.map(({ key, sort, words }) => {
        if (sort === 'gone')
          return (
            <del key={key} className="bg-due-soft text-due decoration-1">
              {words}
            </del>
          );
        if (sort === 'new')
          return (
            <ins key={key} className="bg-action-soft text-ink decoration-1 underline-offset-2">
              {words}
            </ins>
          );
        return (
          <span key={key} className="text-soft">
            {words}
          </span>
        );
      })}
    </p>
  );
}

interface Part {
  readonly key: string;
  readonly sort: 'gone' | 'new' | 'same';
  readonly words: string;
}

function partsOf(before: string, after: string): readonly Part[] {
  const found = diffWordsWithSpace(before, after, { maxEditLength: MOST_EDITS });
  const parts = found ?? [
    { removed: true, added: false, value: before },
    { removed: false, added: true, value: after },
  ];
  return parts
    .filter(({ value }) => value !== '')
    .map(({ removed, added, value }, at) => ({
      key: `${at}`,
      sort: removed ? 'gone' : added ? 'new' : 'same',
      words: removed || added ? value : shortened(value, at === 0, at === parts.length - 1),
    }));
}

/** Words that did not change: their ends where something changes beside them. */
function shortened(words: string, isFirst: boolean, isLast: boolean): string {
  const head = isFirst ? '' : words.slice(0, AROUND);
  const tail = isLast ? '' : words.slice(-AROUND);
  const isWhole = words.length <= head.length + tail.length + 1 || (isFirst && isLast);
  return isWhole ? words : `${head}…${tail}`;
}
