import { useState } from 'react';
import { type InheritedLine, InheritedListSchema } from '#api/inherited.ts';
import { requestJson, requestVoid, sayFailure } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { Button, LinkButton } from '../ui/button.tsx';
import { CheckBox } from '../ui/checkbox.tsx';
import { sayTime } from '../ui/dates.ts';
import { Fault } from '../ui/fault.tsx';

const WISH = { mends: true, isOurs: false, unlinksDead: true };

/** All pages that were read: each with what is wrong with it, and several brought in together. */
export function InheritedList({ lines }: { readonly lines: readonly InheritedLine[] }) {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [fault, setFault] = useState<string | null>(null);
  const waiting = lines.filter(({ state }) => state === 'read');
  const ids = waiting.filter(({ id }) => chosen.has(id)).map(({ id }) => id);
  const choose = (id: string, isOn: boolean) => {
    const next = new Set(chosen);
    if (isOn) next.add(id);
    else next.delete(id);
    setChosen(next);
  };
  const doing = async (work: () => Promise<unknown>) => {
    setFault(null);
    await work().catch((error: unknown) => setFault(sayFailure(error)));
    await queryClient.invalidateQueries({ queryKey: ['inherited'] });
  };
  const bringIn = () =>
    doing(async () => {
      await requestJson('post /inherited/bring-in', InheritedListSchema, { body: { ids, ...WISH } });
      setChosen(new Set());
    });
  const isAll = ids.length > 0 && ids.length === waiting.length;
  return (
    <section aria-labelledby="inherited-list">
      <div className="flex min-h-12 flex-wrap items-center gap-x-3.5 gap-y-1 border-b border-line py-2">
        {waiting.length > 1 ? (
          <CheckBox
            aria-label="All that were read"
            checked={isAll}
            onChange={(isOn) => setChosen(new Set(isOn ? waiting.map(({ id }) => id) : []))}
          />
        ) : null}
        <h2 className="flex-1 text-xl" id="inherited-list">
          {sayList(lines)}
        </h2>
        {ids.length > 0 ? (
          <Button kind="action" onClick={() => void bringIn()}>
            {ids.length === 1 ? 'Bring in one page, mended' : `Bring in ${ids.length} pages, mended`}
          </Button>
        ) : null}
      </div>
      <Fault says={fault} className="py-2" />
      <ul>
        {lines.map((line) => (
          <Line
            key={line.id}
            line={line}
            isChosen={chosen.has(line.id)}
            onChoose={(isOn) => choose(line.id, isOn)}
            onPutAway={() =>
              void doing(() => requestVoid('delete /inherited/{id}', { path: { id: line.id } }))
            }
          />
        ))}
      </ul>
    </section>
  );
}

function sayList(lines: readonly InheritedLine[]): string {
  const inCount = lines.filter(({ state }) => state === 'in').length;
  const rest = lines.length - inCount;
  const read = rest === 1 ? '1 page is read' : `${rest} pages are read`;
  if (inCount === 0) return read;
  return rest === 0 ? `${inCount} brought in` : `${read}, ${inCount} brought in`;
}

interface LineProps {
  readonly line: InheritedLine;
  readonly isChosen: boolean;
  readonly onChoose: (isOn: boolean) => void;
  readonly onPutAway: () => void;
}

function Line({ line, isChosen, onChoose, onPutAway }: LineProps) {
  const { id, title, source, state, pageId } = line;
  const called = title || source;
  return (
    <li className="grid grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-x-3.5 gap-y-1 border-b border-line py-2.25">
      {state === 'read' ? (
        <CheckBox aria-label={`Choose ${called}`} checked={isChosen} onChange={onChoose} />
      ) : (
        <span className="size-4.25" />
      )}
      <div className="min-w-0">
        <h3 className="truncate text-md">{called}</h3>
        <p className="truncate text-xs text-soft">
          {source.replace(/^https?:\/\//, '')}, for the {line.targetName}, {sayTime(line.at)} by {line.by}
        </p>
        <p className={line.words ? 'text-due' : 'text-soft'}>{sayState(line)}</p>
      </div>
      <div className="flex flex-wrap justify-end gap-2">
        {state === 'in' ? null : (
          <Button kind="quiet" aria-label={`Put away: ${called}`} onClick={onPutAway}>
            Put away
          </Button>
        )}
        {state === 'in' ? (
          <LinkButton to={`/pages/${pageId}`} aria-label={`Open ${called}`}>
            Open
          </LinkButton>
        ) : null}
        <LinkButton to={`/pages/bring-in/${id}`} aria-label={`Look at it: ${called}`}>
          Look at it
        </LinkButton>
      </div>
    </li>
  );
}

function sayState({ state, words, faults, asks }: InheritedLine): string {
  if (words !== '') return words;
  switch (state) {
    case 'reading':
      return 'Is being read.';
    case 'coming':
      return 'Comes in.';
    case 'in':
      return 'Brought in.';
    default: {
      if (faults === 0) return 'No faults.';
      const sorts = faults === 1 ? '1 sort of fault' : `${faults} sorts of faults`;
      return asks === 0
        ? `${sorts}, all mended as it comes in.`
        : `${sorts}, ${asks} ${asks === 1 ? 'asks' : 'ask'} you.`;
    }
  }
}
