import * as v from 'valibot';
import { CropRectSchema } from './condition.ts';
import { type CropRect, cropInPixels, cropToRatio, type Point, type Ratio } from './crop.ts';
import type { Size } from './dimensions.ts';
import { fittedFrame, frameMirrored, frameTurnedRight } from './frame.ts';
import { isPlainTone, PLAIN_TONE, type Tone, ToneSchema } from './tone.ts';

export const TURNS = [0, 90, 180, 270] as const;
export type Turn = (typeof TURNS)[number];

/** Straightening beyond this many tenths of a degree is a turn. */
export const STRAIGHTEN_LIMIT = 150;

const ratioPart = v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100));
const FrameSchema = v.strictObject({
  ratio: v.strictObject({ across: ratioPart, down: ratioPart }),
  crop: CropRectSchema,
});

/** A quality of a piece's own for a format, on its encoder's scale; formats without one follow the House rules. */
const ownQuality = v.exactOptional(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100)));
const OwnQualitySchema = v.strictObject({ avif: ownQuality, webp: ownQuality, jpeg: ownQuality });
export type OwnQuality = v.InferOutput<typeof OwnQualitySchema>;

/** Steps that can be switched off and on again without being forgotten. */
const PREP_STEPS = ['turn', 'straighten', 'tone', 'frames'] as const;
export type PrepStep = (typeof PREP_STEPS)[number];

/**
 * What is done to a piece wherever it is shown, as data. `straighten` in tenths of a degree, clockwise.
 * `frames` are crops that a person set for a shape; other shapes follow the focal point. The version lets a recipe
 * made by a newer Placard be told from a broken one.
 */
export const PrepSchema = v.strictObject({
  version: v.literal(1),
  turn: v.picklist(TURNS),
  mirror: v.boolean(),
  straighten: v.pipe(v.number(), v.integer(), v.minValue(-STRAIGHTEN_LIMIT), v.maxValue(STRAIGHTEN_LIMIT)),
  tone: ToneSchema,
  frames: v.pipe(v.array(FrameSchema), v.maxLength(40)),
  off: v.pipe(v.array(v.picklist(PREP_STEPS)), v.maxLength(PREP_STEPS.length)),
  /** Not there in recipes that were kept before pieces had a quality of their own. */
  quality: v.optional(OwnQualitySchema, {}),
});
export type Prep = v.InferOutput<typeof PrepSchema>;

export const AS_IT_CAME: Prep = {
  version: 1,
  turn: 0,
  mirror: false,
  straighten: 0,
  tone: PLAIN_TONE,
  frames: [],
  off: [],
  quality: {},
};

/** What of a piece decides how it is cut. `size` of the original in px as seen; `trim` leaves a baked-in border out. */
export interface Cuttable {
  readonly size: Size;
  readonly trim: CropRect | null;
  readonly prep: Prep;
  readonly focal: Point;
}

/**
 * What is done to an original to make a cut of it, in this order: trim, turn, mirror, straighten (and the largest
 * upright rectangle of what that leaves), crop, then resizing and tone. Fractions are of what the step before left.
 */
export interface Recipe {
  readonly trim: CropRect | null;
  readonly turn: Turn;
  readonly mirror: boolean;
  readonly straighten: number;
  readonly crop: CropRect | null;
  readonly tone: Tone | null;
}

export const WHOLE: Recipe = {
  trim: null,
  turn: 0,
  mirror: false,
  straighten: 0,
  crop: null,
  tone: null,
};

/** The recipe of a piece before any crop: what it looks like as a whole. */
export function wholeRecipe({ trim, prep }: Pick<Cuttable, 'trim' | 'prep'>): Recipe {
  const isOn = (step: PrepStep) => !prep.off.includes(step);
  const tone = isOn('tone') && !isPlainTone(prep.tone) ? prep.tone : null;
  return {
    trim: trim && inSteps(trim),
    turn: isOn('turn') ? prep.turn : 0,
    mirror: isOn('turn') && prep.mirror,
    straighten: isOn('straighten') ? prep.straighten : 0,
    crop: null,
    tone,
  };
}

/** The size in px of a piece as a whole, after its trim, turn and straightening. */
export function wholeSize(piece: Pick<Cuttable, 'size' | 'trim' | 'prep'>): Size {
  return sizeAfter(piece.size, wholeRecipe(piece));
}

/**
 * The recipe that cuts a piece to a ratio: as a person framed it for that shape, else round the focal point. For
 * `null`, the piece as a whole.
 */
export function recipeForRatio(piece: Cuttable, ratio: Ratio | null): Recipe {
  const whole = wholeRecipe(piece);
  if (!ratio) return whole;
  const size = sizeAfter(piece.size, whole);
  const framed = piece.prep.off.includes('frames') ? undefined : frameFor(piece.prep, ratio);
  const crop = framed ? fittedFrame(framed, size, ratio) : cropToRatio(size, ratio, focalIn(piece));
  return crop.width === 1 && crop.height === 1 ? whole : { ...whole, crop: inSteps(crop) };
}

/** The crop that a person set for a shape, or undefined. */
export function frameFor(prep: Prep, ratio: Ratio): CropRect | undefined {
  const same = (other: Ratio) => other.across * ratio.down === ratio.across * other.down;
  return prep.frames.find((frame) => same(frame.ratio))?.crop;
}

/** A prep as it was changed from `before`: a step that is switched off and now changed is switched on by that. */
export function awakened(before: Prep, next: Prep): Prep {
  const dataOf = ({ turn, mirror, straighten, tone, frames }: Prep, step: PrepStep) =>
    JSON.stringify({ turn: [turn, mirror], straighten, tone, frames }[step]);
  return { ...next, off: next.off.filter((step) => dataOf(before, step) === dataOf(next, step)) };
}

/** A prep turned on by a quarter as it is seen; what was framed by hand turns with it. */
export function turnedPrep(prep: Prep, way: 'left' | 'right'): Prep {
  // A picture that is mirrored after its turn is seen to turn the other way.
  const quarters = (way === 'right') === prep.mirror ? 270 : 90;
  const turn = TURNS.find((each) => each === (prep.turn + quarters) % 360) ?? 0;
  const right = frameTurnedRight;
  const turned = (crop: CropRect) => (way === 'right' ? right(crop) : right(right(right(crop))));
  return { ...prep, turn, frames: prep.frames.map((frame) => ({ ...frame, crop: turned(frame.crop) })) };
}

/** A prep mirrored left to right; what was framed by hand, and the slope that was straightened, are mirrored with it. */
export function mirroredPrep(prep: Prep): Prep {
  const frames = prep.frames.map((frame) => ({ ...frame, crop: frameMirrored(frame.crop) }));
  return { ...prep, mirror: !prep.mirror, straighten: prep.straighten === 0 ? 0 : -prep.straighten, frames };
}

/** The focal point in fractions of the piece as a whole, clamped to it. */
export function focalIn(piece: Cuttable): Point {
  return clampedPoint(forward(piece, piece.focal));
}

/** The point of the original that stands at a point of the piece as a whole: for setting the focal point by hand. */
export function focalOfOriginal(piece: Cuttable, seen: Point): Point {
  const recipe = wholeRecipe(piece);
  const trimmed = trimmedSize(piece.size, recipe.trim);
  const turned = turnedSize(trimmed, recipe.turn);
  const inner = innerSize(turned, recipe.straighten / 10);
  // Back through the steps, in px from the middle of what each of them left.
  const [ix, iy] = [(seen.x - 0.5) * inner.width, (seen.y - 0.5) * inner.height];
  const [sx, sy] = rotated(ix, iy, -recipe.straighten / 10);
  const mirrored = recipe.mirror ? -sx : sx;
  const [tx, ty] = rotated(mirrored, sy, -recipe.turn);
  const within = { x: tx / trimmed.width + 0.5, y: ty / trimmed.height + 0.5 };
  const trim = recipe.trim ?? { left: 0, top: 0, width: 1, height: 1 };
  return clampedPoint({ x: trim.left + within.x * trim.width, y: trim.top + within.y * trim.height });
}

function forward(piece: Cuttable, point: Point): Point {
  const recipe = wholeRecipe(piece);
  const trim = recipe.trim ?? { left: 0, top: 0, width: 1, height: 1 };
  const trimmed = trimmedSize(piece.size, recipe.trim);
  const turned = turnedSize(trimmed, recipe.turn);
  const inner = innerSize(turned, recipe.straighten / 10);
  const [x, y] = [
    ((point.x - trim.left) / trim.width - 0.5) * trimmed.width,
    ((point.y - trim.top) / trim.height - 0.5) * trimmed.height,
  ];
  const [tx, ty] = rotated(x, y, recipe.turn);
  const [sx, sy] = rotated(recipe.mirror ? -tx : tx, ty, recipe.straighten / 10);
  return { x: sx / inner.width + 0.5, y: sy / inner.height + 0.5 };
}

function rotated(x: number, y: number, degrees: number): readonly [number, number] {
  const angle = (degrees * Math.PI) / 180;
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
  return [x * cos - y * sin, x * sin + y * cos];
}

function clampedPoint({ x, y }: Point): Point {
  const clamp = (value: number) => Math.min(1, Math.max(0, value));
  return { x: clamp(x), y: clamp(y) };
}

/** The size in px of what a recipe makes of an original, before any resizing. */
export function sizeAfter(original: Size, recipe: Recipe): Size {
  const inner = innerSize(
    turnedSize(trimmedSize(original, recipe.trim), recipe.turn),
    recipe.straighten / 10,
  );
  return recipe.crop ? sizeOf(inner, recipe.crop) : inner;
}

/** The size in px of what a trim leaves; the size itself without one. */
export function trimmedSize(size: Size, trim: CropRect | null): Size {
  return trim ? sizeOf(size, trim) : size;
}

function sizeOf(size: Size, crop: CropRect): Size {
  const { width, height } = cropInPixels(size, crop);
  return { width, height };
}

export function turnedSize(size: Size, turn: Turn): Size {
  return turn === 90 || turn === 270 ? { width: size.height, height: size.width } : size;
}

/**
 * The largest upright rectangle, in whole px, inside a picture that was turned by an angle in degrees. The known
 * result for the rectangle of greatest area inside a rotated rectangle.
 */
export function innerSize(size: Size, degrees: number): Size {
  if (degrees === 0) return size;
  const angle = (Math.abs(degrees) * Math.PI) / 180;
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
  const [long, short] = [Math.max(size.width, size.height), Math.min(size.width, size.height)];
  const isWide = size.width >= size.height;
  if (short <= 2 * sin * cos * long) {
    const half = short / 2;
    return wholePixels(isWide ? half / sin : half / cos, isWide ? half / cos : half / sin);
  }
  const cosDouble = cos * cos - sin * sin;
  return wholePixels(
    (size.width * cos - size.height * sin) / cosDouble,
    (size.height * cos - size.width * sin) / cosDouble,
  );
}

function wholePixels(width: number, height: number): Size {
  return { width: Math.max(1, Math.floor(width)), height: Math.max(1, Math.floor(height)) };
}

/** Fractions are kept in steps of a millionth: far under 1 px on any original that is taken. */
const STEPS = 1_000_000;

/** A rectangle in whole steps, as its key says it: what is computed from a recipe and from its key is the same. */
function inSteps({ left, top, width, height }: CropRect): CropRect {
  const start = (fraction: number) => Math.round(fraction * STEPS);
  const extent = (fraction: number, from: number) =>
    Math.max(1, Math.min(Math.round(fraction * STEPS), STEPS - start(from)));
  return {
    left: start(left) / STEPS,
    top: start(top) / STEPS,
    width: extent(width, left) / STEPS,
    height: extent(height, top) / STEPS,
  };
}

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
    recipe.tone ? toneKey(recipe.tone) : '',
  ].filter(Boolean);
  return parts.length === 0 ? 'whole' : parts.join('.');
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
const KEY = new RegExp(
  String.raw`^(?:b${RECT}(?:\.|$))?(?:r(90|180|270)(?:\.|$))?(m(?:\.|$))?(?:s(-?\d{1,3})(?:\.|$))?(?:c${RECT}(?:\.|$))?(?:t(-?\d{1,3})_(-?\d{1,3})_(-?\d{1,3})_(-?\d{1,3})(w|i[0-9a-f]{12})?)?$`,
);

/** The recipe of a key, or undefined for anything that is not one. */
export function maybeRecipe(key: string): Recipe | undefined {
  if (key === 'whole') return WHOLE;
  const found = key === '' ? null : KEY.exec(key);
  if (!found) return undefined;
  const trim = maybeRect(found.slice(1, 5));
  const crop = maybeRect(found.slice(8, 12));
  const tone = maybeTone(found.slice(12, 17));
  const turn = TURNS.find((one) => String(one) === found[5]) ?? 0;
  const straighten = Number(found[7] ?? 0);
  if (trim === undefined || crop === undefined || tone === undefined) return undefined;
  if (Math.abs(straighten) > STRAIGHTEN_LIMIT) return undefined;
  const recipe = { trim, turn, mirror: found[6] !== undefined, straighten, crop, tone };
  // One spelling for each recipe, or the same cut would be kept twice.
  return recipeKey(recipe) === key ? recipe : undefined;
}

/** Null for no rectangle, undefined for one that is not inside the picture. */
function maybeRect(digits: readonly (string | undefined)[]): CropRect | null | undefined {
  if (digits[0] === undefined) return null;
  const [left, top, width, height] = digits.map((text) => Number(text) / STEPS);
  if (left === undefined || top === undefined || !width || !height) return undefined;
  if (left + width > 1 + 2 / STEPS || top + height > 1 + 2 / STEPS) return undefined;
  return { left, top, width: Math.min(width, 1 - left), height: Math.min(height, 1 - top) };
}

function maybeTone(said: readonly (string | undefined)[]): Tone | null | undefined {
  if (said[0] === undefined) return null;
  const [light, contrast, colour, warmth] = said.slice(0, 4).map(Number);
  const end = said[4] ?? '';
  const inks = end.startsWith('i') ? { dark: `#${end.slice(1, 7)}`, light: `#${end.slice(7)}` } : null;
  const read = v.safeParse(ToneSchema, { light, contrast, colour, warmth, monochrome: end === 'w', inks });
  return read.success ? read.output : undefined;
}

export type Change = 'cropped' | 'straightened' | 'mirrored' | 'toned';

/**
 * What a recipe changes of what is seen, which licences may forbid and credits may have to say. Turning by quarters
 * and leaving out a border that a scan or a page put round the picture take nothing of the work away, and are none.
 */
export function changesOf(recipe: Recipe): readonly Change[] {
  const changes: Change[] = [];
  if (recipe.crop) changes.push('cropped');
  if (recipe.straighten !== 0) changes.push('straightened');
  if (recipe.mirror) changes.push('mirrored');
  if (recipe.tone) changes.push('toned');
  return changes;
}

/** The steps of a prep as sentences, in the order in which they are done; those that do nothing are left out. */
export function stepsOf(
  prep: Prep,
  sayTone: (tone: Tone) => string,
): readonly { step: PrepStep; says: string }[] {
  const steps: { step: PrepStep; says: string }[] = [];
  const turned = prep.turn === 0 ? '' : `Turned by ${prep.turn}° clockwise`;
  if (turned || prep.mirror)
    steps.push({ step: 'turn', says: [turned, prep.mirror ? 'mirrored' : ''].filter(Boolean).join(' and ') });
  if (prep.straighten !== 0)
    steps.push({ step: 'straighten', says: `Straightened by ${(prep.straighten / 10).toFixed(1)}°` });
  if (prep.frames.length > 0) {
    const shapes = prep.frames.map(({ ratio }) => `${ratio.across}:${ratio.down}`).join(', ');
    steps.push({ step: 'frames', says: `Framed by hand for ${shapes}` });
  }
  if (!isPlainTone(prep.tone)) steps.push({ step: 'tone', says: `Toned: ${sayTone(prep.tone)}` });
  return steps.map(({ step, says }) => ({ step, says: `${says.charAt(0).toUpperCase()}${says.slice(1)}.` }));
}
