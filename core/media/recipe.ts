import * as v from 'valibot';
import { ColourSchema } from './colour.ts';
import { CropRectSchema } from './condition.ts';
import { type CropRect, cropInPixels, cropToRatio, type Point, type Ratio } from './crop.ts';
import type { Size } from './dimensions.ts';
import { fittedFrame, frameMirrored, frameTurnedRight } from './frame.ts';
import { type OverWords, OverWordsSchema } from './over-words.ts';
import { inSteps } from './steps.ts';
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

export const SHARPNESS_LIMIT = 100;

/** A quality of a piece's own for a format, on its encoder's scale; formats without one follow the House rules. */
const ownQuality = v.exactOptional(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100)));
const OwnQualitySchema = v.strictObject({ avif: ownQuality, webp: ownQuality, jpeg: ownQuality });

/** Steps that can be switched off and on again without being forgotten. */
const PREP_STEPS = [
  'turn',
  'straighten',
  'crop',
  'frames',
  'tone',
  'sharpness',
  'backgroundColour',
  'words',
] as const;
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
  disabledSteps: v.pipe(v.array(v.picklist(PREP_STEPS)), v.maxLength(PREP_STEPS.length)),
  // The rest is not there in recipes that were kept before it could be done.
  /** The part that is left of the picture for every use, in fractions of what straightening leaves; null for all. */
  crop: v.optional(v.nullable(CropRectSchema), null),
  sharpness: v.optional(v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(SHARPNESS_LIMIT)), 0),
  /** The colour under the transparent parts of a picture; null leaves them transparent. */
  backgroundColour: v.optional(v.nullable(ColourSchema), null),
  quality: v.optional(OwnQualitySchema, {}),
  words: v.optional(v.nullable(OverWordsSchema), null),
});
export type Prep = v.InferOutput<typeof PrepSchema>;

export const AS_IT_CAME: Prep = {
  version: 1,
  turn: 0,
  mirror: false,
  straighten: 0,
  tone: PLAIN_TONE,
  frames: [],
  disabledSteps: [],
  crop: null,
  sharpness: 0,
  backgroundColour: null,
  quality: {},
  words: null,
};

/** What of a piece decides how it is cut. `size` of the original in px as seen; `trim` leaves a baked-in border out. */
export interface Cuttable {
  readonly size: Size;
  readonly trim: CropRect | null;
  readonly prep: Prep;
  readonly focal: Point;
}

/** A shape that a whole picture is fitted into, and the colour of what is left of it. */
export interface Pad {
  readonly ratio: Ratio;
  readonly backgroundColour: string;
}

/**
 * What is done to an original to make a cut of it, in this order: trim, turn, mirror, straighten (and the largest
 * upright rectangle of what that leaves), crop, then resizing, tone, sharpness, the ground under transparent parts,
 * the pad, and the words over it. Fractions are of what the step before left.
 */
export interface Recipe {
  readonly trim: CropRect | null;
  readonly turn: Turn;
  readonly mirror: boolean;
  readonly straighten: number;
  readonly crop: CropRect | null;
  readonly tone: Tone | null;
  /** 0 to 100. */
  readonly sharpness: number;
  readonly backgroundColour: string | null;
  readonly pad: Pad | null;
  readonly words: OverWords | null;
}

export const WHOLE: Recipe = {
  trim: null,
  turn: 0,
  mirror: false,
  straighten: 0,
  crop: null,
  tone: null,
  sharpness: 0,
  backgroundColour: null,
  pad: null,
  words: null,
};

/** The recipe of a piece before it is cut to any shape, and before words go over that: what it looks like as a whole. */
export function wholeRecipe({ trim, prep }: Pick<Cuttable, 'trim' | 'prep'>): Recipe {
  const isOn = (step: PrepStep) => !prep.disabledSteps.includes(step);
  const tone = isOn('tone') && !isPlainTone(prep.tone) ? prep.tone : null;
  return {
    trim: trim && inSteps(trim),
    turn: isOn('turn') ? prep.turn : 0,
    mirror: isOn('turn') && prep.mirror,
    straighten: isOn('straighten') ? prep.straighten : 0,
    crop: isOn('crop') && prep.crop ? inSteps(prep.crop) : null,
    tone,
    sharpness: isOn('sharpness') ? prep.sharpness : 0,
    backgroundColour: isOn('backgroundColour') ? prep.backgroundColour : null,
    pad: null,
    words: null,
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
  const whole = { ...wholeRecipe(piece), words: wordsOn(piece.prep) };
  if (!ratio) return whole;
  const inner = frameIn(piece, ratio);
  return inner.width === 1 && inner.height === 1
    ? whole
    : { ...whole, crop: inSteps(within(whole.crop, inner)) };
}

/** The recipe that fits a piece whole into a shape, on a ground; without a bar where it has that shape already. */
export function fittedRecipe(piece: Pick<Cuttable, 'size' | 'trim' | 'prep'>, pad: Pad): Recipe {
  return { ...wholeRecipe(piece), pad, words: wordsOn(piece.prep) };
}

const wordsOn = ({ disabledSteps: off, words }: Prep) => (off.includes('words') ? null : words);

/** The part of a piece as a whole that is cut to a ratio: as a person framed it, else round the focal point. */
export function frameIn(piece: Cuttable, ratio: Ratio): CropRect {
  const size = wholeSize(piece);
  const framed = piece.prep.disabledSteps.includes('frames') ? undefined : frameFor(piece.prep, ratio);
  return framed ? fittedFrame(framed, size, ratio) : cropToRatio(size, ratio, focalIn(piece));
}

/** A part of a part, in fractions of what the outer one is a part of. */
function within(outer: CropRect | null, inner: CropRect): CropRect {
  if (!outer) return inner;
  return {
    left: outer.left + inner.left * outer.width,
    top: outer.top + inner.top * outer.height,
    width: inner.width * outer.width,
    height: inner.height * outer.height,
  };
}

/** The crop that a person set for a shape, or undefined. */
export function frameFor(prep: Prep, ratio: Ratio): CropRect | undefined {
  const same = (other: Ratio) => other.across * ratio.down === ratio.across * other.down;
  return prep.frames.find((frame) => same(frame.ratio))?.crop;
}

/** A prep as it was changed from `before`: a step that is switched off and now changed is switched on by that. */
export function awakened(before: Prep, next: Prep): Prep {
  const dataOf = ({ turn, mirror, ...rest }: Prep, step: PrepStep) =>
    JSON.stringify(step === 'turn' ? [turn, mirror] : rest[step]);
  return {
    ...next,
    disabledSteps: next.disabledSteps.filter((step) => dataOf(before, step) === dataOf(next, step)),
  };
}

/** A prep turned on by a quarter as it is seen; what was framed by hand turns with it. */
export function turnedPrep(prep: Prep, way: 'left' | 'right'): Prep {
  // A picture that is mirrored after its turn is seen to turn the other way.
  const quarters = (way === 'right') === prep.mirror ? 270 : 90;
  const turn = TURNS.find((each) => each === (prep.turn + quarters) % 360) ?? 0;
  const right = frameTurnedRight;
  const turned = (crop: CropRect) => (way === 'right' ? right(crop) : right(right(right(crop))));
  return {
    ...prep,
    turn,
    crop: prep.crop && turned(prep.crop),
    frames: prep.frames.map((frame) => ({ ...frame, crop: turned(frame.crop) })),
  };
}

/** A prep mirrored left to right; what was framed by hand, and the slope that was straightened, are mirrored with it. */
export function mirroredPrep(prep: Prep): Prep {
  const frames = prep.frames.map((frame) => ({ ...frame, crop: frameMirrored(frame.crop) }));
  return {
    ...prep,
    mirror: !prep.mirror,
    straighten: prep.straighten === 0 ? 0 : -prep.straighten,
    crop: prep.crop && frameMirrored(prep.crop),
    frames,
  };
}

const ALL: CropRect = { left: 0, top: 0, width: 1, height: 1 };

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
  const crop = recipe.crop ?? ALL;
  const [fx, fy] = [crop.left + seen.x * crop.width, crop.top + seen.y * crop.height];
  // Back through the steps, in px from the middle of what each of them left.
  const [ix, iy] = [(fx - 0.5) * inner.width, (fy - 0.5) * inner.height];
  const [sx, sy] = rotated(ix, iy, -recipe.straighten / 10);
  const mirrored = recipe.mirror ? -sx : sx;
  const [tx, ty] = rotated(mirrored, sy, -recipe.turn);
  const within = { x: tx / trimmed.width + 0.5, y: ty / trimmed.height + 0.5 };
  const trim = recipe.trim ?? ALL;
  return clampedPoint({ x: trim.left + within.x * trim.width, y: trim.top + within.y * trim.height });
}

function forward(piece: Cuttable, point: Point): Point {
  const recipe = wholeRecipe(piece);
  const trim = recipe.trim ?? ALL;
  const trimmed = trimmedSize(piece.size, recipe.trim);
  const turned = turnedSize(trimmed, recipe.turn);
  const inner = innerSize(turned, recipe.straighten / 10);
  const [x, y] = [
    ((point.x - trim.left) / trim.width - 0.5) * trimmed.width,
    ((point.y - trim.top) / trim.height - 0.5) * trimmed.height,
  ];
  const [tx, ty] = rotated(x, y, recipe.turn);
  const [sx, sy] = rotated(recipe.mirror ? -tx : tx, ty, recipe.straighten / 10);
  const crop = recipe.crop ?? ALL;
  return {
    x: (sx / inner.width + 0.5 - crop.left) / crop.width,
    y: (sy / inner.height + 0.5 - crop.top) / crop.height,
  };
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
  const cropped = recipe.crop ? sizeOf(inner, recipe.crop) : inner;
  return recipe.pad ? paddedSize(cropped, recipe.pad.ratio) : cropped;
}

/** The smallest size of a ratio, in whole px, that holds a picture whole. */
function paddedSize({ width, height }: Size, { across, down }: Ratio): Size {
  return width * down >= height * across
    ? { width, height: Math.max(height, Math.round((width * down) / across)) }
    : { width: Math.max(width, Math.round((height * across) / down)), height };
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
