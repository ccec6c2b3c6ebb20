import type { RunPreview, RunStep, RunSummary } from '#api/runs.ts';
import { sayBytes } from '#core/media/weight.ts';
import { sayPattern } from '#core/naming/parts.ts';
import type { CutPreset } from '#core/page/target.ts';
import type { Naming, RunOrder } from '#core/run/order.ts';
import { type SizeWish, saySizeWish } from '#core/run/size-wish.ts';
import { needsLook } from '#core/run/warning.ts';

export const pictures = (count: number) => (count === 1 ? '1 picture' : `${count} pictures`);
const files = (count: number) => (count === 1 ? '1 file' : `${count} files`);

/** "column 720, card 360 and 480 wide". */
export function listed(words: readonly string[]): string {
  if (words.length < 2) return words.join('');
  return `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}

export function saySizes(sizes: readonly SizeWish[], presets: readonly CutPreset[]): string {
  return listed(sizes.map((wish) => saySizeWish(wish, presets)));
}

export function sayNaming(naming: Naming | null): string {
  switch (naming?.by) {
    case undefined:
      return 'as they are';
    case 'pattern':
      return `${sayPattern(naming.pattern)}${naming.which === 'unnamed' ? ' where they have no name' : ''}`;
    case 'replace':
      return naming.search.trim() === ''
        ? 'by search and replace'
        : `with “${naming.replace}” for “${naming.search}”`;
  }
}

/** What a run makes, and about how heavy it will be. */
export function sayTotals({ rows }: RunPreview, { into }: Pick<RunOrder, 'into'>): string {
  const part = rows.filter(({ leftOut }) => leftOut === null);
  const planned = part.flatMap((row) => row.files);
  const renamed = part.filter(({ before, after }) => before.stem !== after.stem).length;
  const moved = part.filter(({ before, after }) => before.folder !== after.folder).length;
  const before = part.reduce((sum, { bytes }) => sum + bytes, 0);
  const after = planned.reduce((sum, { bytes }) => sum + bytes, 0);
  const deeds = [
    planned.length > 0
      ? `${files(planned.length)} to make, about ${sayBytes(after)} from ${sayBytes(before)}`
      : '',
    into === 'shelf' && renamed > 0 ? `${renamed} to rename` : '',
    into === 'shelf' && moved > 0 ? `${moved} to move` : '',
  ].filter(Boolean);
  return deeds.length > 0 ? deeds.join(', ') : 'Nothing would change yet';
}

export function countToLookAt({ rows }: RunPreview): number {
  return rows.filter(({ warnings, leftOut }) => leftOut === 'comp' || warnings.some(needsLook)).length;
}

export function sayLeftOut(leftOut: RunStep['leftOut']): string {
  switch (leftOut) {
    case 'comp':
      return 'Left out: a comp is sized when it has been bought.';
    case 'nothing':
      return 'Nothing changes for it.';
    default:
      return 'Left out.';
  }
}

/** How far a run is, with its rate and the time that is left. */
export function sayProgress(run: RunSummary): string {
  const { state, done, refused, of, perMinute, secondsLeft, undone } = run;
  if (undone > 0 && done === 0) return `Taken back: ${pictures(undone)} as they were.`;
  if (state === 'waiting') return 'Waits for a worker.';
  if (state !== 'running') return run.words;
  if (done + refused >= of) return 'Done.';
  const rate = perMinute ? `, ${Math.round(perMinute)} a minute` : '';
  const left = secondsLeft === null ? '' : `, about ${sayTime(secondsLeft)} left`;
  return `${done + refused} of ${of}${rate}${left}.`;
}

function sayTime(seconds: number): string {
  if (seconds < 90) return `${Math.max(1, seconds)} s`;
  return `${Math.round(seconds / 60)} min`;
}
