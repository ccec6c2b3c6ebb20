import type { Editor } from '@tiptap/core';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { type RefObject, useEffect, useId, useState } from 'react';
import type { PageDoc } from '#core/page/model.ts';
import type { HouseRules } from '#core/page/target.ts';
import { usePieces } from '../pieces/pieces.ts';
import { selectPlacement } from '../sheet/commands.ts';
import { type FoundOnSheet, findOnSheet, markFound, replaceFound } from '../sheet/find.ts';
import { onSheet } from '../sheet/on-sheet.ts';
import { Button } from '../ui/button.tsx';
import { Input } from '../ui/input.tsx';
import { toast } from '../ui/toast.ts';

interface FindBarProps {
  readonly editor: Editor;
  /** What is sought in; read anew whenever it changes. */
  readonly doc: PageDoc;
  readonly rules: HouseRules;
  readonly field: RefObject<HTMLInputElement | null>;
  readonly isEditable: boolean;
  readonly onClose: () => void;
}

/** Finds words in the text and in the words of placed pieces, from one place to the next, and puts others in their place. */
export function FindBar({ editor, doc, rules, field, isEditable, onClose }: FindBarProps) {
  const pieces = usePieces();
  const [sought, setSought] = useState(() => chosenWords(editor));
  const [words, setWords] = useState('');
  const [at, setAt] = useState(0);
  const said = useId();
  // biome-ignore lint/correctness/useExhaustiveDependencies: `doc` says that the editor's own document is another
  useEffect(() => {
    const found = findOnSheet(editor.state.doc, sought, pieces, rules);
    setFound(found);
    setAt((before) => Math.min(before, Math.max(0, found.length - 1)));
  }, [editor, doc, sought, pieces, rules]);
  const [found, setFound] = useState<readonly FoundOnSheet[]>([]);
  useEffect(() => markFound(editor, { found, at }), [editor, found, at]);
  useEffect(() => () => markFound(editor, { found: [], at: 0 }), [editor]);
  useEffect(() => field.current?.select(), [field]);
  const step = (by: 1 | -1) => setAt((found.length + at + by) % Math.max(1, found.length));
  const here = found[at];
  const own = found.filter(({ kind }) => kind !== 'piece');
  const replace = (places: readonly FoundOnSheet[]) => {
    const count = replaceFound(editor, places, sought, words);
    if (places.length > 1) toast(count === 1 ? 'Replaced in 1 place.' : `Replaced in ${count} places.`);
  };
  /** Goes on where it was found: with the words chosen, or the piece. */
  const close = () => {
    onClose();
    if (here?.kind === 'piece') selectPlacement(editor, here.placement.id);
    if (here?.kind === 'text') onSheet(editor).setTextSelection(here).run();
    else if (here?.kind === 'said')
      onSheet(editor)
        .setTextSelection(here.from + 1)
        .run();
    else editor.view.focus();
  };
  return (
    <search
      className="flex flex-wrap items-center gap-2 border-b border-line bg-panel px-4.5 py-1.5 max-narrow:px-3.5"
      aria-label="Find on the page"
    >
      <Input
        ref={field}
        type="search"
        className="max-w-70 flex-1"
        aria-label="Find on the page"
        aria-describedby={said}
        placeholder="Words of the text, alt texts and captions"
        maxLength={200}
        value={sought}
        onChange={(event) => {
          setSought(event.target.value);
          setAt(0);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') step(event.shiftKey ? -1 : 1);
          else if (event.key === 'Escape') close();
          else return;
          event.preventDefault();
        }}
      />
      <Button aria-label="The one before" disabled={found.length < 2} onClick={() => step(-1)}>
        <ChevronUp size={16} aria-hidden />
      </Button>
      <Button aria-label="The next one" disabled={found.length < 2} onClick={() => step(1)}>
        <ChevronDown size={16} aria-hidden />
      </Button>
      <p className="min-w-0 flex-1 truncate text-soft" id={said} role="status">
        {sayFound(sought, found, at)}
      </p>
      <Button kind="quiet" onClick={close}>
        Close
      </Button>
      {isEditable ? (
        <div className="flex basis-full flex-wrap items-center gap-2">
          <Input
            className="max-w-70 flex-1"
            aria-label="Put in its place"
            placeholder="What stands there instead"
            maxLength={200}
            value={words}
            onChange={(event) => setWords(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter' && here && here.kind !== 'piece') replace([here]);
              else if (event.key === 'Escape') close();
              else return;
              event.preventDefault();
            }}
          />
          <Button disabled={!here || here.kind === 'piece'} onClick={() => here && replace([here])}>
            Replace
          </Button>
          <Button disabled={own.length === 0} onClick={() => replace(own)}>
            Replace all {own.length > 1 ? own.length : ''}
          </Button>
          {own.length < found.length ? (
            <p className="text-sm text-soft">What pieces say is changed on their labels.</p>
          ) : null}
        </div>
      ) : null}
    </search>
  );
}

function chosenWords({ state }: Editor): string {
  const { from, to } = state.selection;
  return state.doc.textBetween(from, to, ' ', ' ').trim().slice(0, 200);
}

function sayFound(sought: string, found: readonly FoundOnSheet[], at: number): string {
  if (sought.trim() === '') return '';
  const here = found[at];
  if (!here) return 'Not on this page.';
  const where =
    here.kind === 'piece'
      ? `, in the ${here.where} of a piece`
      : here.kind === 'said'
        ? `, in ${here.where}`
        : '';
  return `${at + 1} of ${found.length}${where}`;
}
