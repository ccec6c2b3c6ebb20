import type { HouseRules } from './target.ts';
import { WIDTH_LIMITS } from './width-limits.ts';

/** Nothing is laid out narrower than this, whatever the margins. */
export const LEAST_SHOWN_PX = WIDTH_LIMITS.px.least;

/** A stretch of viewports in which a width is `share` x viewport + `px`. */
export interface WidthSegment {
  /** First viewport in px that no longer belongs to it; null for the last. */
  readonly below: number | null;
  readonly share: number;
  readonly px: number;
}

/**
 * The width that blocks have where they stand, over all viewports. The page has one, its column; what holds blocks hands
 * one down to those inside it, and everything that is computed of them needs nothing else.
 */
export interface Room {
  /** From narrow to wide; CSS px. */
  readonly stretches: readonly WidthSegment[];
  /** Whether it is the page's own column, which pieces may stand out of. */
  readonly isColumn: boolean;
}

type Measures = Pick<HouseRules, 'column' | 'gutter'>;

const columns = new WeakMap<Measures, Room>();

/** The room of the page's own column: as wide as House rules say, or as the window has room for between its gutters. */
export function columnRoom(rules: Measures): Room {
  const known = columns.get(rules);
  if (known) return known;
  const gutters = 2 * rules.gutter;
  const room = {
    isColumn: true,
    stretches: [
      { below: LEAST_SHOWN_PX + gutters, share: 0, px: LEAST_SHOWN_PX },
      { below: Math.max(rules.column, LEAST_SHOWN_PX) + gutters, share: 1, px: -gutters },
      { below: null, share: 0, px: Math.max(rules.column, LEAST_SHOWN_PX) },
    ],
  };
  columns.set(rules, room);
  return room;
}

/** The width of a room in px at a viewport. */
export function widthAt({ stretches }: Pick<Room, 'stretches'>, viewport: number): number {
  const stretch = stretches.find(({ below }) => below === null || viewport < below);
  return stretch ? stretch.share * viewport + stretch.px : 0;
}

/** A room inside another that is `px` narrower, as by padding; never narrower than anything is laid out. */
export function narrowedRoom(room: Room, px: number): Room {
  return {
    isColumn: false,
    stretches: room.stretches.flatMap((stretch, at) => {
      const least = { ...stretch, share: 0, px: LEAST_SHOWN_PX };
      const inner = { ...stretch, px: stretch.px - px };
      if (stretch.share <= 0) return [inner.px < LEAST_SHOWN_PX ? least : inner];
      // Where it gets wide enough, in the middle of a stretch.
      const turn = (LEAST_SHOWN_PX - inner.px) / stretch.share;
      const start = room.stretches[at - 1]?.below ?? 0;
      if (turn <= start) return [inner];
      if (stretch.below !== null && turn >= stretch.below) return [least];
      return [{ ...least, below: turn }, inner];
    }),
  };
}

/**
 * The room of one of several that stand beside each other, with `gap` px between them, from a viewport of `from` px on;
 * under that each has the whole.
 */
export function sharedRoom(
  room: Room,
  { from, count, gap }: { readonly from: number; readonly count: number; readonly gap: number },
): Room {
  const shared = ({ share, px, below }: WidthSegment): WidthSegment => ({
    below,
    share: share / count,
    px: (px - gap * (count - 1)) / count,
  });
  const stretches = room.stretches.flatMap((stretch, at): WidthSegment[] => {
    const start = room.stretches[at - 1]?.below ?? 0;
    if (stretch.below !== null && stretch.below <= from) return [stretch];
    return start >= from ? [shared(stretch)] : [{ ...stretch, below: from }, shared(stretch)];
  });
  return narrowedRoom({ stretches, isColumn: false }, 0);
}

export function isSameRoom(one: Room, other: Room): boolean {
  return (
    one === other ||
    (one.isColumn === other.isColumn &&
      one.stretches.length === other.stretches.length &&
      one.stretches.every((stretch, at) => {
        const its = other.stretches[at];
        return (
          its !== undefined &&
          its.below === stretch.below &&
          its.share === stretch.share &&
          its.px === stretch.px
        );
      }))
  );
}
