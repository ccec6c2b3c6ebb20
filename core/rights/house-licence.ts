import * as v from 'valibot';
import { LICENCE_IDS, type LicenceId, type LicenceTerms, licenceTerms } from './licences.ts';
import { RegionSchema } from './regions.ts';
import { WebAddressSchema } from './web-address.ts';

/** Letters of an ID: with what marks it as one of the house it fits the column by which pieces are asked for. */
const MOST_ID_LETTERS = 24;

const named = (most: number, lacking: string) =>
  v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, lacking),
    v.maxLength(most, `At most ${most} letters fit here.`),
  );

/**
 * A licence that the rights keeper made, with the columns of the catalogue (`LicenceTerms`): one that an archive, a society or a
 * maker gives again and again in the same words. `onlyIn` is the one region in which it holds; `decision`, whether what it keeps
 * from being published can be lifted by a recorded decision.
 */
export const HouseLicenceSchema = v.strictObject({
  id: v.pipe(
    v.string(),
    v.regex(/^[a-z0-9]+(?:-[a-z0-9]+)*$/, 'An ID has small letters, digits and single hyphens.'),
    v.maxLength(MOST_ID_LETTERS),
  ),
  name: named(120, 'Say what it is called.'),
  short: named(60, 'Say how a credit names it.'),
  address: WebAddressSchema,
  publish: v.boolean(),
  decision: v.boolean(),
  commercial: v.boolean(),
  educationalOnly: v.boolean(),
  onlyIn: v.nullable(RegionSchema),
  allowsDerivatives: v.boolean(),
  owesCredit: v.picklist(['yes', 'asked', 'house', 'no']),
  keepsNotice: v.boolean(),
  sayChanges: v.boolean(),
  shareAlike: v.boolean(),
  titleInCredit: v.picklist(['no', 'wished', 'yes']),
});
export type HouseLicence = v.InferOutput<typeof HouseLicenceSchema>;

/** What a label says of its licence. */
export interface LicenceSaid {
  readonly licence: LicenceId;
  readonly houseLicence: HouseLicence | null;
}

/** What the licence of a label says: the catalogue's terms, or those of the house's own licence. */
export function termsOf({ licence, houseLicence }: LicenceSaid): LicenceTerms {
  if (licence !== 'house' || houseLicence === null) return licenceTerms(licence);
  const { id: _, address, ...terms } = houseLicence;
  return { ...terms, address: address || null, spdx: null };
}

/** A licence by one word, of the catalogue or of the house: what lists offer and what pieces are asked for by. */
export type LicenceKey = LicenceId | `house:${string}`;

export const houseKey = (id: string): LicenceKey => `house:${id}`;

/** The key of what a label says. */
export const licenceKeyOf = ({ licence, houseLicence }: LicenceSaid): LicenceKey =>
  licence === 'house' && houseLicence ? houseKey(houseLicence.id) : licence;

export const LicenceKeySchema = v.custom<LicenceKey>(
  (key) => typeof key === 'string' && (LICENCE_IDS.some((id) => id === key) || HOUSE_KEY.test(key)),
);
const HOUSE_KEY = /^house:[a-z0-9-]{1,24}$/;

/** What a label says under a key; null for a licence that the house does not have. */
export function licenceByKey(key: LicenceKey, ofHouse: readonly HouseLicence[]): LicenceSaid | null {
  const catalogued = LICENCE_IDS.find((id) => id === key);
  if (catalogued) return { licence: catalogued, houseLicence: null };
  const own = ofHouse.find(({ id }) => houseKey(id) === key);
  return own ? { licence: 'house', houseLicence: own } : null;
}

/**
 * The house's own licence that words or an address name: by its address, its name or its short form, whatever their case; undefined
 * for none.
 */
export function maybeHouseLicence<L extends HouseLicence>(
  text: string,
  ofHouse: readonly L[],
): L | undefined {
  const said = folded(text);
  return said === ''
    ? undefined
    : ofHouse.find(({ name, short, address }) => [name, short, address].some((one) => folded(one) === said));
}

const folded = (text: string): string => text.trim().toLowerCase().replace(/\/$/, '');
