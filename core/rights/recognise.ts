import { isLicenceId, LICENCE_IDS, type LicenceId, licenceTerms } from './licences.ts';

const SITE = /(?:creativecommons|rightsstatements)\.org\/([a-z0-9./_-]{1,200})/i;

/**
 * The licence that an address names: Creative Commons deeds and legal codes in any spelling (http or https,
 * "www.", ports, language tails), and rights statements. Undefined for an address that names none.
 */
export function maybeLicenceByAddress(address: string): LicenceId | undefined {
  const path = SITE.exec(address.trim())?.[1]?.toLowerCase();
  if (!path) return undefined;
  // Statements have a page to read beside the address that names them.
  const named = `${path.replace(/^page\//, 'vocab/')}/`;
  return LICENCE_IDS.find((id) => {
    const own = pathOf(licenceTerms(id).address);
    return own !== null && named.startsWith(own);
  });
}

const pathOf = (address: string | null): string | null =>
  address?.replace(/^https:\/\/[a-z.]+\//, '').toLowerCase() ?? null;

/**
 * The port of a Creative Commons licence to the law of a country that an address names, as "de" in ".../by/3.0/de/"; null for
 * none. There are ports of 2.0 to 3.0; what stands there for 4.0 is the language of the deed.
 */
export function maybePort(address: string): string | null {
  const [, version, tail] =
    /\/licenses\/[a-z-]{2,12}\/(\d\.\d)\/([a-z]{2}|igo|scotland)(?:\/|$)/i.exec(address) ?? [];
  return version === undefined || tail === undefined || version === '4.0' ? null : tail.toLowerCase();
}

/** The parts of a licence's name as people and programs write them, in the languages that pictures come in. */
const PARTS: readonly (readonly [part: 'by' | 'nc' | 'nd' | 'sa', words: RegExp])[] = [
  ['by', /\b(?:by|attribution|namensnennung|atribuci[oó]n|attribuzione|naamsvermelding|paternit[eé])\b/iu],
  [
    'nc',
    /\b(?:nc|non[\s-]?commercial|nicht[\s-]?kommerziell|pas d[’']utilisation commerciale|no[\s-]?comercial)\b/iu,
  ],
  [
    'nd',
    /\b(?:nd|no[\s-]?deriv(?:s|atives|ative works)?|keine bearbeitungen?|pas de modification|sin[\s-]?obra[\s-]?derivada)\b/iu,
  ],
  [
    'sa',
    /\b(?:sa|share[\s-]?alike|weitergabe unter gleichen bedingungen|partage (?:dans les m[eê]mes conditions|[aà] l[’']identique)|compartir[\s-]?igual)\b/iu,
  ],
];
const OF_CC =
  /\bcc[\s-]?(?:by|attribution)|creative[\s-]?commons|\bnamensnennung\b|\battribution\b.{0,60}\b(?:international|unported|generic)\b/iu;
const VERSION = /(?<![\d.])([1-4]\.\d)(?![\d.])/;

/** Longer than any name of a licence: what follows is something else. */
const MOST_LETTERS = 2000;

/**
 * The licence that words name, such as "CC BY-SA 4.0", "CC-BY-4.0" (SPDX) or "Creative Commons Attribution-ShareAlike 4.0
 * International"; undefined unless licence and version are both said, or where several are.
 */
export function maybeLicenceByWords(text: string): LicenceId | undefined {
  const words = text.slice(0, MOST_LETTERS);
  const byAddress = maybeLicenceByAddress(words);
  if (byAddress) return byAddress;
  if (/\bcc[\s-]?0\b|\bcc zero\b/iu.test(words)) return 'cc0';
  if (/\bpublic domain mark\b|\bcc-pdm-1\.0\b/iu.test(words)) return 'pdm';
  const spdx = LICENCE_IDS.find((id) => licenceTerms(id).spdx?.toLowerCase() === words.trim().toLowerCase());
  if (spdx) return spdx;
  if (OF_CC.test(words)) return ccBy(words);
  return byStatement(words);
}

function ccBy(words: string): LicenceId | undefined {
  const [, version] = VERSION.exec(words) ?? [];
  const code = PARTS.filter(([, one]) => one.test(words.replaceAll('_', '-')))
    .map(([part]) => part)
    .sort((one, other) => ORDER.indexOf(one) - ORDER.indexOf(other))
    .join('-');
  const id = `cc-${code}-${version}`;
  return isLicenceId(id) ? id : undefined;
}

const ORDER = ['by', 'nc', 'sa', 'nd'];

/** Statements by their names, where nothing else is said: "In Copyright", "No Known Copyright". */
const STATEMENTS: Readonly<Record<string, LicenceId>> = {
  'in copyright': 'in-copyright',
  'in copyright - eu orphan work': 'in-copyright-orphan',
  'in copyright - educational use permitted': 'in-copyright-educational',
  'in copyright - non-commercial use permitted': 'in-copyright-non-commercial',
  'in copyright - rights-holder(s) unlocatable or unidentifiable': 'in-copyright-holder-unknown',
  'no copyright - contractual restrictions': 'no-copyright-contract',
  'no copyright - non-commercial use only': 'no-copyright-non-commercial',
  'no copyright - other known legal restrictions': 'no-copyright-other-law',
  'no copyright - united states': 'no-copyright-us',
  'copyright not evaluated': 'not-evaluated',
  'copyright undetermined': 'undetermined',
  'no known copyright': 'no-known-copyright',
  'no known copyright restrictions': 'no-known-copyright',
};

function byStatement(words: string): LicenceId | undefined {
  const plain = words
    .trim()
    .toLowerCase()
    .replace(/\s+/g, ' ')
    .replace(/\s[–—-]\s/g, ' - ')
    .replace(/\.$/, '');
  return Object.hasOwn(STATEMENTS, plain) ? STATEMENTS[plain] : undefined;
}
