import * as v from 'valibot';

const name = v.pipe(
  v.string(),
  v.regex(/^[A-Za-z0-9_.~-]{1,40}$/, 'A parameter’s name has letters, digits, - and _.'),
);
const label = v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(60));
const value = v.pipe(v.string(), v.maxLength(200));

/** What a parameter does, where the same is asked for under another name elsewhere, or Placard itself makes use of it. */
const PARAMETER_ROLES = [
  'start',
  'end',
  'captions',
  'related',
  'autoplay',
  'loop',
  'muted',
  'controls',
  'fullscreen',
  'language',
  'theme',
] as const;
export type ParameterRole = (typeof PARAMETER_ROLES)[number];
const role = v.optional(v.picklist(PARAMETER_ROLES));

/**
 * One parameter in a host's addresses. `standard` is what is written when nobody has said otherwise; null leaves it out.
 * A time is in seconds in the address and "1:20" on screen.
 */
export const ParameterSchema = v.variant('type', [
  v.strictObject({ type: v.literal('time'), name, label, role, standard: v.nullable(value) }),
  v.strictObject({
    type: v.literal('switch'),
    name,
    label,
    role,
    on: value,
    off: v.nullable(value),
    standard: v.nullable(value),
  }),
  v.strictObject({
    type: v.literal('choice'),
    name,
    label,
    role,
    choices: v.pipe(v.array(v.strictObject({ value, label })), v.minLength(2), v.maxLength(20)),
    standard: v.nullable(value),
  }),
  v.strictObject({ type: v.literal('text'), name, label, role, standard: v.nullable(value) }),
]);
export type Parameter = v.InferOutput<typeof ParameterSchema>;

/** A map's view is written in hundreds of letters. */
const MOST_TEXT = 1500;
const MOST_SECONDS = 359_999;

/**
 * Seconds from "80", "80s", "1:20", "1:02:03", "1m20s" or "1h2m3s"; undefined for anything else, and for more than a
 * hundred hours.
 */
export function readTime(text: string): number | undefined {
  const seconds = clockSeconds(text.trim()) ?? unitSeconds(text.trim());
  return seconds !== undefined && seconds <= MOST_SECONDS ? seconds : undefined;
}

function clockSeconds(text: string): number | undefined {
  if (!/^\d{1,3}(:[0-5]?\d){1,2}$/.test(text)) return undefined;
  return text.split(':').reduce((sum, part) => sum * 60 + Number(part), 0);
}

function unitSeconds(text: string): number | undefined {
  const found = /^(?:(\d{1,3})h)?(?:(\d{1,4})m)?(?:(\d{1,6})s?)?$/i.exec(text);
  if (!found || text === '') return undefined;
  const [, hours, minutes, seconds] = found;
  return Number(hours ?? 0) * 3600 + Number(minutes ?? 0) * 60 + Number(seconds ?? 0);
}

/** "0:42", "1:02:03". */
export function sayTime(seconds: number): string {
  const two = (part: number) => String(part).padStart(2, '0');
  const [hours, minutes, rest] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
  return hours > 0 ? `${hours}:${two(minutes)}:${two(rest)}` : `${minutes}:${two(rest)}`;
}

/** "3 min 20 s", "1 h 2 min", "42 s": how long something lasts. */
export function sayLength(seconds: number): string {
  const [hours, minutes, rest] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
  const parts = [hours && `${hours} h`, minutes && `${minutes} min`, !hours && rest && `${rest} s`];
  return parts.filter(Boolean).join(' ') || '0 s';
}

/** A value as it is written into an address, from what stands in an address or was typed; undefined for what it cannot be. */
export function readValue(parameter: Parameter, text: string): string | undefined {
  switch (parameter.type) {
    case 'time': {
      const seconds = readTime(text);
      return seconds === undefined ? undefined : String(seconds);
    }
    case 'switch':
      return readSwitch(parameter, text);
    case 'choice':
      return parameter.choices.find((choice) => choice.value === text)?.value;
    case 'text':
      return text.length <= MOST_TEXT ? text : undefined;
  }
}

function readSwitch({ on, off }: Extract<Parameter, { type: 'switch' }>, text: string): string | undefined {
  if (text === on || text === off) return text;
  const said = text.toLowerCase();
  if (['1', 'true', 'yes', 'on'].includes(said)) return on;
  if (['0', 'false', 'no', 'off'].includes(said)) return off ?? undefined;
  return undefined;
}

/** Why a typed value was not taken, with how it is written. */
export function sayValueFault(parameter: Parameter): string {
  switch (parameter.type) {
    case 'time':
      return 'A time is written as 1:20, or as seconds.';
    case 'switch':
      return 'This is either on or off.';
    case 'choice':
      return `This is one of: ${parameter.choices.map(({ label }) => label).join(', ')}.`;
    case 'text':
      return `At most ${MOST_TEXT.toLocaleString('en-GB')} letters fit here.`;
  }
}
