import * as v from 'valibot';
import type { HeldEmbedSchema } from '#api/assets.ts';
import { FramingSchema, PosterSchema } from '#api/embeds.ts';
import { entryById, type Hosts } from '#core/embed/host.ts';
import { EmbedSchema } from '#core/embed/model.ts';

/** An embed as it is stored with its piece: the model, and what its host said last to each target's origin. */
const SavedEmbedSchema = v.strictObject({
  embed: EmbedSchema,
  framing: v.record(v.string(), FramingSchema),
  /** What came before this was said of an embed had its host's. */
  poster: v.optional(PosterSchema, 'host'),
  /** When its host was asked last (ISO 8601). */
  askedAt: v.string(),
});
export type SavedEmbed = v.InferOutput<typeof SavedEmbedSchema>;

/** What is stored of an embed, read into its type. Null for what does not fit. */
export function readSaved(stored: unknown): SavedEmbed | null {
  const read = v.safeParse(SavedEmbedSchema, stored);
  return read.success ? read.output : null;
}

/** What is stored of an embed, read into its type, with the hosts that bear on it. Null for what does not fit. */
export function heldEmbed(stored: unknown, hosts: Hosts): v.InferOutput<typeof HeldEmbedSchema> | null {
  const saved = readSaved(stored);
  if (!saved) return null;
  const { embed, framing, poster } = saved;
  const entry = entryById(embed.host, hosts);
  return {
    embed,
    framing,
    poster,
    hosts: { entries: entry ? [entry] : [], decisions: [...hosts.decisions] },
  };
}
