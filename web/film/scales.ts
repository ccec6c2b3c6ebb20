/** What one sees of a second, in px: from all of a short film to single words. */
export const SCALES = [2, 5, 10, 20, 40, 80, 160];
const USUAL_SCALE = 4;
/** So much of the time is in sight on a usual screen, in px. */
const SEEN_PX = 1150;

/** A film that is in sight as a whole is drawn as large as it goes. */
export const firstScale = (seconds: number): number =>
  Math.max(
    USUAL_SCALE,
    SCALES.findLastIndex((scale) => scale * seconds <= SEEN_PX),
  );
