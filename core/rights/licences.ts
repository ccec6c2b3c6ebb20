/** What a licence says, in the terms a page needs. `owesCredit`: 'asked' is a courtesy, 'house' as the house rules say. */
export interface LicenceTerms {
  readonly name: string;
  /** The short form for a credit line. */
  readonly short: string;
  readonly address: string | null;
  readonly publish: boolean;
  readonly commercial: boolean;
  readonly allowsDerivatives: boolean;
  readonly owesCredit: 'yes' | 'asked' | 'house' | 'no';
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
const CC_VERSIONS = ['4.0', '3.0', '2.5', '2.0'] as const;
type CcVersion = (typeof CC_VERSIONS)[number];

function creativeCommons(code: CcCode, version: CcVersion): LicenceTerms {
  const name = code.toUpperCase();
  return {
    name: `Creative Commons ${name} ${version}`,
    short: `CC ${name} ${version}`,
    address: `${CC}/licenses/${code}/${version}/`,
    publish: true,
    ...CC_CODES[code],
    owesCredit: 'yes',
    // CC BY 4.0 s3(a)(1)(B) and 3.0 s4(b): say if it was modified; 2.x: for adaptations, which a crop is.
    sayChanges: true,
    shareAlike: code.endsWith('-sa'),
    // CC BY 2.0 to 3.0 s4(b): the title if supplied; 4.0 no longer asks for it.
    titleInCredit: version === '4.0' ? 'wished' : 'yes',
  };
}

const FREE = {
  publish: true,
  commercial: true,
  allowsDerivatives: true,
  sayChanges: false,
  shareAlike: false,
} as const;
const CLOSED = {
  publish: false,
  commercial: false,
  allowsDerivatives: false,
  sayChanges: false,
  shareAlike: false,
} as const;

/** Every licence of Creative Commons in each version in use, newest first. */
const CREATIVE_COMMONS = {
  'cc-by-4.0': creativeCommons('by', '4.0'),
  'cc-by-sa-4.0': creativeCommons('by-sa', '4.0'),
  'cc-by-nd-4.0': creativeCommons('by-nd', '4.0'),
  'cc-by-nc-4.0': creativeCommons('by-nc', '4.0'),
  'cc-by-nc-sa-4.0': creativeCommons('by-nc-sa', '4.0'),
  'cc-by-nc-nd-4.0': creativeCommons('by-nc-nd', '4.0'),
  'cc-by-3.0': creativeCommons('by', '3.0'),
  'cc-by-sa-3.0': creativeCommons('by-sa', '3.0'),
  'cc-by-nd-3.0': creativeCommons('by-nd', '3.0'),
  'cc-by-nc-3.0': creativeCommons('by-nc', '3.0'),
  'cc-by-nc-sa-3.0': creativeCommons('by-nc-sa', '3.0'),
  'cc-by-nc-nd-3.0': creativeCommons('by-nc-nd', '3.0'),
  'cc-by-2.5': creativeCommons('by', '2.5'),
  'cc-by-sa-2.5': creativeCommons('by-sa', '2.5'),
  'cc-by-nd-2.5': creativeCommons('by-nd', '2.5'),
  'cc-by-nc-2.5': creativeCommons('by-nc', '2.5'),
  'cc-by-nc-sa-2.5': creativeCommons('by-nc-sa', '2.5'),
  'cc-by-nc-nd-2.5': creativeCommons('by-nc-nd', '2.5'),
  'cc-by-2.0': creativeCommons('by', '2.0'),
  'cc-by-sa-2.0': creativeCommons('by-sa', '2.0'),
  'cc-by-nd-2.0': creativeCommons('by-nd', '2.0'),
  'cc-by-nc-2.0': creativeCommons('by-nc', '2.0'),
  'cc-by-nc-sa-2.0': creativeCommons('by-nc-sa', '2.0'),
  'cc-by-nc-nd-2.0': creativeCommons('by-nc-nd', '2.0'),
} as const;

/** Every licence a piece can have. The legal codes of Creative Commons and RightsStatements.org are the source. */
const LICENCES = {
  unknown: {
    ...CLOSED,
    name: 'Not known yet',
    short: 'licence not known',
    address: null,
    owesCredit: 'house',
    titleInCredit: 'no',
  },
  own: {
    ...FREE,
    name: 'Our own work',
    short: 'own work',
    address: null,
    owesCredit: 'house',
    titleInCredit: 'no',
  },
  hire: {
    ...FREE,
    name: 'Made for us (work for hire)',
    short: 'made for us',
    address: null,
    owesCredit: 'house',
    titleInCredit: 'no',
  },
  // Only for an embed whose poster was drawn here: its host shows it, and no file of it is held.
  'not-copied': {
    ...FREE,
    name: 'None needed: nothing of it is copied',
    short: 'nothing copied',
    address: null,
    owesCredit: 'no',
    titleInCredit: 'no',
  },
  cc0: {
    ...FREE,
    name: 'CC0 1.0, no rights reserved',
    short: 'CC0 1.0',
    address: `${CC}/publicdomain/zero/1.0/`,
    owesCredit: 'asked',
    titleInCredit: 'no',
  },
  pdm: {
    ...FREE,
    name: 'Public Domain Mark 1.0',
    short: 'public domain',
    address: `${CC}/publicdomain/mark/1.0/`,
    owesCredit: 'asked',
    titleInCredit: 'no',
  },
  ...CREATIVE_COMMONS,
  permission: {
    ...FREE,
    name: 'Permission on file',
    short: 'used by permission',
    address: null,
    owesCredit: 'yes',
    titleInCredit: 'no',
  },
  agency: {
    ...FREE,
    name: 'Agency licence, bought',
    short: 'agency licence',
    address: null,
    owesCredit: 'yes',
    titleInCredit: 'no',
  },
  comp: {
    ...CLOSED,
    name: 'Comp, not bought',
    short: 'comp',
    address: null,
    owesCredit: 'yes',
    titleInCredit: 'no',
  },
  copyright: {
    ...CLOSED,
    name: 'In copyright, no permission',
    short: 'all rights reserved',
    address: null,
    owesCredit: 'yes',
    titleInCredit: 'no',
  },
  'no-known-copyright': {
    ...FREE,
    name: 'No known copyright (rights statement)',
    short: 'no known copyright',
    address: 'https://rightsstatements.org/vocab/NKC/1.0/',
    owesCredit: 'asked',
    titleInCredit: 'no',
  },
  'no-copyright-non-commercial': {
    ...FREE,
    commercial: false,
    name: 'No copyright, non-commercial use only (rights statement)',
    short: 'no copyright, non-commercial only',
    address: 'https://rightsstatements.org/vocab/NoC-NC/1.0/',
    owesCredit: 'asked',
    titleInCredit: 'no',
  },
  'in-copyright': {
    ...CLOSED,
    name: 'In copyright (rights statement)',
    short: 'in copyright',
    address: 'https://rightsstatements.org/vocab/InC/1.0/',
    owesCredit: 'yes',
    titleInCredit: 'no',
  },
  undetermined: {
    ...CLOSED,
    name: 'Copyright undetermined (rights statement)',
    short: 'copyright undetermined',
    address: 'https://rightsstatements.org/vocab/UND/1.0/',
    owesCredit: 'asked',
    titleInCredit: 'no',
  },
  'not-evaluated': {
    ...CLOSED,
    name: 'Copyright not evaluated (rights statement)',
    short: 'copyright not evaluated',
    address: 'https://rightsstatements.org/vocab/CNE/1.0/',
    owesCredit: 'asked',
    titleInCredit: 'no',
  },
  // Other countries may see it otherwise, so that a person has to decide for the place where it is published.
  'no-copyright-us': {
    ...CLOSED,
    name: 'No copyright in the United States (rights statement)',
    short: 'no copyright in the United States only',
    address: 'https://rightsstatements.org/vocab/NoC-US/1.0/',
    owesCredit: 'asked',
    titleInCredit: 'no',
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
    'Not to be used, or with a decision first',
    [
      'unknown',
      'comp',
      'copyright',
      'in-copyright',
      'no-copyright-non-commercial',
      'no-copyright-us',
      'undetermined',
      'not-evaluated',
    ],
  ],
];

export function isLicenceId(id: string): id is LicenceId {
  return Object.hasOwn(LICENCES, id);
}

/** Whether a licence can be said of anything that is held as a file: all but the one of what is not copied. */
export function isOfCopies(id: LicenceId): boolean {
  return id !== 'not-copied';
}

export function licenceTerms(id: LicenceId): LicenceTerms {
  return LICENCES[id];
}

/**
 * The licence that an address names: Creative Commons deeds and legal codes in any spelling (http or https,
 * "www.", language tails), and rights statements. Undefined for an address that names none.
 */
export function maybeLicenceByAddress(address: string): LicenceId | undefined {
  const path = /(?:creativecommons|rightsstatements)\.org\/(.+)$/i.exec(address.trim())?.[1]?.toLowerCase();
  if (!path) return undefined;
  return LICENCE_IDS.find((id) => {
    const own = LICENCES[id].address?.replace(/^https:\/\/[a-z.]+\//, '').toLowerCase();
    return own !== undefined && `${path}/`.startsWith(own);
  });
}

const NAMED = /\bcc[\s-]*(by(?:[\s-]+(?:nc|sa|nd)){0,2})[\s-]*(\d\.\d)\b/i;

/** The licence that words name, such as "CC BY-SA 4.0"; undefined unless licence and version are both said. */
export function maybeLicenceByWords(words: string): LicenceId | undefined {
  const byAddress = maybeLicenceByAddress(words);
  if (byAddress) return byAddress;
  if (/\bcc0\b/i.test(words)) return 'cc0';
  const [, code, version] = NAMED.exec(words) ?? [];
  const id = `cc-${code?.toLowerCase().replace(/[\s-]+/g, '-')}-${version}`;
  return isLicenceId(id) ? id : undefined;
}
