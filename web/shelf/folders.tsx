import { useQuery } from '@tanstack/react-query';
import type { AssetQuery } from '#api/assets.ts';
import { foldersQuery } from '../api/queries.ts';

interface FoldersProps {
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
export function Folders({ part, folder, onChoose, onAsk }: FoldersProps) {
  const folders = useQuery(foldersQuery);
  const list = folders.data ?? [];
  const all = list.filter((one) => !one.path.includes('/')).reduce((sum, one) => sum + one.pieces, 0);
  return (
    <nav className="shelf-folders" aria-label="Folders">
      <button
        type="button"
        className="folder"
        aria-current={folder === '' && part === undefined}
        onClick={() => onChoose('')}
      >
        All <span className="mono soft">{all}</span>
      </button>
      {list.map(({ path, pieces }) => {
        const segments = path.split('/');
        return (
          <button
            key={path}
            type="button"
            className="folder"
            aria-current={folder === path}
            style={{ paddingLeft: 8 + (segments.length - 1) * 14 }}
            onClick={() => onChoose(path)}
          >
            {segments.at(-1)} <span className="mono soft">{pieces}</span>
          </button>
        );
      })}
      <h2>Asked often</h2>
      {KEPT.map(([words, question]) => (
        <button
          key={words}
          type="button"
          className="folder"
          aria-current={question.part !== undefined && question.part === part}
          onClick={() => onAsk(question)}
        >
          {words}
        </button>
      ))}
    </nav>
  );
}
