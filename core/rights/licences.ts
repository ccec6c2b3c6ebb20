/**
 * What a licence says, in the terms a page needs. `owesCredit`: 'asked' is a courtesy, 'house' as the house rules say.
 * `decision`: what keeps it from being published can be lifted by a recorded decision of the rights keeper, since it rests on
 * facts that a licence does not say. `onlyIn`: the region in which it holds. `spdx`: its identifier in the SPDX License List.
 */
export interface LicenceTerms {
  readonly name: string;
  /** The short form for a credit line. */
  readonly short: string;
  readonly address: string | null;
  readonly spdx: string | null;
  readonly publish: boolean;
  readonly decision: boolean;
  readonly commercial: boolean;
  readonly educationalOnly: boolean;
  readonly onlyIn: string | null;
  readonly allowsDerivatives: boolean;
  readonly owesCredit: 'yes' | 'asked' | 'house' | 'no';
  /** Whether the copyright notice of the work is kept with it where one was supplied. */
  readonly keepsNotice: boolean;
  readonly sayChanges: boolean;
  readonly shareAlike: boolean;
  readonly titleInCredit: 'no' | 'wished' | 'yes';
}

const CC = 'https://creativecommons.org';

const CC_CODES = {
  by: { commercial: true, allowsDerivatives: true },
  'by-sa': { commercial: true, allowsDerivatives: true },
  'by-nd': { commercial: true, allowsDerivatives: false },
  'by-nc': { commercial: false, allowsDerivatives: true },
  'by-nc-sa': { commercial: false, allowsDerivatives: true },
  'by-nc-nd': { commercial: false, allowsDerivatives: false },
} as const;
type CcCode = keyof typeof CC_CODES;
const CC_VERSIONS = ['4.0', '3.0', '2.5', '2.1', '2.0', '1.0'] as const;
type CcVersion = (typeof CC_VERSIONS)[number];
type CcId = `cc-${CcCode}-${CcVersion}`;

const FREE = {
  publish: true,
  decision: false,
  commercial: true,
  educationalOnly: false,
  onlyIn: null,
  allowsDerivatives: true,
  keepsNotice: false,
  sayChanges: false,
  shareAlike: false,
  titleInCredit: 'no',
  address: null,
  spdx: null,
} as const;
const CLOSED = {
  ...FREE,
  publish: false,
  commercial: false,
  allowsDerivatives: false,
} as const;

function creativeCommons(code: CcCode, version: CcVersion): LicenceTerms {
  const name = code.toUpperCase();
  // Version 1.0 named this one in another order.
  const path = version === '1.0' && code === 'by-nc-nd' ? 'by-nd-nc' : code;
  return {
    ...FREE,
    name: `Creative Commons ${name} ${version}`,
    short: `CC ${name} ${version}`,
    address: `${CC}/licenses/${path}/${version}/`,
    // Version 2.1 is there only as ports to some countries' laws.
    spdx: version === '2.1' ? null : `CC-${name}-${version}`,
    ...CC_CODES[code],
    owesCredit: 'yes',
    // 4.0 s3(a)(1)(A)(ii): the copyright notice, as far as supplied; 1.0 to 3.0 s4: all copyright notices are kept intact.
    keepsNotice: true,
    // 4.0 s3(a)(1)(B) and 3.0 s4(b): say if it was modified; before: for adaptations, which a crop is.
    sayChanges: true,
    shareAlike: code.endsWith('-sa'),
    // 1.0 to 3.0 s4: the title if supplied; 4.0 no longer asks for it.
    titleInCredit: version === '4.0' ? 'wished' : 'yes',
  };
}

/** Every licence of Creative Commons in each version, newest first. */
const CREATIVE_COMMONS = Object.fromEntries(
  CC_VERSIONS.flatMap((version) =>
    Object.keys(CC_CODES)
      .filter(isCcCode)
      .map((code) => [`cc-${code}-${version}`, creativeCommons(code, version)] as const),
  ),
) as Readonly<Record<CcId, LicenceTerms>>;

function isCcCode(code: string): code is CcCode {
  return Object.hasOwn(CC_CODES, code);
}

/** A statement of RightsStatements.org: it tells what is known of the rights, and is no licence (rightsstatements.org, 1.0). */
const statement = (name: string, short: string, code: string) => ({
  name: `${name} (rights statement)`,
  short,
  address: `https://rightsstatements.org/vocab/${code}/1.0/`,
});

/** Every licence a piece can have. The legal codes of Creative Commons and RightsStatements.org are the source. */
const LICENCES = {
  unknown: { ...CLOSED, name: 'Not known yet', short: 'licence not known', owesCredit: 'house' },
  own: { ...FREE, name: 'Our own work', short: 'own work', owesCredit: 'house' },
  hire: { ...FREE, name: 'Made for us (work for hire)', short: 'made for us', owesCredit: 'house' },
  // Only for an embed whose poster was drawn here: its host shows it, and no file of it is held.
  'not-copied': {
    ...FREE,
    name: 'None needed: nothing of it is copied',
    short: 'nothing copied',
    owesCredit: 'no',
  },
  cc0: {
    ...FREE,
    name: 'CC0 1.0, no rights reserved',
    short: 'CC0 1.0',
    address: `${CC}/publicdomain/zero/1.0/`,
    spdx: 'CC0-1.0',
    owesCredit: 'asked',
  },
  pdm: {
    ...FREE,
    name: 'Public Domain Mark 1.0',
    short: 'public domain',
    address: `${CC}/publicdomain/mark/1.0/`,
    spdx: 'CC-PDM-1.0',
    owesCredit: 'asked',
  },
  ...CREATIVE_COMMONS,
  permission: {
    ...FREE,
    name: 'Permission on file',
    short: 'used by permission',
    owesCredit: 'yes',
    keepsNotice: true,
  },
  // Says what its own terms say (`house-licence.ts`); without them nothing is known of it.
  house: { ...CLOSED, name: 'A licence of the house', short: 'house licence', owesCredit: 'house' },
  agency: { ...FREE, name: 'Agency licence, bought', short: 'agency licence', owesCredit: 'yes' },
  comp: { ...CLOSED, name: 'Comp, not bought', short: 'comp', owesCredit: 'yes' },
  copyright: {
    ...CLOSED,
    name: 'In copyright, no permission',
    short: 'all rights reserved',
    owesCredit: 'yes',
  },
  'no-known-copyright': {
    ...FREE,
    ...statement('No known copyright', 'no known copyright', 'NKC'),
    owesCredit: 'asked',
  },
  'no-copyright-non-commercial': {
    ...FREE,
    commercial: false,
    ...statement('No copyright, non-commercial use only', 'no copyright, non-commercial only', 'NoC-NC'),
    owesCredit: 'asked',
  },
  // Other countries may see it otherwise, so that a person has to decide for where else it is published.
  'no-copyright-us': {
    ...FREE,
    onlyIn: 'US',
    ...statement('No copyright in the United States', 'no copyright in the United States', 'NoC-US'),
    owesCredit: 'asked',
  },
  'no-copyright-contract': {
    ...CLOSED,
    decision: true,
    ...statement('No copyright, bound by a contract', 'no copyright, bound by a contract', 'NoC-CR'),
    owesCredit: 'asked',
  },
  'no-copyright-other-law': {
    ...CLOSED,
    decision: true,
    ...statement('No copyright, bound by another law', 'no copyright, bound by another law', 'NoC-OKLR'),
    owesCredit: 'asked',
  },
  'in-copyright': {
    ...CLOSED,
    decision: true,
    ...statement('In copyright', 'in copyright', 'InC'),
    owesCredit: 'yes',
  },
  'in-copyright-orphan': {
    ...CLOSED,
    decision: true,
    ...statement('In copyright, EU orphan work', 'in copyright, orphan work', 'InC-OW-EU'),
    owesCredit: 'yes',
  },
  'in-copyright-holder-unknown': {
    ...CLOSED,
    decision: true,
    ...statement('In copyright, holder not found', 'in copyright, holder not found', 'InC-RUU'),
    owesCredit: 'yes',
  },
  'in-copyright-educational': {
    ...FREE,
    educationalOnly: true,
    commercial: false,
    ...statement('In copyright, educational use', 'in copyright, educational use', 'InC-EDU'),
    owesCredit: 'yes',
  },
  'in-copyright-non-commercial': {
    ...FREE,
    commercial: false,
    ...statement('In copyright, non-commercial use', 'in copyright, non-commercial use', 'InC-NC'),
    owesCredit: 'yes',
  },
  undetermined: {
    ...CLOSED,
    decision: true,
    ...statement('Copyright undetermined', 'copyright undetermined', 'UND'),
    owesCredit: 'asked',
  },
  'not-evaluated': {
    ...CLOSED,
    decision: true,
    ...statement('Copyright not evaluated', 'copyright not evaluated', 'CNE'),
    owesCredit: 'asked',
  },
} as const satisfies Record<string, LicenceTerms>;

export type LicenceId = keyof typeof LICENCES;

export const LICENCE_IDS = Object.keys(LICENCES).filter(isLicenceId);

/** The licences as a list offers them, in groups that a person looks in. */
export const LICENCE_GROUPS: readonly (readonly [name: string, ids: readonly LicenceId[]])[] = [
  ['Ours', ['own', 'hire', 'permission', 'agency']],
  ['Shown by its host', ['not-copied']],
  ['Free', ['cc0', 'pdm', 'no-known-copyright']],
  ...CC_VERSIONS.map(
    (version) =>
      [`Creative Commons ${version}`, LICENCE_IDS.filter((id) => id.endsWith(`-${version}`))] as const,
  ),
  [
    'Not for every use',
    [
      'no-copyright-non-commercial',
      'no-copyright-us',
      'in-copyright-non-commercial',
      'in-copyright-educational',
    ],
  ],
  [
    'Not to be used, or with a decision first',
    [
      'unknown',
      'comp',
      'copyright',
      'in-copyright',
      'in-copyright-orphan',
      'in-copyright-holder-unknown',
      'no-copyright-contract',
      'no-copyright-other-law',
      'undetermined',
      'not-evaluated',
    ],
  ],
];

export function isLicenceId(id: string): id is LicenceId {
  return Object.hasOwn(LICENCES, id);
}

/** Whether a licence is one of the catalogue's, and so can be chosen by itself. */
export const isCatalogued = (id: LicenceId): boolean => id !== 'house';

/** Whether a licence can be said of anything that is held as a file: all but the one of what is not copied. */
export function isOfCopies(id: LicenceId): boolean {
  return id !== 'not-copied';
}

export function licenceTerms(id: LicenceId): LicenceTerms {
  return LICENCES[id];
}
