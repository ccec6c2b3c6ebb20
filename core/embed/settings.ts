import { entryById, type Hosts } from './host.ts';
import type { Embed } from './model.ts';
import type { Parameter } from './parameters.ts';
import { sharedParameter } from './shared-parameters.ts';

/** The start of a file that the browser plays: a fragment in seconds (Media Fragments URI 1.0, 4.2.1). */
const FILE_START: Parameter = { type: 'time', name: '#t', label: 'Start at', role: 'start', standard: null };

/**
 * The settings of an embed that can be changed: those of its host's entry, or, where there is none, those of its own that
 * many hosts share. `before` names settings that it had when it was read, so that one that was taken out can be set again.
 */
export function settingsOf(
  embed: Pick<Embed, 'host' | 'carrier' | 'parameters'>,
  hosts: Hosts,
  before: Embed['parameters'] = {},
): readonly Parameter[] {
  const entry = entryById(embed.host, hosts);
  if (entry) return entry.parameters;
  const shared = Object.entries({ ...before, ...embed.parameters }).flatMap(
    ([name, value]) => sharedParameter(name, value)?.parameter ?? [],
  );
  const isFile = embed.carrier === 'video' || embed.carrier === 'audio';
  return isFile && !shared.some(({ role }) => role === 'start') ? [FILE_START, ...shared] : shared;
}
