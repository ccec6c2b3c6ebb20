import type { HouseLicence } from './house-licence.ts';
/** A target as rights know it, for tests: read everywhere, and not commercial. */
export const EXAMPLE_PLACE = {
  name: 'Reserve site',
  commercial: false,
  creditOwnWork: false,
  territory: [],
  educational: false,
  publishing: 'web',
  trustedSources: [],
} as const;

/** A licence that an archive gives in the same words again and again. */
export const EXAMPLE_LICENCE: HouseLicence = {
  id: 'town-archive',
  name: 'Saltmere Town Archive, standing agreement',
  short: 'Town Archive agreement',
  address: 'https://archive.example/terms/',
  publish: true,
  decision: false,
  commercial: false,
  educationalOnly: false,
  onlyIn: null,
  allowsDerivatives: false,
  owesCredit: 'yes',
  keepsNotice: true,
  sayChanges: false,
  shareAlike: false,
  titleInCredit: 'yes',
};
