import { useDeferredValue, useMemo } from 'react';
import type { Page } from '#api/pages.ts';
import type { PageDoc } from '#core/page/model.ts';
import { type Station, stationsOf } from '#core/page/stations.ts';
import { useOffer } from '../frame/commands.ts';
import type { LabelRowName } from '../label/row.tsx';
import { sayPageTitle } from '../pages/say-title.ts';
import { usePieces } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import type { Opened } from './opened.ts';
import type { SaveState } from './saver.ts';
import { saySaving } from './say-saving.ts';
import { TakeAway } from './take-away.tsx';
import { type Other, sayOthers } from './use-others.ts';

interface PageHeaderProps {
  readonly page: Page;
  readonly doc: PageDoc;
  readonly saving: SaveState;
  readonly isEditable: boolean;
  /** On a narrow screen its name stands over each place, and the stations and what is taken away with the tray. */
  readonly part: 'all' | 'name' | 'stations';
  readonly onOpen: (opened: Opened, row: LabelRowName | null) => void;
  readonly onProof: () => Promise<void>;
  readonly others: readonly Other[];
  readonly onSource: () => void;
  readonly onVersions: () => void;
  /** Saves what is not saved yet. */
  readonly onSave: () => Promise<void>;
}

/** The row of the label in which what a station misses is said. */
const ROWS: Readonly<Record<Station['id'], LabelRowName | null>> = {
  wanted: null,
  cleared: 'rights',
  prepared: 'name',
  worded: 'words',
  placed: null,
};

/** What the page is, how it is saved, and how far it is at each station of the job. */
export function PageHeader({
  page,
  doc,
  saving,
  isEditable,
  part,
  onOpen,
  others,
  onProof,
  onSource,
  onVersions,
  onSave,
}: PageHeaderProps) {
  const held = usePieces();
  const { rules } = page.target;
  // Every use on the page is judged: that waits for the next key, where one comes.
  const counted = useDeferredValue(doc);
  const stations = useMemo(() => stationsOf(counted, held, rules, new Date()), [counted, held, rules]);
  useOffer(
    part === 'stations'
      ? []
      : [
          { words: 'Proof this page', act: () => void onProof() },
          ...stations.flatMap(({ id, name, done, of, next }) =>
            next && done < of
              ? [{ words: `Go to what is not ${name.toLowerCase()} yet`, act: () => onOpen(next, ROWS[id]) }]
              : [],
          ),
        ],
  );
  const takeAway = isEditable ? <TakeAway pageId={page.id} beforeTaking={onSave} /> : null;
  if (part === 'stations')
    return (
      <div className="flex flex-wrap items-center gap-2 border-b border-line px-2.5 py-2">
        <Stations stations={stations} onOpen={onOpen} />
        {takeAway}
      </div>
    );
  return (
    <header className="col-span-full flex min-h-14.5 items-center gap-5 border-b border-line bg-panel px-4.5 py-1.25 max-middle:flex-wrap max-middle:gap-x-3 max-middle:gap-y-2 max-narrow:min-h-0 max-narrow:px-3.5 max-narrow:py-1.5">
      <div className="min-w-0 flex-1 max-narrow:basis-full">
        <h1 className="truncate text-2xl">{sayPageTitle(doc.title)}</h1>
        <p className="flex items-baseline gap-x-1.5 text-sm text-soft">
          <span className="truncate">
            for the {rules.name} · column {rules.column} px · <span role="status">{saySaving(saving)}</span>
          </span>
          <span aria-hidden>·</span>
          <Button kind="link" className="min-h-0 flex-none" onClick={onVersions}>
            Versions
          </Button>
          {others.length > 0 ? (
            <b className="min-w-0 truncate font-semibold text-ink">· {sayOthers(others)}</b>
          ) : null}
        </p>
      </div>
      {part === 'all' ? (
        <>
          <Stations stations={stations} onOpen={onOpen} />
          <Button onClick={onSource}>Source</Button>
          <Button onClick={() => void onProof()}>Proof</Button>
          {takeAway}
        </>
      ) : null}
    </header>
  );
}

interface StationsProps extends Pick<PageHeaderProps, 'onOpen'> {
  readonly stations: readonly Station[];
}

function Stations({ stations, onOpen }: StationsProps) {
  return (
    <nav
      className="flex rounded-sm border border-line max-narrow:flex-1 max-narrow:basis-full"
      aria-label="Stations"
    >
      {stations.map(({ id, name, done, of, next }) => (
        <button
          key={id}
          type="button"
          className="min-w-20.75 border-b-3 border-l border-b-transparent border-l-line px-3 pt-1 pb-0.75 text-left text-2xs font-semibold text-soft first:border-l-0 enabled:hover:bg-action-soft disabled:cursor-default max-narrow:min-w-0 max-narrow:flex-1 max-narrow:overflow-hidden max-narrow:px-1 max-narrow:py-0.75"
          data-open={done < of}
          disabled={!next}
          onClick={() => onOpen(next, ROWS[id])}
        >
          {name}
          <b
            className={cx(
              'block font-mono text-md leading-tight font-medium whitespace-nowrap',
              done < of ? 'text-due' : 'text-ink',
            )}
          >
            {done} of {of}
          </b>
        </button>
      ))}
    </nav>
  );
}
