import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, type MouseEvent, useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import type { Asset } from '#api/assets.ts';
import { trueShapeRows } from '#core/media/rows.ts';
import { carry } from '../drag/carry.ts';
import type { Source } from '../drag/source.ts';
import { useSource } from '../drag/use-drag.ts';
import { cx } from '../ui/cx.ts';
import { deedOf } from '../ui/single-keys.ts';
import { useWidth } from '../ui/use-width.ts';
import { statusOf } from './status.ts';

interface ShelfRowsProps {
  readonly assets: readonly Asset[];
  readonly openId: string | null;
  readonly chosen: ReadonlySet<string>;
  /** Whether something is dragged over them that they would take. */
  readonly isOver: boolean;
  readonly onOpen: (id: string) => void;
  readonly onChosen: (chosen: ReadonlySet<string>) => void;
  readonly hasMore: boolean;
  readonly onMore: () => void;
}

const ROW_PX = 150;
const GAP_PX = 10;
/** Name and status under each picture, and the space to the next row. */
const UNDER_PX = 52;
/** The margins at both sides of a row: 14 px and 18 px. */
const SIDES_PX = 32;
const LEAST_ASPECT = 0.5;
const MOST_ASPECT = 2.8;

/** Pieces by their true shapes in rows of equal height; only the rows in sight are drawn. */
export function ShelfRows({
  assets,
  openId,
  chosen,
  isOver,
  onOpen,
  onChosen,
  hasMore,
  onMore,
}: ShelfRowsProps) {
  const scroll = useRef<HTMLDivElement>(null);
  const width = useWidth(scroll);
  const rows = useMemo(() => {
    const aspects = assets.map((asset) =>
      Math.min(MOST_ASPECT, Math.max(LEAST_ASPECT, asset.width / asset.height)),
    );
    return trueShapeRows(aspects, Math.max(200, width - SIDES_PX), ROW_PX, GAP_PX);
  }, [assets, width]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroll.current,
    estimateSize: (at) => (rows[at]?.height ?? ROW_PX) + UNDER_PX,
    overscan: 3,
    paddingStart: 14,
  });
  useLayoutEffect(() => virtual.measure(), [virtual]);
  const items = virtual.getVirtualItems();
  const lastShown = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (hasMore && lastShown >= rows.length - 3) onMore();
  }, [hasMore, lastShown, rows.length, onMore]);

  const choose = (id: string) => {
    // The piece that is open was pressed first, and is meant too.
    const isSecond = chosen.size === 0 && openId !== null && openId !== id;
    const next = new Set(isSecond ? [openId] : chosen);
    if (!next.delete(id)) next.add(id);
    onChosen(next);
  };
  /** What is taken up with a piece: all that are chosen, if it is one of them. */
  const takenUp = (id: string): Source => {
    const ids = chosen.has(id) ? [...chosen] : [id];
    return { dragged: { from: 'shelf', ids }, words: sayPieces(ids, assets), isMovable: true };
  };
  const press = (event: MouseEvent, id: string) => {
    if (event.ctrlKey || event.metaKey) choose(id);
    else if (event.shiftKey && openId) onChosen(rangeBetween(assets, openId, id));
    else {
      onChosen(new Set());
      onOpen(id);
    }
  };
  const walk = (event: KeyboardEvent<HTMLDivElement>) => {
    const focused =
      document.activeElement instanceof HTMLElement ? document.activeElement.dataset.piece : undefined;
    // The piece that has the focus may not be told to the address yet, when keys follow quickly.
    const at = assets.findIndex((asset) => asset.id === (focused ?? openId));
    const to = nextIndex(event.key, at, rows);
    if (event.key === ' ' && focused) {
      event.preventDefault();
      choose(focused);
    } else if (event.key.toLowerCase() === 'a' && (event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      onChosen(new Set(assets.map((asset) => asset.id)));
    } else if (deedOf(event.key) === 'carry' && focused) {
      event.preventDefault();
      carry(takenUp(focused));
    } else if (event.key === 'Escape') onChosen(new Set());
    else if (to !== null) {
      const next = assets[to];
      if (!next) return;
      event.preventDefault();
      onOpen(next.id);
      virtual.scrollToIndex(rows.findIndex((row) => to >= row.from && to < row.to));
      requestAnimationFrame(() =>
        scroll.current?.querySelector<HTMLElement>(`[data-piece="${next.id}"]`)?.focus(),
      );
    }
  };
  const numbers = new Map([...chosen].map((id, at) => [id, at + 1]));
  return (
    <div
      className={cx(
        'relative overflow-auto py-3.5 pl-3.5 -outline-offset-3 max-narrow:py-2.5 max-narrow:pl-2.5',
        isOver && 'inset-ring-3 inset-ring-action',
      )}
      ref={scroll}
      role="listbox"
      aria-label="Pieces"
      aria-multiselectable="true"
      tabIndex={0}
      onKeyDown={walk}
    >
      <div style={{ height: virtual.getTotalSize(), position: 'relative' }} role="presentation">
        {items.map((item) => {
          const row = rows[item.index];
          if (!row) return null;
          return (
            <div
              key={item.key}
              className="absolute right-4.5 left-0 flex gap-2.5"
              style={{ transform: `translateY(${item.start}px)` }}
              role="presentation"
            >
              {assets.slice(row.from, row.to).map((asset) => (
                <ShelfPiece
                  key={asset.id}
                  asset={asset}
                  height={row.height}
                  isSelected={asset.id === openId || chosen.has(asset.id)}
                  number={numbers.get(asset.id) ?? null}
                  onPress={press}
                  onTaken={() => takenUp(asset.id)}
                />
              ))}
            </div>
          );
        })}
      </div>
    </div>
  );
}

interface ShelfPieceProps {
  readonly asset: Asset;
  readonly height: number;
  readonly isSelected: boolean;
  readonly number: number | null;
  readonly onPress: (event: MouseEvent, id: string) => void;
  /** What is dragged with it. */
  readonly onTaken: () => Source;
}

function ShelfPiece({ asset, height, isSelected, number, onPress, onTaken }: ShelfPieceProps) {
  const element = useRef<HTMLButtonElement>(null);
  useSource(element, onTaken);
  const aspect = Math.min(MOST_ASPECT, Math.max(LEAST_ASPECT, asset.width / asset.height));
  const status = statusOf(asset);
  return (
    <button
      type="button"
      role="option"
      aria-selected={isSelected}
      className="relative flex-none text-left"
      data-piece={asset.id}
      style={{ width: aspect * height }}
      onClick={(event) => onPress(event, asset.id)}
      ref={element}
      aria-description="M carries it to a folder"
    >
      <img
        className={cx('w-full bg-blank object-cover', isSelected && 'outline-3 outline-due')}
        src={asset.thumb}
        alt={asset.label.title}
        style={{ height }}
        draggable={false}
        loading="lazy"
        decoding="async"
      />
      {number !== null ? (
        <i className="absolute top-0 left-0 min-w-5 bg-measure px-1.5 py-px font-sans text-2xs leading-4.5 font-semibold text-white not-italic">
          {number}
        </i>
      ) : null}
      <span className="mt-1.25 block truncate font-mono text-xs leading-3.75">{asset.stem}</span>
      <span className={cx('block truncate text-xs leading-3.75', status.isDue ? 'text-due' : 'text-soft')}>
        {status.words}
      </span>
    </button>
  );
}

function sayPieces(ids: readonly string[], assets: readonly Asset[]): string {
  if (ids.length > 1) return `${ids.length} pieces`;
  const asset = assets.find(({ id }) => id === ids[0]);
  return asset?.label.title || asset?.stem || '1 piece';
}

function rangeBetween(assets: readonly Asset[], one: string, other: string): ReadonlySet<string> {
  const [a, b] = [
    assets.findIndex((asset) => asset.id === one),
    assets.findIndex((asset) => asset.id === other),
  ];
  return new Set(assets.slice(Math.min(a, b), Math.max(a, b) + 1).map((asset) => asset.id));
}

/** Where an arrow key leads: along the row, or to the piece at the same share of the next row. */
function nextIndex(key: string, at: number, rows: readonly { from: number; to: number }[]): number | null {
  const row = rows.findIndex(({ from, to }) => at >= from && at < to);
  const here = rows[row];
  switch (key) {
    case 'ArrowRight':
      return at + 1;
    case 'ArrowLeft':
      return Math.max(0, at - 1);
    case 'ArrowDown':
    case 'ArrowUp': {
      if (!here) return 0;
      const next = rows[row + (key === 'ArrowDown' ? 1 : -1)];
      if (!next) return null;
      const share = (at - here.from) / (here.to - here.from);
      return Math.min(next.to - 1, next.from + Math.floor(share * (next.to - next.from)));
    }
    default:
      return null;
  }
}
