import { type DragEvent, useState } from 'react';

/** A place that things are dropped on: what it takes, and what becomes of it. Anything else passes over it. */
export function useDrop(isTaken: (data: DataTransfer) => boolean, onDrop: (data: DataTransfer) => void) {
  const [isOver, setOver] = useState(false);
  return {
    isOver,
    handlers: {
      onDragOver: (event: DragEvent) => {
        if (!isTaken(event.dataTransfer)) return;
        event.preventDefault();
        setOver(true);
      },
      onDragLeave: () => setOver(false),
      onDrop: (event: DragEvent) => {
        if (!isTaken(event.dataTransfer)) return;
        event.preventDefault();
        setOver(false);
        onDrop(event.dataTransfer);
      },
    },
  };
}

export const holdsFiles = (data: DataTransfer) => data.types.includes('Files');
