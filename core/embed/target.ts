import * as v from 'valibot';
import { isHost } from './host.ts';

const HostPatternSchema = v.pipe(
  v.string(),
  v.regex(
    /^(\*\.)?[a-z0-9]([a-z0-9.-]{0,250}[a-z0-9])?(:\d{1,5})?$/,
    'A host is written as films.example or *.films.example.',
  ),
);

/** What a target lets through of embeds. */
export const EmbedRulesSchema = v.strictObject({
  /** Whether frames of trusted hosts come through at all. */
  frames: v.boolean(),
  /** The hosts whose frames come through; none named means every trusted one. */
  frameHosts: v.pipe(v.array(HostPatternSchema), v.maxLength(200)),
  /** Whether the small script comes through that loads a frame when it is asked for. */
  click: v.boolean(),
  /** Whether a sandboxed document of our own, for things that only come as a script, comes through. */
  widgets: v.boolean(),
});
export type EmbedRules = v.InferOutput<typeof EmbedRulesSchema>;

export const USUAL_EMBED_RULES: EmbedRules = { frames: true, frameHosts: [], click: true, widgets: true };

/** Whether a target's own filter lets frames of an address through. */
export function letsFrameThrough({ frames, frameHosts }: EmbedRules, address: string): boolean {
  return (
    frames &&
    (frameHosts.length === 0 || frameHosts.some((pattern) => isHost(pattern, new URL(address).host)))
  );
}

/** What the writer has to know of a target, which its house rules say. `column` in px. */
export interface EmbedTarget {
  readonly name: string;
  readonly siteAddress: string;
  readonly column: number;
  /** Of its pages (BCP 47): in its words go out what nobody wrote. */
  readonly language: string;
  readonly embeds: EmbedRules;
}
