/** What a licence says, in the terms a page needs. `owesCredit`: 'asked' is a courtesy, 'recorded' per piece. */
export interface LicenceTerms {
  readonly name: string;
  /** The short form for a credit line. */
  readonly short: string;
  readonly address: string | null;
  readonly publish: boolean;
  readonly commercial: boolean;
  readonly change: boolean;
  readonly owesCredit: 'yes' | 'asked' | 'house';
  readonly sayChanges: boolean;
  readonly sameLicence: boolean;
  readonly titleInCredit: 'no' | 'wished' | 'yes';
}

const CC = 'https://creativecommons.org';

function creativeCommons(
  code: string,
  version: string,
  terms: { commercial: boolean; change: boolean },
): LicenceTerms {
  return {
    name: `Creative Commons ${code} ${version}`,
    short: `CC ${code} ${version}`,
    address: `${CC}/licenses/${code.toLowerCase()}/${version}/`,
    publish: true,
    commercial: terms.commercial,
    change: terms.change,
    owesCredit: 'yes',
    // CC BY 4.0 s3(a)(1)(B) and 3.0 s4(b): say if it was modified; 2.x: for adaptations, which a crop is.
    sayChanges: true,
    sameLicence: code.endsWith('SA'),
    // CC BY 2.0 to 3.0 s4(b): the title if supplied; 4.0 no longer asks for it.
    titleInCredit: version === '4.0' ? 'wished' : 'yes',
  };
}

const FREE = {
  publish: true,
  commercial: true,
  change: true,
  sayChanges: false,
  sameLicence: false,
} as const;
const CLOSED = {
  publish: false,
  commercial: false,
  change: false,
  sayChanges: false,
  sameLicence: false,
} as const;
const ANY = { commercial: true, change: true };
const NO_CHANGE = { commercial: true, change: false };
const NOT_COMMERCIAL = { commercial: false, change: true };
const NEITHER = { commercial: false, change: false };

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
  'cc-by-4.0': creativeCommons('BY', '4.0', ANY),
  'cc-by-3.0': creativeCommons('BY', '3.0', ANY),
  'cc-by-2.5': creativeCommons('BY', '2.5', ANY),
  'cc-by-2.0': creativeCommons('BY', '2.0', ANY),
  'cc-by-sa-4.0': creativeCommons('BY-SA', '4.0', ANY),
  'cc-by-sa-3.0': creativeCommons('BY-SA', '3.0', ANY),
  'cc-by-nd-4.0': creativeCommons('BY-ND', '4.0', NO_CHANGE),
  'cc-by-nc-4.0': creativeCommons('BY-NC', '4.0', NOT_COMMERCIAL),
  'cc-by-nc-sa-4.0': creativeCommons('BY-NC-SA', '4.0', NOT_COMMERCIAL),
  'cc-by-nc-nd-4.0': creativeCommons('BY-NC-ND', '4.0', NEITHER),
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
} as const satisfies Record<string, LicenceTerms>;

export type LicenceId = keyof typeof LICENCES;

export const LICENCE_IDS = Object.keys(LICENCES).filter(isLicenceId);

export function isLicenceId(id: string): id is LicenceId {
  return Object.hasOwn(LICENCES, id);
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
