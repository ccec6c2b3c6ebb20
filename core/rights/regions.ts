import * as v from 'valibot';

/** Members of the regions that agreements name: the European Union, and Europe as UN M49 150 has it. */
const EU = 'AT BE BG HR CY CZ DK EE FI FR DE GR HU IE IT LV LT LU MT NL PL PT RO SK SI ES SE'.split(' ');
const MEMBERS: Readonly<Record<string, readonly string[]>> = {
  EU,
  '150': [
    ...EU.filter((code) => code !== 'CY'),
    ...'AX AL AD BY BA FO GI GG VA IS IM JE LI MK MD MC ME NO RU SM RS SJ CH UA GB'.split(' '),
  ],
};

/** A country (ISO 3166-1 alpha-2), the European Union (EU), or Europe (UN M49 150). */
export const RegionSchema = v.pipe(
  v.string(),
  v.trim(),
  v.toUpperCase(),
  v.regex(/^(?:[A-Z]{2}|150)$/, 'A country is written by its two letters, as GB; Europe as 150.'),
);
export const RegionsSchema = v.pipe(v.array(RegionSchema), v.maxLength(60, 'At most 60 countries fit here.'));

const countriesOf = (regions: readonly string[]): ReadonlySet<string> =>
  new Set(regions.flatMap((region) => MEMBERS[region] ?? [region]));

/**
 * Whether everywhere in `place` is in `agreed`. Both are lists of regions, and an empty one is the whole world: no list of
 * countries is the world.
 */
export function isWithin(place: readonly string[], agreed: readonly string[]): boolean {
  if (agreed.length === 0) return true;
  if (place.length === 0) return false;
  const allowed = countriesOf(agreed);
  return [...countriesOf(place)].every((country) => allowed.has(country));
}

const countries = new Intl.DisplayNames('en-GB', { type: 'region', fallback: 'code' });
/** Browsers name countries, and not all of them what holds several. */
const NAMES: Readonly<Record<string, string>> = { EU: 'European Union', '150': 'Europe' };
const nameOf = (code: string): string => NAMES[code] ?? countries.of(code) ?? code;
const list = new Intl.ListFormat('en-GB');

/** Names that a sentence says with their article. */
const WITH_ARTICLE: ReadonlySet<string> = new Set(
  'AE BS CF DO EU FK FO GB GM IM KY MH MV NL PH SB SC US'.split(' '),
);

/** Regions in words: "Europe", "Ireland and the United Kingdom"; "everywhere" for none. */
export function sayRegions(regions: readonly string[]): string {
  if (regions.length === 0) return 'everywhere';
  return list.format(regions.map((region) => `${WITH_ARTICLE.has(region) ? 'the ' : ''}${nameOf(region)}`));
}

/** What people write for regions, besides their names and letters. */
const ALSO: Readonly<Record<string, string>> = {
  europe: '150',
  uk: 'GB',
  'great britain': 'GB',
  'the united kingdom': 'GB',
  usa: 'US',
  'the united states': 'US',
  'european union': 'EU',
  'the european union': 'EU',
};
const EVERYWHERE = new Set(['', 'everywhere', 'world', 'worldwide', 'the world']);

/** Codes by names in English, made once when somebody writes a name. */
let byName: ReadonlyMap<string, string> | null = null;

function codesByName(): ReadonlyMap<string, string> {
  if (byName) return byName;
  const letters = Array.from({ length: 26 }, (_, at) => String.fromCharCode(65 + at));
  const codes = letters.flatMap((one) => letters.map((other) => one + other));
  const named = codes.flatMap((code) => {
    const name = nameOf(code);
    return name !== code && canonical(code) === code ? [[name.toLowerCase(), code] as const] : [];
  });
  byName = new Map([...named, ...Object.entries(ALSO)]);
  return byName;
}

/**
 * Regions as people write them: "Europe, Ireland, US". What is no region is told, and none is made of it; the empty text and
 * "worldwide" are no restriction.
 */
export function readRegions(text: string): {
  readonly regions: readonly string[];
  readonly unknown: readonly string[];
} {
  if (EVERYWHERE.has(text.trim().toLowerCase())) return { regions: [], unknown: [] };
  const regions: string[] = [];
  const unknown: string[] = [];
  for (const word of text.split(/[,;]| and /).map((one) => one.trim())) {
    if (word === '') continue;
    const code =
      codesByName().get(word.toLowerCase()) ??
      (isRegion(word.toUpperCase()) ? canonical(word.toUpperCase()) : null);
    if (code === null) unknown.push(word);
    else if (!regions.includes(code)) regions.push(code);
  }
  return { regions, unknown };
}

/** The letters that a country has today: UK, as people write it, is GB. */
const canonical = (code: string): string => new Intl.Locale(`und-${code}`).region ?? code;

const isRegion = (code: string): boolean => /^(?:[A-Z]{2}|150)$/.test(code) && nameOf(code) !== code;

/** Regions as they are written in a field, to be read by `readRegions` again. */
export const writeRegions = (regions: readonly string[]): string =>
  regions.map((region) => nameOf(region)).join(', ');
