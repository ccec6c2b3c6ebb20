import * as v from 'valibot';
import { NOT_SENT, SendingSchema } from '../deliver/sending.ts';
import { EmbedRulesSchema, USUAL_EMBED_RULES } from '../embed/target.ts';
import { FilmRulesSchema, USUAL_FILM_RULES } from '../film/rules.ts';
import { LEAST_LIKENESS } from '../media/quality.ts';
import { NamePatternSchema } from '../naming/parts.ts';
import { FINDING_CODES, type FindingCode, SEVERITIES, type Severity } from '../proof/codes.ts';
import { RegionsSchema } from '../rights/regions.ts';
import { AGREED_USES, isTimeZone } from '../rights/terms.ts';
import { WebAddressSchema } from '../rights/web-address.ts';
import { LanguageTagSchema } from '../words/language-tag.ts';
import { type Margins, type Placement, type Position, RatioSchema } from './blocks/placement/schema.ts';
import { PictureStylesSchema } from './picture-style.ts';
import { WIDEST_VIEWPORT_PX } from './width-limits.ts';

const px = (least: number, most: number) =>
  v.pipe(v.number(), v.integer(), v.minValue(least), v.maxValue(most));

/** A named shape and width that the target's designs use. */
const CutPresetSchema = v.strictObject({
  id: v.pipe(v.string(), v.regex(/^[a-z0-9-]{1,40}$/)),
  name: v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(40)),
  ratio: v.nullable(RatioSchema),
  width: px(16, 8000),
});
export type CutPreset = v.InferOutput<typeof CutPresetSchema>;

const SeveritySchema = v.picklist([...SEVERITIES, 'off']);
const CodeSchema = v.picklist(FINDING_CODES);

/** How each finding counts. A finding that there is no more, or not yet, spoils none of the others. */
const SeveritiesSchema = v.pipe(
  v.record(v.string(), v.string()),
  v.transform((said) => {
    const known: Partial<Record<FindingCode, v.InferOutput<typeof SeveritySchema>>> = {};
    for (const [code, severity] of Object.entries(said))
      if (v.is(CodeSchema, code) && v.is(SeveritySchema, severity)) known[code] = severity;
    return known;
  }),
);

/** A target and its house rules. Widths in px; `weightBudget` in bytes for the first load of a page. */
export const HouseRulesSchema = v.strictObject({
  name: v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(60)),
  siteAddress: WebAddressSchema,
  language: LanguageTagSchema,
  commercial: v.boolean(),
  creditOwnWork: v.boolean(),
  /** Where credits stand: under each picture, or all of them once at the page's foot. */
  creditsAt: v.optional(v.picklist(['picture', 'foot']), 'picture'),
  /** Whether it teaches: some statements allow educational use alone. */
  educational: v.optional(v.boolean(), false),
  /** Where its pages are meant to be read; none for everywhere. */
  territory: v.optional(RegionsSchema, []),
  /** What agreements would call it. */
  publishing: v.optional(v.picklist(AGREED_USES), 'web'),
  /** In which its days begin and end (IANA). */
  timeZone: v.optional(
    v.pipe(
      v.string(),
      v.maxLength(60),
      v.check(isTimeZone, 'There is no such time zone. One is written as Europe/London.'),
    ),
    'UTC',
  ),
  /** Sources whose word on a licence is enough: nobody has to keep it before it goes out. */
  trustedSources: v.optional(
    v.pipe(v.array(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(100))), v.maxLength(40)),
    [],
  ),
  column: px(200, 2000),
  /** The least space in px between the column and the edge of a narrow screen, on each side. */
  gutter: px(0, 100),
  breakout: px(200, WIDEST_VIEWPORT_PX),
  breakpoints: v.pipe(v.array(px(200, WIDEST_VIEWPORT_PX)), v.minLength(1), v.maxLength(8)),
  stackBelow: px(0, WIDEST_VIEWPORT_PX),
  proofWidths: v.pipe(v.array(px(200, WIDEST_VIEWPORT_PX)), v.minLength(1), v.maxLength(4)),
  /** Size of the running text in px, for the measure of a line. */
  textSize: px(10, 40),
  cutPresets: v.pipe(v.array(CutPresetSchema), v.maxLength(20)),
  namePattern: NamePatternSchema,
  /** The sections of the site as their addresses say them ("visit/hides"), for folders that mirror them. */
  sections: v.optional(
    v.pipe(
      v.array(v.pipe(v.string(), v.trim(), v.maxLength(200, 'A section is at most 200 letters long.'))),
      v.maxLength(200, 'At most 200 sections are kept.'),
    ),
    [],
  ),
  weightBudget: px(10_000, 100_000_000),
  leastLettersBeside: px(0, 80),
  /** How alike each cut looks to the untouched picture, in thousandths of SSIM. */
  likeness: v.optional(px(LEAST_LIKENESS, 999), 985),
  /** How pictures may look, by classes of the target's own. */
  pictureStyles: v.optional(PictureStylesSchema, []),
  /** Words over a picture: set as text in the page, or drawn into the cut where the target's filter leaves no other way. */
  wordsOver: v.optional(v.picklist(['text', 'drawn']), 'text'),
  /** How its pages are sent. */
  sending: v.optional(SendingSchema, NOT_SENT),
  /** Films and sound of the house's own, as it takes them. */
  films: v.optional(FilmRulesSchema, USUAL_FILM_RULES),
  /** What the target lets through of embeds. */
  embeds: v.optional(EmbedRulesSchema, USUAL_EMBED_RULES),
  /** Whether its pages are dark where a reader's device is set to dark (Media Queries 5, `prefers-color-scheme`). */
  dark: v.optional(v.boolean(), false),
  severities: SeveritiesSchema,
});

/** Rules as they are stored: what a later Placard added to them, or an earlier one had, is passed over. */
export const StoredRulesSchema = v.object(HouseRulesSchema.entries);
/** House rules as they hold on one page: which page that is, where one is spoken of. */
export const RulesOnPageSchema = v.strictObject({
  ...HouseRulesSchema.entries,
  onPage: v.exactOptional(v.string()),
});
export type HouseRules = v.InferOutput<typeof RulesOnPageSchema>;

/** The target that pieces are judged and named for where no page says which: a commercial one forbids most. */
export function strictest<T extends { readonly rules: Pick<HouseRules, 'commercial'> }>(
  targets: readonly T[],
): T | undefined {
  return targets.find(({ rules }) => rules.commercial) ?? targets[0];
}

/** How a finding counts on this target; `off` is not looked for. */
export function severityOf(rules: HouseRules, code: FindingCode): Severity | 'off' {
  return rules.severities[code] ?? 'mend';
}

/** The space between a picture and the text beside it, under it and over it, in px. */
const GAP_PX = 22;
const TOP_PX = 4;
const BELOW_PX = 12;
const BLOCK_ABOVE_PX = 12;
const BLOCK_BELOW_PX = 22;

const BLOCK: Margins = { top: BLOCK_ABOVE_PX, right: 0, bottom: BLOCK_BELOW_PX, left: 0 };

/** Margins of a position that nobody changed: nothing on the outer edge, so that it stays in line with the text. */
const SENSIBLE: Readonly<Record<Position, Margins>> = {
  'beside-left': { top: TOP_PX, right: GAP_PX, bottom: BELOW_PX, left: 0 },
  'beside-right': { top: TOP_PX, right: 0, bottom: BELOW_PX, left: GAP_PX },
  centred: BLOCK,
  column: BLOCK,
  breakout: BLOCK,
  bleed: BLOCK,
};

/** The margins in force for a placement. */
export function marginsOf(placement: Pick<Placement, 'margins' | 'position'>): Margins {
  return placement.margins ?? SENSIBLE[placement.position];
}

/** The share of the column that a picture beside the text, or centred, takes when nobody said otherwise. */
export const DEFAULT_SHARE: Readonly<Record<Position, number>> = {
  'beside-left': 0.46,
  'beside-right': 0.46,
  centred: 0.7,
  column: 1,
  breakout: 1,
  bleed: 1,
};
