import * as v from 'valibot';

const count = v.number();

const CountsSchema = v.object({ stops: count, mends: count, words: count, rights: count });

/** How the pages of a target stood on a day; the day is written as 2026-11-30. */
const ReportDaySchema = v.object({
  ...CountsSchema.entries,
  day: v.string(),
  targetId: v.string(),
  pages: count,
  out: count,
  sent: count,
  bytes: v.nullable(count),
});

/** A page as it stands today. */
const ReportPageSchema = v.object({
  ...CountsSchema.entries,
  id: v.string(),
  title: v.string(),
  targetId: v.string(),
  isOut: v.boolean(),
  /** What was lost where it was sent to. */
  lost: count,
  bytes: v.nullable(count),
});
export type ReportPage = v.InferOutput<typeof ReportPageSchema>;

/** How all pages stood, day by day, and each of them today. */
export const ReportSchema = v.object({
  targets: v.array(v.object({ id: v.string(), name: v.string() })),
  days: v.array(ReportDaySchema),
  pages: v.array(ReportPageSchema),
});
export type Report = v.InferOutput<typeof ReportSchema>;
