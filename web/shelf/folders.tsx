import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import type { AssetQuery } from '#api/assets.ts';
import { sayFailure } from '../api/client.ts';
import { foldersQuery } from '../api/queries.ts';
import { changePieces } from '../pieces/pieces.ts';
import { cx } from '../ui/cx.ts';
import { droppedPieces, holdsPieces } from './dragged.ts';
import { FolderDeeds } from './folder-deeds.tsx';

interface FoldersProps {
  /** How many pieces the shelf holds, those in no folder too; none while it is not known. */
  readonly held: number | undefined;
  readonly part: string | undefined;
  readonly folder: string;
  readonly onChoose: (folder: string) => void;
  readonly onAsk: (question: AssetQuery) => void;
}

const KEPT: readonly (readonly [string, AssetQuery])[] = [
  ['No alt text yet', { missing: 'alt' }],
  ['Not cleared yet', { licence: 'unknown' }],
  ['Comps', { licence: 'comp' }],
  ['Kept at hand', { part: 'pinned' }],
  ['Lookalikes folded away', { part: 'folded' }],
  ['Thrown away', { part: 'thrown-away' }],
];

/** The folders of the shelf with what they hold, and questions that are asked often. */
export function Folders({ held, part, folder, onChoose, onAsk }: FoldersProps) {
  const folders = useQuery(foldersQuery);
  const list = folders.data ?? [];
  const [over, setOver] = useState<string | null>(null);
  return (
    <nav className="overflow-auto py-3.5 pr-4 pl-4.5 max-middle:hidden" aria-label="Folders">
      <button
        type="button"
        className="flex w-full justify-between gap-2 border-l-3 border-transparent px-2 py-1 text-left hover:bg-action-soft aria-[current=true]:border-l-action aria-[current=true]:bg-panel aria-[current=true]:font-strong"
        aria-current={folder === '' && part === undefined}
        onClick={() => onChoose('')}
      >
        All <span className="font-mono text-mono text-soft">{held}</span>
      </button>
      {list.map(({ path, pieces }) => {
        const segments = path.split('/');
        return (
          <button
            key={path}
            type="button"
            className={cx(
              'flex w-full justify-between gap-2 border-l-3 border-transparent px-2 py-1 text-left hover:bg-action-soft aria-[current=true]:border-l-action aria-[current=true]:bg-panel aria-[current=true]:font-strong',
              over === path && 'border-due bg-due-soft',
            )}
            aria-current={folder === path}
            style={{ paddingLeft: 8 + (segments.length - 1) * 14 }}
            onClick={() => onChoose(path)}
            onDragOver={(event) => {
              if (!holdsPieces(event.dataTransfer)) return;
              event.preventDefault();
              setOver(path);
            }}
            onDragLeave={() => setOver(null)}
            onDrop={(event) => {
              setOver(null);
              const ids = droppedPieces(event.dataTransfer);
              if (ids.length === 0) return;
              event.preventDefault();
              void moveInto(ids, path);
            }}
          >
            {segments.at(-1)} <span className="font-mono text-mono text-soft">{pieces}</span>
          </button>
        );
      })}
      <FolderDeeds
        key={folder}
        folder={part === undefined ? folder : ''}
        isEmpty={list.find(({ path }) => path === folder)?.pieces === 0}
        onChoose={onChoose}
      />
      <h2 className="mx-2 mt-4 mb-1 text-sm font-normal text-soft">Asked often</h2>
      {KEPT.map(([words, question]) => (
        <button
          key={words}
          type="button"
          className="flex w-full justify-between gap-2 border-l-3 border-transparent px-2 py-1 text-left hover:bg-action-soft aria-[current=true]:border-l-action aria-[current=true]:bg-panel aria-[current=true]:font-strong"
          aria-current={question.part !== undefined && question.part === part}
          onClick={() => onAsk(question)}
        >
          {words}
        </button>
      ))}
    </nav>
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
