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
  return together(parts.filter(({ value }) => value !== '')).map(({ sort, words }, at, all) => ({
    key: `${at}`,
    sort,
    words: sort === 'same' ? shortened(words, at === 0, at === all.length - 1) : words,
  }));
}

type Run = Omit<Part, 'key'>;

/** Changes with nothing but a blank between them are one: all that is gone, and then all that is new. */
function together(
  parts: readonly { readonly removed: boolean; readonly added: boolean; readonly value: string }[],
): readonly Run[] {
  const runs: Run[] = [];
  let [gone, fresh, blank] = ['', '', ''];
  const end = () => {
    if (gone !== '') runs.push({ sort: 'gone', words: gone });
    if (fresh !== '') runs.push({ sort: 'new', words: fresh });
    if (blank !== '') runs.push({ sort: 'same', words: blank });
    [gone, fresh, blank] = ['', '', ''];
  };
  for (const { removed, added, value } of parts) {
    if (!removed && !added) {
      if (value.trim() === '' && gone + fresh !== '') blank += value;
      else {
        const before = blank;
        blank = '';
        end();
        runs.push({ sort: 'same', words: before + value });
      }
      continue;
    }
    if (blank !== '') {
      [gone, fresh, blank] = [gone + blank, fresh + blank, ''];
    }
    if (removed) gone += value;
    else fresh += value;
  }
  end();
  return runs;
}

/** Words that did not change: their ends where something changes beside them. */
function shortened(words: string, isFirst: boolean, isLast: boolean): string {
  const [before, after] = [isFirst ? 0 : AROUND, isLast ? 0 : AROUND];
  if ((isFirst && isLast) || words.length <= before + after) return words;
  const head = words.slice(0, before).replace(/\S*$/, '');
  const tail = after === 0 ? '' : words.slice(-after).replace(/^\S*/, '');
  return `${head}…${tail}`;
}
