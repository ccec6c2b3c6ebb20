/**
 * A slow line, as a reader has it on a train: 1.6 megabits a second, and 150 milliseconds there and back. What is there after one
 * second and after three is asked of it: the first is when a reader's thoughts begin to wander, the other when they begin to leave.
 */
export const SLOW_LINE = { bytesPerSecond: 200_000, roundMillis: 150 } as const;
export const ASKED_SECONDS = [1, 3] as const;

/** One picture of a page that came while it was looked at. */
interface Load {
  /** The block that it stands in. */
  readonly block: string;
  /** When it had come, in milliseconds from the first question. */
  readonly at: number;
  readonly bytes: number;
}

/** How a page came by a line. */
export interface Coming {
  /** When the first words could be read, in milliseconds; null before. */
  readonly painted: number | null;
  readonly loads: readonly Load[];
}

/** What is there after so many seconds. */
export interface ThereAfter {
  readonly hasText: boolean;
  readonly pictures: number;
  /** The blocks whose pictures have not come yet. */
  readonly late: readonly string[];
}

export function thereAfter({ painted, loads }: Coming, seconds: number): ThereAfter {
  const millis = seconds * 1000;
  const late = loads.filter(({ at }) => at > millis).map(({ block }) => block);
  return {
    hasText: painted !== null && painted <= millis,
    pictures: loads.length - late.length,
    late: [...new Set(late)],
  };
}

/** What is there, as a sentence. */
export function sayThere({ hasText, pictures }: ThereAfter, of: number): string {
  if (!hasText) return 'nothing yet';
  if (of === 0) return 'all of it: it has no pictures';
  if (pictures === of) return of === 1 ? 'the words and the picture' : `the words and all ${of} pictures`;
  return pictures === 0 ? 'the words, no picture yet' : `the words and ${pictures} of ${of} pictures`;
}

/** How many bytes of pictures had come by each moment, in seconds: from none to all, a step at each picture. */
export function cameBy({ loads }: Coming): readonly { readonly seconds: number; readonly bytes: number }[] {
  let bytes = 0;
  const steps = [...loads]
    .sort((one, other) => one.at - other.at)
    .map((load) => {
      bytes += load.bytes;
      return { seconds: load.at / 1000, bytes };
    });
  return [{ seconds: 0, bytes: 0 }, ...steps];
}
