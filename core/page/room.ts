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
  /**
   * How pieces stand in it: in the page's own column, which they may stand out of; in a part of the page; or each filling
   * the place that it has in a row, whatever side, width and margins it would have elsewhere.
   */
  readonly sort: 'column' | 'part' | 'filled';
  /** Whether it is that of a card, in which words are short. */
  readonly isCard?: boolean;
}

type Measures = Pick<HouseRules, 'column' | 'gutter'>;

const columns = new WeakMap<Measures, Room>();

/** The room of the page's own column: as wide as House rules say, or as the window has room for between its gutters. */
export function columnRoom(rules: Measures): Room {
  const known = columns.get(rules);
  if (known) return known;
  const gutters = 2 * rules.gutter;
  const room = {
    sort: 'column' as const,
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
    sort: 'part',
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

/** What one of several that stand beside each other gets of the room: `share` of what is left of it without `gaps` px. */
export interface Part {
  readonly share: number;
  readonly gaps: number;
}

/** The room of one of several that stand beside each other: one part from a viewport of `from` px on, another under that. */
export function partRoom(
  room: Room,
  { from, wide, narrow }: { readonly from: number; readonly wide: Part; readonly narrow: Part },
): Room {
  const partOf = ({ share, px, below }: WidthSegment, part: Part): WidthSegment => ({
    below,
    share: share * part.share,
    px: (px - part.gaps) * part.share,
  });
  const stretches = room.stretches.flatMap((stretch, at): WidthSegment[] => {
    const start = room.stretches[at - 1]?.below ?? 0;
    if (stretch.below !== null && stretch.below <= from) return [partOf(stretch, narrow)];
    if (start >= from) return [partOf(stretch, wide)];
    return [partOf({ ...stretch, below: from }, narrow), partOf(stretch, wide)];
  });
  return narrowedRoom({ stretches, sort: 'part' }, 0);
}

/** All of a room, as what stands below the other has it. */
export const WHOLE: Part = { share: 1, gaps: 0 };

/** The room of one of `count` that share a room evenly, with `gap` px between them, from a viewport of `from` px on. */
export function sharedRoom(
  room: Room,
  { from, count, gap }: { readonly from: number; readonly count: number; readonly gap: number },
): Room {
  return partRoom(room, { from, wide: { share: 1 / count, gaps: gap * (count - 1) }, narrow: WHOLE });
}

export function isSameRoom(one: Room, other: Room): boolean {
  return (
    one === other ||
    (one.sort === other.sort &&
      one.isCard === other.isCard &&
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
