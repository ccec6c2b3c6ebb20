import * as v from 'valibot';

const whole = (least: number, most: number) =>
  v.pipe(v.number(), v.integer(), v.minValue(least), v.maxValue(most));

/** Films and sound as a target takes them, and captions as its readers need them. */
export const FilmRulesSchema = v.strictObject({
  /** What is larger or longer belongs on the film host. In MB of the file that goes out, and in minutes. */
  mostMegabytes: whole(1, 100_000),
  mostMinutes: whole(1, 1440),
  /** Whether its pages take files with AV1 and Opus besides those that play everywhere. */
  takesWebm: v.boolean(),
  captions: v.strictObject({
    perSecond: whole(5, 60),
    lines: whole(1, 5),
    lineLetters: whole(15, 100),
  }),
});
export type FilmRules = v.InferOutput<typeof FilmRulesSchema>;

export const USUAL_FILM_RULES: FilmRules = {
  mostMegabytes: 60,
  mostMinutes: 10,
  takesWebm: true,
  captions: { perSecond: 20, lines: 2, lineLetters: 42 },
};

/** How captions may be, as those who read them need it. */
export interface CaptionRules {
  /** At most so many letters a second. */
  readonly perSecond: number;
  readonly lines: number;
  readonly lineLetters: number;
  /** In milliseconds: seen at least and at most, and parted from the next one at least so long, or not at all. */
  readonly least: number;
  readonly most: number;
  readonly gap: number;
}

/** How captions may be on a target: what it says itself, and what holds everywhere. In milliseconds where it is time. */
export const captionRulesOf = ({ captions }: Pick<FilmRules, 'captions'>): CaptionRules => ({
  ...captions,
  least: 1000,
  most: 7000,
  // Two pictures of 25 a second.
  gap: 80,
});
