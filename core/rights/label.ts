import * as v from 'valibot';
import { LanguageTagSchema } from '../words/language-tag.ts';
import { CreditWordsSchema } from './credit-words.ts';
import { HouseLicenceSchema } from './house-licence.ts';
import { LICENCE_IDS } from './licences.ts';
import { DaySchema, DecisionSchema, NO_TERMS, TermsSchema } from './terms.ts';
import { WebAddressSchema } from './web-address.ts';

const line = v.pipe(v.string(), v.trim(), v.maxLength(300, 'At most 300 letters fit here.'));
const text = v.pipe(v.string(), v.trim(), v.maxLength(5000, 'At most 5,000 letters fit here.'));

/** The words for those who cannot see the picture, or the decision that there is nothing to say. */
export const AltSchema = v.variant('kind', [
  v.strictObject({ kind: v.literal('unsaid') }),
  v.strictObject({ kind: v.literal('decorative') }),
  v.strictObject({
    kind: v.literal('text'),
    text: v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(1000)),
  }),
]);
export type Alt = v.InferOutput<typeof AltSchema>;

const fraction = v.pipe(v.number(), v.minValue(0), v.maxValue(1));

/** What is said of a piece in one more language. Empty strings are "not said in it": there the piece's own words stand. */
export const TranslationSchema = v.strictObject({
  language: LanguageTagSchema,
  title: line,
  alt: v.pipe(v.string(), v.trim(), v.maxLength(1000)),
  caption: text,
  extendedDescription: text,
});
export type Translation = v.InferOutput<typeof TranslationSchema>;

const translations = v.pipe(
  v.array(TranslationSchema),
  v.maxLength(40),
  v.check(
    (all) => new Set(all.map(({ language }) => language)).size === all.length,
    'Each language is said once.',
  ),
);

/** What a picture is, as a credit names it: it is no photo because it is a file of one. */
export const WORKS = ['photo', 'drawing', 'painting', 'print', 'map', 'chart', 'picture'] as const;

/**
 * All that is said of a piece. Empty strings are "not said". `dateCreated` is ISO 8601 (YYYY-MM-DD) or empty. `licenceAddress` is
 * where the very text of the licence stands, where that is not the catalogue's, as of a port to the law of a country.
 */
export const LabelSchema = v.strictObject({
  title: line,
  creator: line,
  makerAddress: WebAddressSchema,
  source: line,
  sourceAddress: WebAddressSchema,
  sourceId: line,
  work: v.picklist(['', ...WORKS]),
  licence: v.picklist(LICENCE_IDS),
  /** What the licence says where it is one of the house's own (`house`), as it stands today; null for every other. */
  houseLicence: v.nullable(HouseLicenceSchema),
  licenceAddress: WebAddressSchema,
  copyrightNotice: line,
  licensedTo: line,
  terms: TermsSchema,
  decisions: v.pipe(v.array(DecisionSchema), v.maxLength(40)),
  /** The credit in somebody's own words, once for a language; none where it is put together by the licence. */
  creditWords: v.pipe(v.array(CreditWordsSchema), v.maxLength(40)),
  alt: AltSchema,
  caption: text,
  extendedDescription: text,
  translations,
  place: line,
  dateCreated: DaySchema,
  keywords: v.pipe(v.array(line), v.maxLength(60)),
  focal: v.strictObject({ x: fraction, y: fraction }),
});
export type Label = v.InferOutput<typeof LabelSchema>;
export type LabelField = keyof Label;

export const EMPTY_LABEL: Label = {
  title: '',
  creator: '',
  makerAddress: '',
  source: '',
  sourceAddress: '',
  sourceId: '',
  work: '',
  licence: 'unknown',
  houseLicence: null,
  licenceAddress: '',
  copyrightNotice: '',
  licensedTo: '',
  terms: NO_TERMS,
  decisions: [],
  creditWords: [],
  alt: { kind: 'unsaid' },
  caption: '',
  extendedDescription: '',
  translations: [],
  place: '',
  dateCreated: '',
  keywords: [],
  focal: { x: 0.5, y: 0.5 },
};

/** A change to some fields of a label. */
export const LabelPatchSchema = v.partial(LabelSchema);
export type LabelPatch = v.InferOutput<typeof LabelPatchSchema>;

/** The label with some fields changed; fields that the patch does not say stay as they are. */
export function withPatch(label: Label, patch: LabelPatch): Label {
  const said = Object.fromEntries(Object.entries(patch).filter(([, value]) => value !== undefined));
  return { ...label, ...said };
}

export function isLabelField(name: string): name is LabelField {
  return Object.hasOwn(EMPTY_LABEL, name);
}
