import * as v from 'valibot';

/** Px between what stands side by side. */
const GAP = { least: 0, most: 80 } as const;

export const GapSchema = v.pipe(
  v.number(),
  v.integer('A gap is a whole number of px.'),
  v.minValue(GAP.least),
  v.maxValue(GAP.most, `A gap is at most ${GAP.most} px.`),
);

/** The gap that a `style` attribute says (`--gap`, or `gap` where it goes out without a style sheet); `usual` where it says none. */
export function gapIn(style: string, usual: number): number {
  const said = /(?:^|;)\s{0,9}(?:--gap|gap):\s{0,9}(\d{1,3})px/.exec(style.slice(0, 2000))?.[1];
  const read = v.safeParse(GapSchema, said === undefined ? usual : Number(said));
  return read.success ? read.output : usual;
}
