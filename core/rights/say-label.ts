import * as v from 'valibot';
import { CREDIT_PART_WORDS, type CreditWords, CreditWordsSchema } from './credit-words.ts';
import { HouseLicenceSchema } from './house-licence.ts';
import { AltSchema } from './label.ts';
import { isLicenceId, licenceTerms } from './licences.ts';
import { sayAccess, sayTerms } from './say-terms.ts';
import { DecisionSchema, TermsSchema } from './terms.ts';

/** Fields of a label as they are called on screen. */
export const LABEL_FIELD_WORDS: Readonly<Record<string, string>> = {
  title: 'title',
  creator: 'maker',
  makerAddress: 'maker’s address',
  source: 'source',
  sourceAddress: 'address at the source',
  sourceId: 'ID at the source',
  work: 'what it is',
  licence: 'licence',
  houseLicence: 'licence of the house',
  licenceAddress: 'address of the licence',
  copyrightNotice: 'copyright notice',
  licensedTo: 'licensed to',
  terms: 'what was agreed',
  decisions: 'decisions',
  creditWords: 'credit in own words',
  alt: 'alt text',
  caption: 'caption',
  extendedDescription: 'long description',
  translations: 'words in other languages',
  place: 'place',
  dateCreated: 'date taken',
  keywords: 'key words',
  focal: 'focal point',
};

const DecisionsSchema = v.array(DecisionSchema);
const CreditsSchema = v.array(CreditWordsSchema);
const LinesSchema = v.array(v.string());

/** What a field of a label says, in a few words; the empty text where it says nothing. */
export function sayLabelField(field: string, value: unknown): string {
  if (typeof value === 'string') return field === 'licence' && isLicenceId(value) ? sayLicence(value) : value;
  if (v.is(LinesSchema, value)) return value.join(', ');
  switch (field) {
    case 'houseLicence':
      return v.is(HouseLicenceSchema, value) ? value.short : '';
    case 'alt':
      return sayAlt(value);
    case 'terms':
      return v.is(TermsSchema, value) ? [sayTerms(value), sayAccess(value)].filter(Boolean).join(' ') : '';
    case 'decisions':
      return v.is(DecisionsSchema, value) ? value.map(({ by, why }) => `${by}: ${why}`).join('; ') : '';
    case 'creditWords':
      return v.is(CreditsSchema, value) ? value.map(sayWordsOf).join('; ') : '';
    default:
      return '';
  }
}

const sayWordsOf = ({ runs }: CreditWords): string =>
  runs.map((run) => (run.kind === 'words' ? run.text : `[${CREDIT_PART_WORDS[run.part]}]`)).join('');

const sayLicence = (value: Parameters<typeof licenceTerms>[0]): string =>
  value === 'unknown' || value === 'house' ? '' : licenceTerms(value).short;

function sayAlt(value: unknown): string {
  if (!v.is(AltSchema, value)) return '';
  if (value.kind === 'text') return value.text;
  return value.kind === 'decorative' ? 'decorative' : '';
}
