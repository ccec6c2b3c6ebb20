import { type ChangeEvent, type KeyboardEvent, type RefObject, useRef, useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { sayKind } from '#core/embed/model.ts';
import { filmKind } from '#core/film/facts.ts';
import type { PageDoc, Want } from '#core/page/model.ts';
import { placementsOf } from '#core/page/walk.ts';
import { ACCEPTED_FILES } from '../arrivals/accepted.ts';
import type { FoundFile } from '../arrivals/dropped.ts';
import { useDrop } from '../arrivals/use-drop.ts';
import { carry } from '../drag/carry.ts';
import type { Dragged } from '../drag/dragged.ts';
import type { Place, Spot } from '../drag/place.ts';
import type { Source } from '../drag/source.ts';
import { usePlace, useScrollsAlong, useSource } from '../drag/use-drag.ts';
import { SHAPE_WORDS } from '../pages/want-lines.tsx';
import { pieces } from '../pieces/pieces.ts';
import { Button, LinkButton } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { deedOf } from '../ui/single-keys.ts';
import { say } from '../ui/spoken.ts';
import { useStore } from '../ui/store.ts';

export interface TrayHands {
  readonly onOpen: (assetId: string) => void;
  /** Chooses one besides those that are chosen, or no longer. */
  readonly onChoose: (assetId: string) => void;
  readonly onPlace: (assetIds: readonly string[]) => void;
  readonly onTakeOff: (assetId: string) => void;
  readonly onFiles: (files: readonly FoundFile[]) => void;
  /** Whether what is dragged may be something for the tray. */
  readonly takes: (data: DataTransfer) => boolean;
  readonly onDrop: (data: DataTransfer, wantId: string | null) => void;
  /** Moves pieces on the tray before another, or to the end. */
  readonly onMove: (assetIds: readonly string[], before: string | null) => void;
  /** Takes placements off the sheet; their pieces stay on the tray. */
  readonly onTakeBack: (placementIds: readonly string[]) => void;
  readonly onFill: (wantId: string, assetId: string) => void;
  readonly onWant: (wantId: string) => void;
}

interface TrayProps extends TrayHands {
  readonly pageId: string;
  readonly page: PageDoc;
  /** The pieces that the label is about. */
  readonly chosen: readonly string[];
  readonly openWant: string | null;
  readonly isEditable: boolean;
  /** Whether it is a place of its own, instead of a strip under the sheet. */
  readonly isWhole: boolean;
}

/** Stands for the place after the last piece. */
const END = '';
const MARK_LOOK = 'before:absolute before:top-0 before:z-1 before:h-18 before:w-1 before:bg-due';

const titleOf = (asset: Asset) => asset.label.title || asset.stem;

/** The pieces gathered for a page by their true shapes, and dashed frames for what is still wanted. */
export function Tray({ pageId, page, chosen, openWant, isEditable, isWhole, ...hands }: TrayProps) {
  const known = useStore(pieces);
  const picker = useRef<HTMLInputElement>(null);
  const gathered = page.tray.flatMap((id) => known.get(id) ?? []);
  const placed = new Set(placementsOf(page).map((placement) => placement.asset));
  const chosenHere = gathered.map(({ id }) => id).filter((id) => chosen.includes(id));
  const open = page.wants.filter((want) => want.filledBy === null);
  const placedCount = gathered.filter((asset) => placed.has(asset.id)).length;
  const choose = (event: ChangeEvent<HTMLInputElement>) => {
    hands.onFiles([...(event.target.files ?? [])].map((file) => ({ file, folder: '' })));
    event.target.value = '';
  };
  /** Whether each press chooses one more, where there is no key to hold. */
  const [isChoosing, setChoosing] = useState(false);
  const list = useRef<HTMLUListElement>(null);
  /** Where what is dragged would go: before a piece, or at the end. */
  const [gap, setGap] = useState<string | null>(null);
  usePlace(list, trayPlace({ list, gathered, isEditable, hands, setGap }));
  useScrollsAlong(list);
  const drop = useDrop(
    (data) => isEditable && hands.takes(data),
    (data) => hands.onDrop(data, null),
  );
  return (
    <section
      className={cx(
        'flex gap-5 bg-panel px-4.5 py-2.5',
        isWhole ? 'flex-col gap-3 px-3.5' : 'h-33 border-t border-line',
        drop.isOver && 'inset-ring-3 inset-ring-action',
      )}
      aria-label="Tray"
      {...drop.handlers}
    >
      <div
        className={cx(
          'flex flex-none items-start gap-0.75',
          isWhole ? 'flex-wrap items-baseline gap-x-3.5' : 'w-23 flex-col',
        )}
      >
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
        {isWhole && gathered.length > 1 ? (
          <Button kind="link" aria-pressed={isChoosing} onClick={() => setChoosing(!isChoosing)}>
            {isChoosing ? 'Choose one again' : 'Choose several'}
          </Button>
        ) : null}
        <input
          ref={picker}
          type="file"
          accept={ACCEPTED_FILES}
          multiple
          hidden
          onChange={choose}
          aria-label="Files for the tray"
        />
      </div>
      <ul
        ref={list}
        className={cx('flex min-w-0 flex-1 gap-3 p-0.75', isWhole ? 'flex-wrap' : 'overflow-x-auto')}
        onKeyDown={walk}
      >
        {gathered.map((asset, at) => (
          <TrayPiece
            key={asset.id}
            asset={asset}
            isPlaced={placed.has(asset.id)}
            fills={page.wants.find((want) => want.filledBy === asset.id)?.purpose ?? null}
            mark={gap === asset.id ? 'before' : gap === END && at === gathered.length - 1 ? 'after' : null}
            steps={stepsOf(gathered, at)}
            chosen={chosenHere}
            isEditable={isEditable}
            hands={isChoosing ? { ...hands, onOpen: hands.onChoose } : hands}
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

interface TrayPlaceParts {
  readonly list: RefObject<HTMLUListElement | null>;
  readonly gathered: readonly Asset[];
  readonly isEditable: boolean;
  readonly hands: TrayHands;
  readonly setGap: (gap: string | null) => void;
}

/** The tray takes its own pieces into another order, and those of the sheet back. */
function trayPlace({ list, gathered, isEditable, hands, setGap }: TrayPlaceParts): Place {
  const items = () => [...(list.current?.querySelectorAll<HTMLElement>('[data-tray]') ?? [])];
  const spot = (dragged: Dragged, at: number): Spot => {
    const before = gathered[at];
    return {
      say: before ? `before ${titleOf(before)} on the tray` : 'at the end of the tray',
      name: before ? titleOf(before) : '',
      mark: (isByKeys) => {
        setGap(before?.id ?? END);
        const beside = items()[Math.min(at, gathered.length - 1)];
        if (isByKeys) beside?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
      },
      put: () => {
        if (dragged.from === 'tray') hands.onMove(dragged.ids, before?.id ?? null);
      },
    };
  };
  const back = ({ placementIds }: Dragged & { from: 'sheet' }): Spot => ({
    say: 'back on the tray',
    name: '',
    mark: () => setGap(END),
    put: () => hands.onTakeBack(placementIds),
  });
  return {
    takes: ({ from }) => isEditable && from !== 'shelf',
    spotAt: (dragged, { x }) => {
      if (dragged.from === 'sheet') return back(dragged);
      const at = items().findIndex((item) => {
        const { left, width } = item.getBoundingClientRect();
        return x < left + width / 2;
      });
      return spot(dragged, at < 0 ? gathered.length : at);
    },
    spots: (dragged) =>
      dragged.from === 'sheet'
        ? [back(dragged)]
        : Array.from({ length: gathered.length + 1 }, (_, at) => spot(dragged, at)),
    first: (dragged) =>
      Math.max(
        0,
        gathered.findIndex(({ id }) => dragged.from === 'tray' && dragged.ids.includes(id)),
      ),
    unmark: () => setGap(null),
  };
}

interface TrayStep {
  readonly before: string | null;
  readonly say: string;
}
/** Where one step by key leads a piece of the tray; none where it stands at that end already. */
type TraySteps = Readonly<Record<'back' | 'on' | 'start' | 'end', TrayStep | null>>;

const STEP_KEYS = { ArrowLeft: 'back', ArrowRight: 'on', Home: 'start', End: 'end' } as const;

function stepsOf(gathered: readonly Asset[], at: number): TraySteps {
  const last = gathered.length - 1;
  const to = (place: number): TrayStep | null => {
    if (place < 0 || place > last || place === at) return null;
    const others = gathered.filter((_, index) => index !== at);
    return { before: others[place]?.id ?? null, say: `${place + 1} of ${gathered.length} on the tray` };
  };
  return { back: to(at - 1), on: to(at + 1), start: to(0), end: to(last) };
}

/** Arrow keys go along the tray. */
function walk(event: KeyboardEvent<HTMLUListElement>): void {
  if (event.altKey || (event.key !== 'ArrowRight' && event.key !== 'ArrowLeft')) return;
  const buttons = [...event.currentTarget.querySelectorAll('button')];
  const at = buttons.findIndex((button) => button.matches(':focus'));
  buttons[at + (event.key === 'ArrowRight' ? 1 : -1)]?.focus();
}

/** Whether a press or a key is for one more, beside those that are chosen. */
const isWithMore = ({ ctrlKey, metaKey }: Pick<MouseEvent, 'ctrlKey' | 'metaKey'>) => ctrlKey || metaKey;

interface TrayPieceProps {
  readonly asset: Asset;
  readonly isPlaced: boolean;
  /** What it was wanted for, where it fills a want. */
  readonly fills: string | null;
  /** Where something that is dragged would go, beside this. */
  readonly mark: 'before' | 'after' | null;
  readonly steps: TraySteps;
  /** Those that are chosen, in their order on the tray: what is done with one of several is done with all. */
  readonly chosen: readonly string[];
  readonly isEditable: boolean;
  readonly hands: TrayHands;
}

function TrayPiece({ asset, isPlaced, fills, mark, steps, chosen, isEditable, hands }: TrayPieceProps) {
  const isComp = asset.label.licence === 'comp';
  const element = useRef<HTMLButtonElement>(null);
  const isOpen = chosen.includes(asset.id);
  const ids = isOpen ? chosen : [asset.id];
  const source = (): Source => ({
    dragged: { from: 'tray', ids },
    words: ids.length > 1 ? `${ids.length} pieces` : titleOf(asset),
    isMovable: isEditable,
  });
  useSource(element, source);
  const press = (event: KeyboardEvent) => {
    if (event.key === 'Enter' && isWithMore(event)) {
      event.preventDefault();
      hands.onChoose(asset.id);
    } else if (!isEditable) return;
    else if (event.key === 'Enter') {
      event.preventDefault();
      hands.onPlace(ids);
    } else if (deedOf(event.key) === 'carry') carry(source());
    else if (event.altKey && event.key in STEP_KEYS) {
      event.preventDefault();
      const step = steps[STEP_KEYS[event.key as keyof typeof STEP_KEYS]];
      if (step) hands.onMove([asset.id], step.before);
      say(step ? `${titleOf(asset)} put ${step.say}.` : `${titleOf(asset)} is there already.`);
    } else if (event.key === 'Delete' || event.key === 'Backspace') hands.onTakeOff(asset.id);
  };
  const placed = isPlaced ? 'placed' : 'not placed yet';
  const note = asset.kind === 'picture' ? placed : `${sayShortly(asset)}, ${placed}`;
  const width = Math.min(190, Math.round((72 * asset.width) / asset.height));
  return (
    <li
      className={cx(
        'relative flex-none',
        mark && MARK_LOOK,
        mark === 'after' ? 'before:-right-2' : 'before:-left-2',
      )}
      style={{ width: Math.max(54, width) }}
      data-tray={asset.id}
    >
      <button
        ref={element}
        className="block w-full text-left"
        type="button"
        data-placed={isPlaced}
        aria-pressed={isOpen}
        aria-description={`${fills ? `Fills the want “${fills}”. ` : ''}Enter places it, M carries it, Ctrl and Enter chooses it with others`}
        onClick={(event) => (isWithMore(event) ? hands.onChoose(asset.id) : hands.onOpen(asset.id))}
        onDoubleClick={() => isEditable && hands.onPlace([asset.id])}
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
        {isComp ? null : (
          <span
            className="block truncate text-2xs text-soft"
            title={fills ? `${note}, for “${fills}”` : note}
          >
            {note}
            {/* Said as a description: it is no part of what the piece is called. */}
            {fills ? <span aria-hidden="true">, for “{fills}”</span> : null}
          </span>
        )}
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
  const frame = useRef<HTMLButtonElement>(null);
  const [isMarked, setMarked] = useState(false);
  const spot = (dragged: Dragged): Spot => ({
    say: `into the want ${want.purpose}`,
    name: want.purpose,
    mark: (isByKeys) => {
      setMarked(true);
      if (isByKeys) frame.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
    },
    put: () => {
      const [first] = dragged.ids;
      if (first !== undefined) hands.onFill(want.id, first);
    },
  });
  usePlace(frame, {
    takes: ({ from }) => isEditable && from !== 'shelf',
    spotAt: spot,
    spots: (dragged) => [spot(dragged)],
    unmark: () => setMarked(false),
  });
  const drop = useDrop(
    (data) => isEditable && hands.takes(data),
    (data) => hands.onDrop(data, want.id),
  );
  const least = want.leastWidth > 0 ? `, at least ${want.leastWidth} px` : '';
  return (
    <li>
      <button
        ref={frame}
        type="button"
        className={cx(
          'grid h-19.5 w-37.5 flex-none place-content-center border border-dashed border-control px-2.5 py-1 text-center text-xs leading-snug text-soft hover:border-2 hover:border-dashed hover:border-due hover:text-ink aria-pressed:border-2 aria-pressed:border-dashed aria-pressed:border-due aria-pressed:text-ink',
          (isMarked || drop.isOver) && 'border-2 border-due text-ink',
        )}
        aria-pressed={isOpen}
        onClick={() => hands.onWant(want.id)}
        {...drop.handlers}
      >
        {want.purpose}
        <br />
        {SHAPE_WORDS[want.shape]}
        {least}
      </button>
    </li>
  );
}

/** What a piece that is no picture is, in a word. */
function sayShortly(asset: Exclude<Asset, { readonly kind: 'picture' }>): string {
  switch (asset.kind) {
    case 'embed':
      return sayKind(asset.embed.embed.kind);
    case 'document':
      return asset.document.format.toUpperCase();
    case 'film':
      return filmKind(asset.film);
  }
}
