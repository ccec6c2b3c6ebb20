import type { Page } from '#api/pages.ts';
import type { PageDoc } from '#core/page/model.ts';
import { type Station, stationsOf } from '#core/page/stations.ts';
import type { LabelRowName } from '../label/row.tsx';
import { sayPageTitle } from '../pages/say-title.ts';
import { usePieces } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { sayTime } from '../ui/dates.ts';
import type { Opened } from './opened.ts';
import type { SaveState } from './saver.ts';
import { TakeAway } from './take-away.tsx';

interface PageHeaderProps {
  readonly page: Page;
  readonly doc: PageDoc;
  readonly saving: SaveState;
  readonly isEditable: boolean;
  readonly onOpen: (opened: Opened, row: LabelRowName | null) => void;
  readonly onProof: () => Promise<void>;
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
export function PageHeader({ page, doc, saving, isEditable, onOpen, onProof, onSave }: PageHeaderProps) {
  const held = usePieces();
  const { rules } = page.target;
  const stations = stationsOf(doc, held, rules);
  return (
    <header className="page-header">
      <div className="page-header-name">
        <h1>{sayPageTitle(doc.title)}</h1>
        <p className="page-status">
          for the {rules.name} · column {rules.column} px · <span role="status">{saySaving(saving)}</span>
        </p>
      </div>
      <nav className="stations" aria-label="Stations">
        {stations.map(({ id, name, done, of, next }) => (
          <button
            key={id}
            type="button"
            className="station"
            data-open={done < of}
            disabled={!next}
            onClick={() => onOpen(next, ROWS[id])}
          >
            {name}
            <b>
              {done} of {of}
            </b>
          </button>
        ))}
      </nav>
      <Button onClick={() => void onProof()}>Proof</Button>
      {isEditable ? <TakeAway pageId={page.id} beforeTaking={onSave} /> : null}
    </header>
  );
}

function saySaving(saving: SaveState): string {
  switch (saving.kind) {
    case 'saved':
      return `saved ${sayTime(saving.at)}`;
    case 'unsaved':
    case 'saving':
      return 'saving';
    case 'kept':
      return 'kept on this machine';
    case 'refused':
      return 'not saved';
    case 'clash':
      return 'saved by somebody else meanwhile';
  }
}
