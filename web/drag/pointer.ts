import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/adapter/element-adapter';
import { blockDraggingToIFrames } from '@atlaskit/pragmatic-drag-and-drop/utils/block-dragging-to-iframes';
import { combine } from '@atlaskit/pragmatic-drag-and-drop/utils/combine';
import { pointerOutsideOfPreview } from '@atlaskit/pragmatic-drag-and-drop/utils/pointer-outside-of-preview';
import { setCustomNativeDragPreview } from '@atlaskit/pragmatic-drag-and-drop/utils/set-custom-native-drag-preview';
import { autoScrollForElements } from '@atlaskit/pragmatic-drag-and-drop-auto-scroll/element';
import { say } from '../ui/spoken.ts';
import { PIECES_TYPE } from './dragged.ts';
import { moving } from './moving.ts';
import { addPlace, type Place, type Spot } from './place.ts';
import type { Source } from './source.ts';

/** What was taken up with each element that is dragged now. */
const takenUp = new WeakMap<Element, Source>();

/** Makes an element one that can be dragged; what it is is asked when it is taken up. */
export function makeSource(element: HTMLElement, source: () => Source): () => void {
  const stop = draggable({
    element,
    canDrag: () => source().isMovable,
    getInitialData: () => {
      takenUp.set(element, source());
      return {};
    },
    onDragStart: () => moving.set(true),
    onDrop: () => moving.set(false),
    getInitialDataForExternal: () => ({ [PIECES_TYPE]: JSON.stringify(source().dragged.ids) }),
    onGenerateDragPreview: ({ nativeSetDragImage }) => {
      const { dragged, words } = source();
      // One piece is its own picture.
      if (dragged.ids.length < 2) return;
      setCustomNativeDragPreview({
        nativeSetDragImage,
        getOffset: pointerOutsideOfPreview({ x: '12px', y: '8px' }),
        render: ({ container }) => {
          const count = document.createElement('div');
          count.className = 'bg-bar px-3 py-1.5 font-sans text-base font-strong text-bar-ink';
          count.textContent = words;
          container.append(count);
        },
      });
    },
  });
  // What is embedded on the sheet would swallow the drag.
  return combine(stop, blockDraggingToIFrames({ element }));
}

/** Makes an element a place on which pieces are put down, by the pointer and by keys. */
export function makePlace(element: HTMLElement, place: () => Place): () => void {
  let shown: Spot | null = null;
  const show = (spot: Spot | null) => {
    if (shown && !spot) place().unmark();
    spot?.mark(false);
    shown = spot;
  };
  const follow = ({ self, location, source }: TargetEvent) => {
    const taken = takenUp.get(source.element);
    const { clientX: x, clientY: y } = location.current.input;
    const isInnermost = location.current.dropTargets[0]?.element === self.element;
    show(taken && isInnermost ? place().spotAt(taken.dragged, { x, y }) : null);
  };
  return combine(
    addPlace(element, place),
    dropTargetForElements({
      element,
      canDrop: ({ source }) => {
        const taken = takenUp.get(source.element);
        return taken !== undefined && place().takes(taken.dragged);
      },
      onDrag: follow,
      onDropTargetChange: follow,
      onDragLeave: () => show(null),
      onDrop: (event) => {
        follow(event);
        const [spot, taken] = [shown, takenUp.get(event.source.element)];
        show(null);
        if (!spot || !taken) return;
        const where = spot.say;
        spot.put();
        say(`${taken.words} put ${where}.`);
      },
    }),
  );
}

/** Lets a part of the screen scroll while something is dragged along its edge. */
export function scrollsAlong(element: HTMLElement): () => void {
  const { overflowX, overflowY } = getComputedStyle(element);
  if (overflowX === 'visible' && overflowY === 'visible') return () => undefined;
  return autoScrollForElements({ element, canScroll: ({ source }) => takenUp.has(source.element) });
}

type TargetEvent = Parameters<NonNullable<Parameters<typeof dropTargetForElements>[0]['onDrag']>>[0];
