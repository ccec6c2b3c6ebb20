import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { type AssetQuery, UNFILED } from '#api/assets.ts';
import { sayFailure } from '../api/client.ts';
import { foldersQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import type { Dragged } from '../drag/dragged.ts';
import type { Spot } from '../drag/place.ts';
import { elementAt, usePlace, useScrollsAlong } from '../drag/use-drag.ts';
import { changePieces } from '../pieces/pieces.ts';
import { cx } from '../ui/cx.ts';
import { toast } from '../ui/toast.ts';
import { FolderDeeds } from './folder-deeds.tsx';

interface FoldersProps {
  /** How many pieces the shelf holds, those in no folder too; none while it is not known. */
  readonly held: number | undefined;
  readonly part: string | undefined;
  readonly folder: string;
  readonly onChoose: (folder: string) => void;
  readonly onAsk: (question: AssetQuery) => void;
}

const ROW_LOOK =
  'flex w-full justify-between gap-2 border-l-3 border-transparent px-2 py-1 text-left hover:bg-action-soft aria-[current=true]:border-l-action aria-[current=true]:bg-panel aria-[current=true]:font-strong';

const KEPT: readonly (readonly [string, AssetQuery])[] = [
  ['No alt text yet', { missing: 'alt' }],
  ['Not cleared yet', { licence: 'unknown' }],
  ['Comps', { licence: 'comp' }],
  ['Pinned', { part: 'pinned' }],
  ['Lookalikes folded away', { part: 'folded' }],
  ['Thrown away', { part: 'thrown-away' }],
];

/** The folders of the shelf with what they hold, and questions that are asked often. */
export function Folders({ held, part, folder, onChoose, onAsk }: FoldersProps) {
  const folders = useQuery(foldersQuery);
  const list = folders.data ?? [];
  const pane = useRef<HTMLElement>(null);
  const [over, setOver] = useState<string | null>(null);
  const spot = (path: string, dragged: Dragged): Spot => ({
    say: `into ${path.replaceAll('/', ' / ')}`,
    name: path.split('/').at(-1) ?? '',
    mark: (isByKeys) => {
      setOver(path);
      if (isByKeys) rowOf(pane.current, path)?.scrollIntoView({ block: 'nearest' });
    },
    put: () => void moveInto(dragged.ids, path),
  });
  usePlace(pane, {
    takes: ({ from }) => from === 'shelf' && list.length > 0,
    spotAt: (dragged, { x, y }) => {
      const row = elementAt({ x, y })?.closest<HTMLElement>('[data-folder]');
      return row?.dataset.folder ? spot(row.dataset.folder, dragged) : null;
    },
    spots: (dragged) => list.map(({ path }) => spot(path, dragged)),
    unmark: () => setOver(null),
  });
  useScrollsAlong(pane);
  return (
    <nav ref={pane} className="overflow-auto py-3.5 pr-4 pl-4.5" aria-label="Folders">
      <button
        type="button"
        className={ROW_LOOK}
        aria-current={folder === '' && part === undefined}
        onClick={() => onChoose('')}
      >
        All <span className="font-mono text-mono text-soft">{held}</span>
      </button>
      <Unanswered of={folders} className="p-2" />
      {list.map(({ path, pieces }) => {
        const segments = path.split('/');
        return (
          <button
            key={path}
            type="button"
            className={cx(ROW_LOOK, over === path && 'border-due bg-due-soft')}
            data-folder={path}
            aria-current={folder === path}
            style={{ paddingLeft: 8 + (segments.length - 1) * 14 }}
            onClick={() => onChoose(path)}
          >
            {segments.at(-1)} <span className="font-mono text-mono text-soft">{pieces}</span>
          </button>
        );
      })}
      <button
        type="button"
        className={ROW_LOOK}
        aria-current={folder === UNFILED}
        onClick={() => onChoose(UNFILED)}
      >
        In no folder
      </button>
      <FolderDeeds
        key={folder}
        folder={part === undefined && folder !== UNFILED ? folder : ''}
        isEmpty={list.find(({ path }) => path === folder)?.pieces === 0}
        onChoose={onChoose}
      />
      <h2 className="mx-2 mt-4 mb-1 text-sm font-normal text-soft">Asked often</h2>
      {KEPT.map(([words, question]) => (
        <button
          key={words}
          type="button"
          className={ROW_LOOK}
          aria-current={question.part !== undefined && question.part === part}
          onClick={() => onAsk(question)}
        >
          {words}
        </button>
      ))}
    </nav>
  );
}

/** The row of a folder in the list. */
function rowOf(pane: HTMLElement | null, path: string): HTMLElement | undefined {
  return [...(pane?.querySelectorAll<HTMLElement>('[data-folder]') ?? [])].find(
    ({ dataset }) => dataset.folder === path,
  );
}

async function moveInto(ids: readonly string[], folder: string): Promise<void> {
  const count = ids.length === 1 ? '1 piece' : `${ids.length} pieces`;
  try {
    await changePieces(ids, { folder }, `moving ${count}`);
    toast(`${count} moved to ${folder}.`);
  } catch (error) {
    toast.error(sayFailure(error));
  }
}
