import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import type { PreviewRow, RunStep } from '#api/runs.ts';
import { sayBytes } from '#core/media/weight.ts';
import { needsLook } from '#core/run/warning.ts';
import { CheckBox } from '../ui/checkbox.tsx';
import { cx } from '../ui/cx.ts';
import { CELL_LOOK, HEAD_LOOK } from './cell-look.ts';
import { NameCell } from './name-cell.tsx';
import { sayLeftOut } from './run-words.ts';
import { Warnings } from './warnings.tsx';

interface RunTableProps {
  readonly rows: readonly (PreviewRow | RunStep)[];
  /** Present while the run is put together: rows can be changed and left out. */
  readonly edit?: {
    /** Whether a person left a piece out: known before the rows are settled anew. */
    readonly isLeftOut: (assetId: string) => boolean;
    readonly onLeftOut: (assetId: string, leftOut: boolean) => void;
    readonly onStem: (assetId: string, stem: string | null) => void;
  };
}

const ROW_PX = 58;

/** Every piece of a run, before and after; only the rows in sight are drawn. */
export function RunTable({ rows, edit }: RunTableProps) {
  const scroll = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW_PX,
    overscan: 8,
  });
  const items = virtual.getVirtualItems();
  const above = items[0]?.start ?? 0;
  const below = virtual.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <section
      className="h-full overflow-auto px-4.5 pb-4.5"
      ref={scroll}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls is reached by the keyboard.
      tabIndex={0}
      aria-label="Pieces of this run"
    >
      <table className="w-full border-collapse max-narrow:min-w-165" aria-rowcount={rows.length + 1}>
        <thead>
          <tr>
            {edit ? (
              <th className={HEAD_LOOK} scope="col">
                <span className="sr-only">Takes part</span>
              </th>
            ) : null}
            <th className={HEAD_LOOK} scope="col">
              <span className="sr-only">Picture</span>
            </th>
            <th className={HEAD_LOOK} scope="col">
              Now
            </th>
            <th className={HEAD_LOOK} scope="col">
              Becomes
            </th>
            <th className={HEAD_LOOK} scope="col">
              Sizes
            </th>
            <th className={HEAD_LOOK} scope="col">
              {edit ? 'Weight, about' : 'Weight'}
            </th>
          </tr>
        </thead>
        <tbody>
          <Spacer height={above} />
          {items.map(({ index }) => {
            const row = rows[index];
            if (!row) return null;
            return (
              <Row
                key={row.assetId}
                row={row}
                number={index + 2}
                measure={virtual.measureElement}
                index={index}
                edit={edit}
              />
            );
          })}
          <Spacer height={below} />
        </tbody>
      </table>
    </section>
  );
}

function Spacer({ height }: { readonly height: number }) {
  return height > 0 ? (
    // biome-ignore lint/a11y/noAriaHiddenOnFocusable: an empty row has nothing that could be focused.
    <tr aria-hidden="true">
      <td style={{ height, padding: 0, border: 0 }} />
    </tr>
  ) : null;
}

interface RowProps {
  readonly row: PreviewRow | RunStep;
  readonly number: number;
  readonly index: number;
  readonly measure: (element: Element | null) => void;
  readonly edit: RunTableProps['edit'];
}

function Row({ row, number, index, measure, edit }: RowProps) {
  const { before, leftOut, warnings } = row;
  // Before a run, what should be looked at; afterwards, what was not done.
  const isDue = 'state' in row ? row.state === 'refused' : leftOut === 'comp' || warnings.some(needsLook);
  return (
    <tr ref={measure} data-index={index} aria-rowindex={number} className={cx(isDue && 'bg-due-soft')}>
      {edit ? (
        <td className={cx(CELL_LOOK, 'w-8.5')}>
          <CheckBox
            aria-label={`${before.stem} takes part`}
            checked={leftOut !== 'comp' && !edit.isLeftOut(row.assetId)}
            disabled={leftOut === 'comp'}
            onChange={(takesPart) => edit.onLeftOut(row.assetId, !takesPart)}
          />
        </td>
      ) : null}
      <td className={CELL_LOOK}>
        <img className="h-11 max-w-21 bg-blank" src={row.thumb} alt="" loading="lazy" />
      </td>
      <td className={cx(CELL_LOOK, 'font-mono text-mono wrap-anywhere text-soft', isDue && 'text-ink')}>
        {before.stem}
        <span className="block">
          {row.width} × {row.height}
        </span>
      </td>
      {leftOut ? (
        <td
          colSpan={3}
          className={cx(CELL_LOOK, leftOut === 'comp' ? 'text-due' : isDue ? 'text-ink' : 'text-soft')}
        >
          {sayLeftOut(leftOut)}
        </td>
      ) : (
        <>
          <NameCell row={row} onStem={edit ? (stem) => edit.onStem(row.assetId, stem) : null} />
          <SizesCell row={row} />
          <WeightCell row={row} />
        </>
      )}
    </tr>
  );
}

function SizesCell({ row }: { readonly row: PreviewRow | RunStep }) {
  const sizes = [...new Map(row.files.map((file) => [`${file.recipe} ${file.width}`, file])).values()];
  return (
    <td className={CELL_LOOK}>
      {sizes.length === 0 ? <span className="text-soft">none</span> : null}
      <span className="font-mono text-mono">{sizes.map(saySize).join(' · ')}</span>
      <Warnings warnings={row.warnings} place="sizes" />
    </td>
  );
}

/** Kept on one line. */
const saySize = ({ width, height }: { readonly width: number; readonly height: number }) =>
  `${width}\u00a0×\u00a0${height}`;

function WeightCell({ row }: { readonly row: PreviewRow | RunStep }) {
  const guessed = row.files.reduce((sum, { bytes }) => sum + bytes, 0);
  const made = 'madeBytes' in row ? row.madeBytes : null;
  return (
    <td className={CELL_LOOK}>
      {row.files.length > 0 ? (
        <span className="font-mono text-mono whitespace-nowrap">
          {sayBytes(row.bytes)} → {sayBytes(made ?? guessed)}
        </span>
      ) : (
        <span className="font-mono text-mono whitespace-nowrap">{sayBytes(row.bytes)}</span>
      )}
      {'state' in row ? <StateWords step={row} /> : null}
    </td>
  );
}

const STATE_WORDS: Readonly<Record<RunStep['state'], string>> = {
  waiting: 'Waits',
  done: 'Done',
  refused: 'Left as it was',
  undone: 'Taken back',
  out: 'Took no part',
};

function StateWords({ step }: { readonly step: RunStep }) {
  return (
    <span
      className={
        step.state === 'refused' ? 'block text-sm leading-4 text-due' : 'block text-sm leading-4 text-soft'
      }
    >
      {step.sentence || STATE_WORDS[step.state]}
    </span>
  );
}
