import { type DragEvent, useState } from 'react';
import { bringIn } from '../arrivals/arrivals.ts';
import { filesOfDrop } from '../arrivals/dropped.ts';
import { ONTO_THE_SHELF } from '../arrivals/kept-files.ts';

/** Files and folders dropped on a run come onto the shelf, folders as they stand, and take part in it. */
export function useDropIntoRun(onPieces: (ids: readonly string[]) => void) {
  const [isOver, setOver] = useState(false);
  const holdsFiles = (event: DragEvent) => event.dataTransfer.types.includes('Files');
  return {
    isOver,
    handlers: {
      onDragOver: (event: DragEvent) => {
        if (!holdsFiles(event)) return;
        event.preventDefault();
        setOver(true);
      },
      onDragLeave: () => setOver(false),
      onDrop: (event: DragEvent) => {
        if (!holdsFiles(event)) return;
        event.preventDefault();
        setOver(false);
        void filesOfDrop(event.dataTransfer).then((files) =>
          bringIn(files, '', ONTO_THE_SHELF, ({ asset }) => {
            onPieces([asset.id]);
            return true;
          }),
        );
      },
    },
  };
}
