import * as v from 'valibot';
import type { CropRect } from './crop.ts';
import { OVER_PLACES, type OverWords, OverWordsSchema, spelled, unspelled } from './over-words.ts';
import { type Pad, type Recipe, SHARPNESS_LIMIT, STRAIGHTEN_LIMIT, TURNS, WHOLE } from './recipe.ts';
import { STEPS } from './steps.ts';
import { type Tone, ToneSchema } from './tone.ts';

/**
 * A stable short name of a recipe, safe in a path: equal recipes have equal keys, and `maybeRecipe` reads it back.
 * Serves as the recipe's hash in addresses and in the cache of cuts.
 */
export function recipeKey(recipe: Recipe): string {
  const parts = [
    recipe.trim ? `b${rectKey(recipe.trim)}` : '',
    recipe.turn === 0 ? '' : `r${recipe.turn}`,
    recipe.mirror ? 'm' : '',
    recipe.straighten === 0 ? '' : `s${recipe.straighten}`,
    recipe.crop ? `c${rectKey(recipe.crop)}` : '',
    recipe.pad
      ? `p${recipe.pad.ratio.across}-${recipe.pad.ratio.down}-${recipe.pad.backgroundColour.slice(1)}`
      : '',
    recipe.backgroundColour ? `g${recipe.backgroundColour.slice(1)}` : '',
    recipe.sharpness > 0 ? `h${recipe.sharpness}` : '',
    recipe.tone ? toneKey(recipe.tone) : '',
    recipe.words ? wordsKey(recipe.words) : '',
  ].filter(Boolean);
  return parts.length === 0 ? 'whole' : parts.join('.');
}

function wordsKey({ text, place, size, ink, plate }: OverWords): string {
  return `w${OVER_PLACES.indexOf(place)}-${size}-${ink.slice(1)}-${plate?.slice(1) ?? ''}-${spelled(text)}`;
}

function rectKey({ left, top, width, height }: CropRect): string {
  const start = [left, top].map((fraction) => Math.round(fraction * STEPS));
  const extent = [width, height].map((fraction) => Math.max(1, Math.round(fraction * STEPS)));
  return [...start, ...extent].join('-');
}

function toneKey({ light, contrast, colour, warmth, monochrome, inks }: Tone): string {
  const numbers = [light, contrast, colour, warmth].join('_');
  const inked = inks ? `i${inks.dark.slice(1)}${inks.light.slice(1)}` : monochrome ? 'w' : '';
  return `t${numbers}${inked}`;
}

const RECT = String.raw`(\d{1,7})-(\d{1,7})-(\d{1,7})-(\d{1,7})`;
/** Each part of a key with what it holds; all may be missing, and they stand in this order. */
const PARTS = {
  trim: `b${RECT}`,
  turn: 'r(90|180|270)',
  mirror: '(m)',
  straighten: String.raw`s(-?\d{1,3})`,
  crop: `c${RECT}`,
  pad: String.raw`p(\d{1,3})-(\d{1,3})-([0-9a-f]{6})`,
  ground: 'g([0-9a-f]{6})',
  sharpness: String.raw`h(\d{1,3})`,
  tone: String.raw`t(-?\d{1,3})_(-?\d{1,3})_(-?\d{1,3})_(-?\d{1,3})(w|i[0-9a-f]{12})?`,
  words: String.raw`w(\d)-(\d{1,3})-([0-9a-f]{6})-([0-9a-f]{6}|)-([A-Za-z0-9_-]{1,90})`,
} as const;
type Part = keyof typeof PARTS;

/** What stands in a key, by part; undefined when something in it is no part, or stands twice or out of order. */
function partsOf(key: string): Partial<Record<Part, readonly (string | undefined)[]>> | undefined {
  const found: Partial<Record<Part, readonly (string | undefined)[]>> = {};
  const left = key.split('.');
  for (const [part, pattern] of Object.entries(PARTS) as [Part, string][]) {
    const read = new RegExp(`^${pattern}$`).exec(left[0] ?? '');
    if (!read) continue;
    found[part] = read.slice(1);
    left.shift();
  }
  return left.length === 0 ? found : undefined;
}

/** The recipe of a key, or undefined for anything that is not one. */
export function maybeRecipe(key: string): Recipe | undefined {
  if (key === 'whole') return WHOLE;
  const found = partsOf(key);
  if (!found) return undefined;
  const [trim, crop] = [maybeRect(found.trim), maybeRect(found.crop)];
  const [tone, pad, words] = [maybeTone(found.tone), maybePad(found.pad), maybeWords(found.words)];
  const turn = TURNS.find((one) => String(one) === found.turn?.[0]) ?? 0;
  const straighten = Number(found.straighten?.[0] ?? 0);
  const sharpness = Number(found.sharpness?.[0] ?? 0);
  if (trim === undefined || crop === undefined || tone === undefined) return undefined;
  if (pad === undefined || words === undefined) return undefined;
  if (Math.abs(straighten) > STRAIGHTEN_LIMIT || sharpness > SHARPNESS_LIMIT) return undefined;
  const backgroundColour = found.ground ? `#${found.ground[0]}` : null;
  const mirror = found.mirror !== undefined;
  const recipe = { trim, turn, mirror, straighten, crop, tone, sharpness, backgroundColour, pad, words };
  // One spelling for each recipe, or the same cut would be kept twice.
  return recipeKey(recipe) === key ? recipe : undefined;
}

function maybeWords(said: readonly (string | undefined)[] | undefined): OverWords | null | undefined {
  if (!said) return null;
  const [place, size, ink, plate, text] = said;
  const read = v.safeParse(OverWordsSchema, {
    text: unspelled(text ?? ''),
    place: OVER_PLACES[Number(place)],
    size: Number(size),
    ink: `#${ink}`,
    plate: plate ? `#${plate}` : null,
  });
  return read.success ? read.output : undefined;
}

/** A shape's sides are 1 to 100. */
function maybePad(said: readonly (string | undefined)[] | undefined): Pad | null | undefined {
  if (!said) return null;
  const [across, down] = said.slice(0, 2).map(Number);
  if (!across || !down || across > 100 || down > 100) return undefined;
  return { ratio: { across, down }, backgroundColour: `#${said[2]}` };
}

/** Null for no rectangle, undefined for one that is not inside the picture. */
function maybeRect(digits: readonly (string | undefined)[] | undefined): CropRect | null | undefined {
  if (!digits) return null;
  const [left, top, width, height] = digits.map((text) => Number(text) / STEPS);
  if (left === undefined || top === undefined || !width || !height) return undefined;
  if (left + width > 1 + 2 / STEPS || top + height > 1 + 2 / STEPS) return undefined;
  return { left, top, width: Math.min(width, 1 - left), height: Math.min(height, 1 - top) };
}

function maybeTone(said: readonly (string | undefined)[] | undefined): Tone | null | undefined {
  if (!said) return null;
  const [light, contrast, colour, warmth] = said.slice(0, 4).map(Number);
  const end = said[4] ?? '';
  const inks = end.startsWith('i') ? { dark: `#${end.slice(1, 7)}`, light: `#${end.slice(7)}` } : null;
  const read = v.safeParse(ToneSchema, { light, contrast, colour, warmth, monochrome: end === 'w', inks });
  return read.success ? read.output : undefined;
}
