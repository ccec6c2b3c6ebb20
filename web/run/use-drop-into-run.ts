import { bringIn } from '../arrivals/arrivals.ts';
import { filesOfDrop } from '../arrivals/dropped.ts';
import { ONTO_THE_SHELF } from '../arrivals/kept-files.ts';
import { holdsFiles, useDrop } from '../arrivals/use-drop.ts';

/** Files and folders dropped on a run come onto the shelf, folders as they stand, and take part in it. */
export function useDropIntoRun(onPieces: (ids: readonly string[]) => void) {
  return useDrop(holdsFiles, (data) => {
    void filesOfDrop(data).then((files) =>
      bringIn(files, '', ONTO_THE_SHELF, ({ asset }) => {
        onPieces([asset.id]);
        return true;
      }),
    );
  });
}
