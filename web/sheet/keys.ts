import type { Editor } from '@tiptap/core';
import type { Placement, Position, Width } from '#core/page/blocks/placement/schema.ts';
import { DEFAULT_SHARE } from '#core/page/target.ts';
import { closestWidth } from '#core/page/width-limits.ts';
import { carry } from '../drag/carry.ts';
import { deedOf, type LetterDeed, singleKeys } from '../ui/single-keys.ts';
import { carriedFrom, ROW_GROUP } from './blocks/placement/node.ts';
import { changePlacement, type Move, movePlacement, removePlacements } from './commands.ts';
import type { SheetHooks } from './hooks.ts';
import { firstKey, settleSoleKey, soleKey } from './sole-key.ts';

const MOVE_KEYS: Readonly<Record<string, Move>> = {
  ArrowUp: 'up',
  ArrowDown: 'down',
  Home: 'top',
  End: 'bottom',
};

/** Where pieces stand side by side, they are moved along the row too. */
const ROW_KEYS: Readonly<Record<string, Move>> = { ArrowLeft: 'up', ArrowRight: 'down' };

/** What a key does while a placement is selected. Letters never fall through, or they would be typed over the piece. */
export function placementKey(
  editor: Editor,
  placement: Placement,
  event: KeyboardEvent,
  hooks: SheetHooks,
): boolean {
  const isPrinted = event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey;
  const isStep = ['+', '=', '-'].includes(event.key);
  // What another key does comes after what a letter before it does; letters, spaces and points in a row are text.
  if (event.key !== 'Shift' && (!isPrinted || isStep)) settleSoleKey();
  if (event.ctrlKey || event.metaKey) return false;
  const isInRow = editor.state.selection.$from.parent.type.isInGroup(ROW_GROUP);
  const move = MOVE_KEYS[event.key] ?? (isInRow ? ROW_KEYS[event.key] : undefined);
  if (event.altKey) {
    if (move) movePlacement(editor, placement.id, move);
    return move !== undefined;
  }
  const deed = isPrinted ? deedOf(event.key) : undefined;
  // When it was pressed, not when it is heard: on a busy machine letters that were typed in a row are heard far apart.
  if (deed === 'carry') firstKey(event.timeStamp, () => carry(carriedFrom(editor, placement)));
  else if (isPrinted && !isStep)
    soleKey(event.timeStamp, isInRow ? () => undefined : letterDeed(editor, placement, deed, hooks));
  else if (isStep && (isInRow || !singleKeys.state.areOn)) return true;
  else if (event.key === '+' || event.key === '=') widen(editor, placement, 1);
  else if (event.key === '-') widen(editor, placement, -1);
  else if (event.key === 'Enter') hooks.onOpenLabel();
  else if (event.key === 'Delete' || event.key === 'Backspace') removePlacements(editor, [placement.id]);
  return event.key.length === 1 || ['Enter', 'Delete', 'Backspace'].includes(event.key);
}

/** What a letter stands for; most stand for nothing. */
function letterDeed(
  editor: Editor,
  placement: Placement,
  deed: LetterDeed | undefined,
  hooks: SheetHooks,
): () => void {
  if (deed === undefined || deed === 'help' || deed === 'carry') return () => undefined;
  if (deed === 'paragraph') return hooks.onBesideParagraph;
  return () => changePlacement(editor, placement.id, standing(deed), `placing it ${deed.replace('-', ' ')}`);
}

/** A new position brings its own sensible margins and width. */
export function standing(position: Position): Partial<Placement> {
  return { position, margins: null, width: null };
}

const STEP_PERCENT = 2;
const STEP_PX = 10;

function widen(editor: Editor, placement: Placement, direction: 1 | -1): void {
  changePlacement(
    editor,
    placement.id,
    { width: stepped(placement, direction) },
    direction > 0 ? 'making it wider' : 'making it narrower',
  );
}

/** The next width in a direction, in the unit that it has. */
export function stepped(placement: Placement, direction: 1 | -1): Width {
  const now = placement.width ?? { unit: '%', value: Math.round(DEFAULT_SHARE[placement.position] * 100) };
  const step = now.unit === 'px' ? STEP_PX : STEP_PERCENT;
  return closestWidth({ unit: now.unit, value: now.value + direction * step });
}
