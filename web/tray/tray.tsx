import { type ChangeEvent, type DragEvent, type KeyboardEvent, useRef, useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { sayKind } from '#core/embed/model.ts';
import { type PageDoc, placementsOf, type Want } from '#core/page/model.ts';
import type { FoundFile } from '../arrivals/dropped.ts';
import { useDrop } from '../arrivals/use-drop.ts';
import { SHAPE_WORDS } from '../pages/want-lines.tsx';
import { pieces } from '../pieces/pieces.ts';
import { PIECE_TYPE } from '../sheet/editor.ts';
import { Button, LinkButton } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { useStore } from '../ui/store.ts';

export interface TrayHands {
  readonly onOpen: (assetId: string) => void;
  readonly onPlace: (assetId: string) => void;
  readonly onTakeOff: (assetId: string) => void;
  readonly onFiles: (files: readonly FoundFile[]) => void;
  /** Whether what is dragged may be something for the tray. */
  readonly takes: (data: DataTransfer) => boolean;
  readonly onDrop: (data: DataTransfer, wantId: string | null) => void;
  readonly onFill: (wantId: string, assetId: string) => void;
  readonly onWant: (wantId: string) => void;
}

interface TrayProps extends TrayHands {
  readonly pageId: string;
  readonly page: PageDoc;
  readonly openAsset: string | null;
  readonly openWant: string | null;
  readonly isEditable: boolean;
}

const ACCEPTED = 'image/*';

/** The pieces gathered for a page by their true shapes, and dashed frames for what is still wanted. */
export function Tray({ pageId, page, openAsset, openWant, isEditable, ...hands }: TrayProps) {
  const known = useStore(pieces);
  const picker = useRef<HTMLInputElement>(null);
  const gathered = page.tray.flatMap((id) => known.get(id) ?? []);
  const placed = new Set(placementsOf(page).map((placement) => placement.asset));
  const open = page.wants.filter((want) => want.filledBy === null);
  const placedCount = gathered.filter((asset) => placed.has(asset.id)).length;
  const choose = (event: ChangeEvent<HTMLInputElement>) => {
    hands.onFiles([...(event.target.files ?? [])].map((file) => ({ file, folder: '' })));
    event.target.value = '';
  };
  const drop = useDrop(
    (data) => isEditable && hands.takes(data),
    (data) => hands.onDrop(data, null),
  );
  return (
    <section
      className={cx(
        'flex h-33 gap-5 border-t border-line bg-panel px-4.5 py-2.5',
        drop.isOver && 'inset-ring-3 inset-ring-action',
      )}
      aria-label="Tray"
      {...drop.handlers}
    >
      <div className="flex w-23 flex-none flex-col items-start gap-0.75">
        <h2 className="text-base">Tray</h2>
        <span className="text-soft">
          {gathered.length === 1 ? '1 piece' : `${gathered.length} pieces`},<br />
          {placedCount} placed
        </span>
        {isEditable ? (
          <>
            <Button className="mt-auto min-h-6.5" kind="link" onClick={() => picker.current?.click()}>
              Choose files
            </Button>
            <LinkButton className="mt-auto min-h-6.5" to={`/gather?page=${pageId}`}>
              Gather...
            </LinkButton>
          </>
        ) : null}
        <input
          ref={picker}
          type="file"
          accept={ACCEPTED}
          multiple
          hidden
          onChange={choose}
          aria-label="Files for the tray"
        />
      </div>
      <ul className="flex min-w-0 flex-1 gap-3 overflow-x-auto p-0.75" onKeyDown={walk}>
        {gathered.map((asset) => (
          <TrayPiece
            key={asset.id}
            asset={asset}
            isPlaced={placed.has(asset.id)}
            isOpen={asset.id === openAsset}
            isEditable={isEditable}
            hands={hands}
          />
        ))}
        {open.map((want) => (
          <WantFrame
            key={want.id}
            want={want}
            isOpen={want.id === openWant}
            hands={hands}
            isEditable={isEditable}
          />
        ))}
        {gathered.length === 0 && open.length === 0 ? (
          <li className="text-soft">
            Drop or paste pictures, addresses or embed code here, or gather them: they wait here until they
            are placed.
          </li>
        ) : null}
      </ul>
    </section>
  );
}

/** Arrow keys go along the tray. */
function walk(event: KeyboardEvent<HTMLUListElement>): void {
  if (event.key !== 'ArrowRight' && event.key !== 'ArrowLeft') return;
  const buttons = [...event.currentTarget.querySelectorAll('button')];
  const at = buttons.findIndex((button) => button.matches(':focus'));
  buttons[at + (event.key === 'ArrowRight' ? 1 : -1)]?.focus();
}

interface TrayPieceProps {
  readonly asset: Asset;
  readonly isPlaced: boolean;
  readonly isOpen: boolean;
  readonly isEditable: boolean;
  readonly hands: TrayHands;
}

function TrayPiece({ asset, isPlaced, isOpen, isEditable, hands }: TrayPieceProps) {
  const isComp = asset.label.licence === 'comp';
  const drag = (event: DragEvent) => {
    event.dataTransfer.setData(PIECE_TYPE, asset.id);
    event.dataTransfer.effectAllowed = 'copy';
  };
  const press = (event: KeyboardEvent) => {
    if (!isEditable) return;
    if (event.key === 'Enter') {
      event.preventDefault();
      hands.onPlace(asset.id);
    } else if (event.key === 'Delete' || event.key === 'Backspace') hands.onTakeOff(asset.id);
  };
  const placed = isPlaced ? 'placed' : 'not placed yet';
  const note = asset.embed ? `${sayKind(asset.embed.embed.kind)}, ${placed}` : placed;
  const width = Math.min(190, Math.round((72 * asset.width) / asset.height));
  return (
    <li className="flex-none" style={{ width: Math.max(54, width) }}>
      <button
        className="block w-full text-left"
        type="button"
        draggable={isEditable}
        data-placed={isPlaced}
        aria-pressed={isOpen}
        aria-description="Enter places it"
        onDragStart={drag}
        onClick={() => hands.onOpen(asset.id)}
        onDoubleClick={() => isEditable && hands.onPlace(asset.id)}
        onKeyDown={press}
      >
        <img
          className={cx(
            'h-18 w-auto max-w-47.5 border-b-4 border-line bg-blank object-cover',
            isPlaced && 'border-action',
            isComp && 'border-dashed border-due',
            isOpen && 'outline-3 outline-due',
          )}
          src={asset.thumb}
          alt={asset.label.title}
          draggable={false}
          style={{ width: Math.max(54, width) }}
        />
        <span
          className={cx(
            'mt-0.75 block truncate font-mono text-2xs leading-snug font-normal',
            isComp ? 'text-due' : '',
          )}
        >
          {isComp ? 'comp, not bought' : asset.stem}
        </span>
        {isComp ? null : <span className="block text-2xs text-soft">{note}</span>}
      </button>
    </li>
  );
}

interface WantFrameProps {
  readonly want: Want;
  readonly isOpen: boolean;
  readonly isEditable: boolean;
  readonly hands: TrayHands;
}

function WantFrame({ want, isOpen, isEditable, hands }: WantFrameProps) {
  const [isOver, setOver] = useState(false);
  const over = (event: DragEvent) => {
    if (!isEditable || !(event.dataTransfer.types.includes(PIECE_TYPE) || hands.takes(event.dataTransfer)))
      return;
    event.preventDefault();
    event.stopPropagation();
    setOver(true);
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    event.stopPropagation();
    setOver(false);
    const assetId = event.dataTransfer.getData(PIECE_TYPE);
    if (assetId) hands.onFill(want.id, assetId);
    else hands.onDrop(event.dataTransfer, want.id);
  };
  const least = want.leastWidth > 0 ? `, at least ${want.leastWidth} px` : '';
  return (
    <li>
      <button
        type="button"
        className={cx(
          'grid h-19.5 w-37.5 flex-none place-content-center border border-dashed border-control px-2.5 py-1 text-center text-xs leading-snug text-soft hover:border-2 hover:border-dashed hover:border-due hover:text-ink aria-pressed:border-2 aria-pressed:border-dashed aria-pressed:border-due aria-pressed:text-ink',
          isOver && 'border-2 border-due text-ink',
        )}
        aria-pressed={isOpen}
        onClick={() => hands.onWant(want.id)}
        onDragOver={over}
        onDragLeave={() => setOver(false)}
        onDrop={drop}
      >
        {want.purpose}
        <br />
        {SHAPE_WORDS[want.shape]}
        {least}
      </button>
    </li>
  );
}
