import type { HouseRules } from '../page/target.ts';
import type { Filter } from './filter.ts';
import type { Learned } from './probe.ts';
import { writtenFor } from './sending.ts';

/** House rules as a probe has shown them to be; `tried` are the addresses whose frames were tried. */
export function rulesLearned(
  rules: HouseRules,
  { filter, frames }: Learned,
  tried: readonly string[],
): HouseRules {
  const sending = writtenFor(rules.sending, filter);
  if (tried.length === 0) return { ...rules, sending };
  const areAll = frames.length === tried.length;
  return {
    ...rules,
    sending,
    embeds: {
      ...rules.embeds,
      frames: frames.length > 0,
      frameHosts: areAll || frames.length === 0 ? rules.embeds.frameHosts : hostsOf(frames),
    },
  };
}

const hostsOf = (addresses: readonly string[]): string[] => [
  ...new Set(addresses.map((address) => new URL(address).host)),
];

/** What differs between two states of House rules that a probe has to do with, each as a sentence. */
export function sayLearned(before: HouseRules, after: HouseRules): readonly string[] {
  const said: string[] = [];
  const [was, is] = [before.sending, after.sending];
  for (const [part, words] of PARTS) {
    const more = is.filter[part].filter((name) => !was.filter[part].includes(name));
    const less = was.filter[part].filter((name) => !is.filter[part].includes(name));
    if (more.length > 0) said.push(`${words(listOf(more), more.length === 1 ? 'it' : 'them')}.`);
    if (less.length > 0) said.push(`It keeps ${listOf(less)} now.`);
  }
  if (is.captions !== was.captions && is.captions === 'plain') said.push('So captions go as plain text.');
  if (is.sides !== was.sides && is.sides === 'picture')
    said.push('So text runs beside the picture itself, without the figure round it.');
  if (before.embeds.frames !== after.embeds.frames)
    said.push(after.embeds.frames ? 'Frames come through.' : 'No frames come through.');
  if (after.embeds.frames && String(before.embeds.frameHosts) !== String(after.embeds.frameHosts))
    said.push(`Frames of ${listOf(after.embeds.frameHosts)} alone come through.`);
  return said;
}

const PARTS: readonly (readonly [keyof Filter, (names: string, them: string) => string])[] = [
  ['unwrapped', (names, them) => `It takes ${names} away, and keeps what is in ${them}`],
  ['dropped', (names, them) => `It drops ${names} with all that is in ${them}`],
  ['attributes', (names) => `It drops these attributes: ${names}`],
  ['styles', (names) => `It drops these styles: ${names}`],
];

const listOf = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
