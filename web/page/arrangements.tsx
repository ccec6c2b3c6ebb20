import type { Editor } from '@tiptap/core';
import type { ComponentType } from 'react';
import type { Asset } from '#api/assets.ts';
import { CARDS_LIMIT } from '#core/page/blocks/cards/schema.ts';
import { GALLERY_LIMIT, galleryPerRow } from '#core/page/blocks/gallery/schema.ts';
import { pairOfPieces } from '../sheet/blocks/before-after/commands.ts';
import { cardsOfPieces } from '../sheet/blocks/cards/of-pieces.ts';
import { columnsOfPieces, MOST_COLUMNS } from '../sheet/blocks/columns/commands.ts';
import { galleryOfPieces } from '../sheet/blocks/gallery/commands.ts';
import type { Gathered } from '../sheet/blocks/gathered.ts';
import { listOfFiles } from '../sheet/blocks/list/of-files.ts';

interface DrawingProps {
  /** How many pieces it is made of. */
  readonly count: number;
}

interface Arrangement {
  readonly words: string;
  readonly make: (editor: Editor, gathered: Gathered) => boolean;
  /** Whether these pieces make one. */
  readonly fits: (pieces: readonly Pick<Asset, 'kind'>[]) => boolean;
  readonly Drawing: ComponentType<DrawingProps>;
}

/** All that several pieces can be made into, each with a drawing of what comes of it. */
const ARRANGEMENTS: readonly Arrangement[] = [
  {
    words: 'a row of cards',
    make: cardsOfPieces,
    fits: ({ length }) => length <= CARDS_LIMIT,
    Drawing: CardsDrawing,
  },
  {
    words: 'columns',
    make: columnsOfPieces,
    fits: ({ length }) => length >= 2 && length <= MOST_COLUMNS,
    Drawing: ColumnsDrawing,
  },
  {
    words: 'a gallery',
    make: galleryOfPieces,
    fits: ({ length }) => length <= GALLERY_LIMIT,
    Drawing: GalleryDrawing,
  },
  {
    words: 'a before-and-after',
    make: pairOfPieces,
    fits: ({ length }) => length === 2,
    Drawing: PairDrawing,
  },
  {
    words: 'a list of links',
    make: listOfFiles,
    // What is framed has no file of its own to lead to.
    fits: (pieces) => pieces.every(({ kind }) => kind !== 'embed'),
    Drawing: ListDrawing,
  },
];

interface ArrangementsProps {
  readonly pieces: readonly Asset[];
  readonly onMake: (make: Arrangement['make']) => void;
}

/** A drawing of everything that pieces can be made into; what so many do not make cannot be pressed. */
export function Arrangements({ pieces, onMake }: ArrangementsProps) {
  return (
    <div className="grid grid-cols-2 gap-2">
      {ARRANGEMENTS.map(({ words, make, fits, Drawing }) => (
        <button
          key={words}
          type="button"
          className="grid cursor-pointer content-between justify-items-start gap-1.5 rounded-sm border border-line bg-panel p-2 text-left hover:border-ink disabled:cursor-not-allowed disabled:opacity-55"
          disabled={!fits(pieces)}
          onClick={() => onMake(make)}
        >
          <Drawing count={pieces.length} />
          {words}
        </button>
      ))}
    </div>
  );
}

const WIDTH = 110;
const HEIGHT = 36;

function Frame({ children }: { readonly children: React.ReactNode }) {
  return (
    <svg
      className="w-full fill-control"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      aria-hidden="true"
      focusable="false"
    >
      {children}
    </svg>
  );
}

/** So many things of one width side by side: where each begins, and how wide it is. */
function sideBySide(count: number, gap: number) {
  const width = (WIDTH - gap * (count - 1)) / count;
  return Array.from({ length: count }, (_, at) => ({ x: at * (width + gap), width }));
}

function CardsDrawing({ count }: DrawingProps) {
  return (
    <Frame>
      {sideBySide(Math.min(count, 4), 5).map(({ x, width }) => (
        <g key={x}>
          <rect x={x} y={0} width={width} height={18} />
          <rect x={x} y={22} width={width * 0.7} height={3} className="fill-ink" />
          <rect x={x} y={28} width={width} height={2} />
          <rect x={x} y={32} width={width * 0.85} height={2} />
        </g>
      ))}
    </Frame>
  );
}

function ColumnsDrawing({ count }: DrawingProps) {
  return (
    <Frame>
      {sideBySide(Math.min(count, MOST_COLUMNS), 8).map(({ x, width }) => (
        <g key={x}>
          <rect x={x} y={0} width={width} height={16} />
          {[20, 25, 30].map((y) => (
            <rect key={y} x={x} y={y} width={y === 30 ? width * 0.6 : width} height={2} />
          ))}
        </g>
      ))}
    </Frame>
  );
}

/** Widths in rows of one height, in turns. */
const SHAPES = [3, 2, 4, 3, 2] as const;

function GalleryDrawing({ count }: DrawingProps) {
  const perRow = Math.min(galleryPerRow(count), count);
  const rows = count > perRow ? 2 : 1;
  const height = rows === 1 ? 26 : 16;
  return (
    <Frame>
      {Array.from({ length: rows }, (_, row) => row).flatMap((row) => {
        const shapes = Array.from({ length: perRow }, (_, at) => SHAPES[(at + row * 2) % SHAPES.length] ?? 3);
        const sum = shapes.reduce((all: number, one) => all + one, 0);
        const room = WIDTH - 3 * (perRow - 1);
        let x = 0;
        return shapes.map((shape, at) => {
          const width = (room * shape) / sum;
          const from = x;
          x += width + 3;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a drawing is made anew as a whole
            <rect key={`${row} ${at}`} x={from} y={row * (height + 3)} width={width} height={height} />
          );
        });
      })}
    </Frame>
  );
}

function PairDrawing() {
  const middle = WIDTH / 2;
  return (
    <Frame>
      <rect x={0} y={0} width={middle - 1} height={HEIGHT} />
      <rect x={middle + 1} y={0} width={middle - 1} height={HEIGHT} className="fill-soft" />
      <circle cx={middle} cy={HEIGHT / 2} r={6} className="fill-panel stroke-ink" />
    </Frame>
  );
}

function ListDrawing({ count }: DrawingProps) {
  return (
    <Frame>
      {Array.from({ length: Math.min(count, 3) }, (_, at) => 4 + at * 12).map((y, at) => (
        <g key={y}>
          <circle cx={5} cy={y + 2} r={2.5} className="fill-ink" />
          <rect x={14} y={y} width={[74, 58, 66][at]} height={4} />
          <rect x={14} y={y + 6} width={[74, 58, 66][at]} height={1} className="fill-ink" />
        </g>
      ))}
    </Frame>
  );
}
