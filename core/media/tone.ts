import * as v from 'valibot';

const step = v.pipe(v.number(), v.integer(), v.minValue(-100), v.maxValue(100));
const ink = v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/));

/**
 * What is done to a picture's tone: steps from -100 to 100, 0 for none; in black and white or not; two inks in the
 * place of black and white, as colours "#rrggbb", or null.
 */
export const ToneSchema = v.strictObject({
  light: step,
  contrast: step,
  colour: step,
  warmth: step,
  monochrome: v.boolean(),
  inks: v.nullable(v.strictObject({ dark: ink, light: ink })),
});
export type Tone = v.InferOutput<typeof ToneSchema>;

export const PLAIN_TONE: Tone = {
  light: 0,
  contrast: 0,
  colour: 0,
  warmth: 0,
  monochrome: false,
  inks: null,
};

export function isPlainTone(tone: Tone): boolean {
  return (
    tone.light === 0 &&
    tone.contrast === 0 &&
    tone.colour === 0 &&
    tone.warmth === 0 &&
    !tone.monochrome &&
    tone.inks === null
  );
}

type Row = readonly [red: number, green: number, blue: number, add: number];
/** One change of colour: each new channel as shares of the old ones and a part of white, all on a scale of 0 to 1. */
export type ColourMatrix = readonly [Row, Row, Row];

const SAME: ColourMatrix = [
  [1, 0, 0, 0],
  [0, 1, 0, 0],
  [0, 0, 1, 0],
];

/** Luma weights of ITU-R BT.709. */
const LUMA = [0.2126, 0.7152, 0.0722] as const;

/** Full steps move light by a quarter of the range, contrast and colour by as much again, warmth by an eighth. */
const LIGHT_REACH = 0.25;
const WARMTH_REACH = 0.125;

/**
 * A tone as one matrix on sRGB values, so that the browser (an SVG colour matrix) and the server (sharp) do the very
 * same arithmetic: colour and warmth first, then contrast round middle grey, then light, then inks.
 */
export function toneMatrix(tone: Tone): ColourMatrix {
  const steps = [
    saturation(tone.monochrome || tone.inks ? 0 : 1 + tone.colour / 100),
    warmth(tone.warmth / 100),
    contrast(1 + tone.contrast / 100),
    lightness((tone.light / 100) * LIGHT_REACH),
    ...(tone.inks ? [inked(tone.inks.dark, tone.inks.light)] : []),
  ];
  return steps.reduce(after, SAME);
}

/** The matrix that does `first` and then `next`. */
function after(first: ColourMatrix, next: ColourMatrix): ColourMatrix {
  const row = (at: 0 | 1 | 2): Row => {
    const [r, g, b, add] = next[at];
    const mix = (column: 0 | 1 | 2 | 3) =>
      r * first[0][column] + g * first[1][column] + b * first[2][column] + (column === 3 ? add : 0);
    return [mix(0), mix(1), mix(2), mix(3)];
  };
  return [row(0), row(1), row(2)];
}

function saturation(amount: number): ColourMatrix {
  const row = (at: number): Row => {
    const share = (column: number) => (LUMA[column] ?? 0) * (1 - amount) + (column === at ? amount : 0);
    return [share(0), share(1), share(2), 0];
  };
  return [row(0), row(1), row(2)];
}

function warmth(amount: number): ColourMatrix {
  const by = amount * WARMTH_REACH;
  return [
    [1 + by, 0, 0, 0],
    [0, 1, 0, 0],
    [0, 0, 1 - by, 0],
  ];
}

function contrast(amount: number): ColourMatrix {
  const add = 0.5 * (1 - amount);
  return [
    [amount, 0, 0, add],
    [0, amount, 0, add],
    [0, 0, amount, add],
  ];
}

function lightness(add: number): ColourMatrix {
  return [
    [1, 0, 0, add],
    [0, 1, 0, add],
    [0, 0, 1, add],
  ];
}

/** Grey as a mixture of two inks: black becomes the dark one, white the light one. */
function inked(dark: string, light: string): ColourMatrix {
  const row = (at: number): Row => {
    const [from, to] = [channel(dark, at), channel(light, at)];
    const reach = to - from;
    return [reach * LUMA[0], reach * LUMA[1], reach * LUMA[2], from];
  };
  return [row(0), row(1), row(2)];
}

const channel = (colour: string, at: number) =>
  Number.parseInt(colour.slice(1 + at * 2, 3 + at * 2), 16) / 255;

/** The matrix as SVG's `feColorMatrix` wants it: four rows of five, alpha left as it is (Filter Effects, 9.4). */
export function svgMatrix(matrix: ColourMatrix): string {
  return [...matrix.map(([r, g, b, add]) => `${r} ${g} ${b} 0 ${add}`), '0 0 0 1 0'].join(' ');
}

/** A tone in words: "lighter by 8, less colour by 4". Empty for none. */
export function sayTone(tone: Tone): string {
  const say = (value: number, more: string, less: string) =>
    value === 0 ? '' : `${value > 0 ? more : less} by ${Math.abs(value)}`;
  return [
    say(tone.light, 'lighter', 'darker'),
    say(tone.contrast, 'more contrast', 'less contrast'),
    tone.monochrome || tone.inks ? '' : say(tone.colour, 'more colour', 'less colour'),
    say(tone.warmth, 'warmer', 'cooler'),
    tone.inks ? 'in two inks' : tone.monochrome ? 'in black and white' : '',
  ]
    .filter(Boolean)
    .join(', ');
}

/** How much a px is drawn away from its four neighbours at full sharpness. */
const FULL_SHARPNESS = 0.6;

/**
 * The 3 x 3 kernel, row by row, that sharpens a picture at the size at which it is shown: an unsharp mask against the
 * four neighbours. Its sum is 1, so that nothing gets lighter or darker. `sharpness` is 0 to 100.
 */
export function sharpKernel(sharpness: number): readonly number[] {
  const away = (sharpness / 100) * FULL_SHARPNESS;
  return [0, -away, 0, -away, 1 + 4 * away, -away, 0, -away, 0];
}
