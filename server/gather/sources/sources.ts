import type { SourceId } from '#api/gather.ts';
import { brackwater } from './brackwater.ts';
import { commonfield } from './commonfield.ts';
import { loftdrive } from './loftdrive.ts';
import type { Source } from './source.ts';
import { wayside } from './wayside.ts';

/** Every place that pictures are gathered from, in the order in which their answers stand. */
export const SOURCES: readonly Source[] = [commonfield, brackwater, wayside, loftdrive];

export function maybeSource(id: string): Source | undefined {
  return SOURCES.find((source) => source.id === id);
}

/** What a source is called; pages of the web are called so. */
export function sourceName(id: SourceId | string): string {
  return maybeSource(id)?.name ?? 'The web';
}
