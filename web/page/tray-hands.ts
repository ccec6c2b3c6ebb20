import type { Hosts } from '#core/embed/host.ts';
import { placementsOf } from '#core/page/walk.ts';
import { mayCarry } from '../arrivals/carried-text.ts';
import { droppedPieces, holdsPieces } from '../drag/dragged.ts';
import type { LabelRowName } from '../label/row.tsx';
import {
  afterSelection,
  fillWant,
  letGo,
  moveOnTray,
  placePieces,
  removePlacements,
  selectPlacement,
  takeOffTray,
} from '../sheet/commands.ts';
import type { TrayHands } from '../tray/tray.tsx';
import { toast } from '../ui/toast.ts';
import { takeCarried, takeFiles, takePieces } from './brought.ts';
import type { Opened } from './opened.ts';
import type { PageSession } from './use-page-session.ts';

const NOT_CARRIED =
  'What was dropped is no file, no address and no embed code. Nothing was taken: drop pictures, or what its host offers under Share or Embed.';

/** Opens a piece where it stands on the sheet, else on its own; or a want. */
export function open(session: PageSession, next: Opened, onOpened: (opened: Opened) => void): void {
  onOpened(next);
  if (next?.kind !== 'asset') return;
  const placed = placementsOf(session.view.state.doc).find((placement) => placement.asset === next.id);
  if (placed) selectPlacement(session.editor, placed.id);
  else letGo(session.editor);
}

/** Choosing several depends on what is looked at just now. */
export type PageHands = Omit<TrayHands, 'onChoose'>;

interface TrayWays {
  readonly setOpened: (opened: Opened) => void;
  readonly setRow: (row: LabelRowName | null) => void;
  readonly hosts: Hosts;
  readonly goTo: (path: string) => void;
}

export function trayHands(
  session: PageSession,
  pageId: string,
  { setOpened, setRow, ...ways }: TrayWays,
): PageHands {
  const { editor } = session;
  return {
    onOpen: (id) => {
      setRow(null);
      open(session, { kind: 'asset', id }, setOpened);
    },
    onPlace: (ids) => placePieces(editor, ids, afterSelection(editor)),
    onTakeOff: (id) => takeOffTray(editor, id),
    onFiles: (files) => takeFiles(session, files, { pageId, wantId: null, at: null }),
    // What is dragged out of the text itself is no piece.
    takes: (data) => !editor.view.dragging && (mayCarry(data) || holdsPieces(data)),
    onDrop: (data, wantId) => {
      if (holdsPieces(data)) void takePieces(session, droppedPieces(data), { pageId, wantId, at: null });
      else if (!takeCarried(session, data, { pageId, wantId }, ways)) toast.error(NOT_CARRIED);
    },
    onMove: (ids, before) => void moveOnTray(editor, ids, before),
    onTakeBack: (ids) => removePlacements(editor, ids),
    onFill: (wantId, id) => {
      fillWant(editor, wantId, id);
      setOpened({ kind: 'asset', id });
    },
    onWant: (id) => {
      letGo(editor);
      setOpened({ kind: 'want', id });
    },
  };
}
