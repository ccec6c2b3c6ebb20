import { type DragEvent, useState } from 'react';

/**
 * A place that things from outside are dropped on: what it takes, and what becomes of it. Anything else passes over it,
 * and so does what is dragged from place to place here (`web/drag`), or was taken by a place inside it.
 */
export function useDrop(isTaken: (data: DataTransfer) => boolean, onDrop: (data: DataTransfer) => void) {
  const [isOver, setOver] = useState(false);
  return {
    isOver,
    handlers: {
      onDragOver: (event: DragEvent) => {
        if (event.defaultPrevented || !isTaken(event.dataTransfer)) return;
        event.preventDefault();
        setOver(true);
      },
      onDragLeave: () => setOver(false),
      onDrop: (event: DragEvent) => {
        setOver(false);
        if (event.defaultPrevented || !isTaken(event.dataTransfer)) return;
        event.preventDefault();
        onDrop(event.dataTransfer);
      },
    },
  };
}

export const holdsFiles = (data: DataTransfer) => data.types.includes('Files');
