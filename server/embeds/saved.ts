import * as v from 'valibot';
import type { HeldEmbedSchema } from '#api/assets.ts';
import { FramingSchema } from '#api/embeds.ts';
import { entryById, type Hosts } from '#core/embed/host.ts';
import { EmbedSchema } from '#core/embed/model.ts';

/** An embed as it is stored with its piece: the model, and what its host said last to each target's origin. */
const SavedEmbedSchema = v.strictObject({
  embed: EmbedSchema,
  framing: v.record(v.string(), FramingSchema),
  /** When its host was asked last (ISO 8601). */
  askedAt: v.string(),
});
export type SavedEmbed = v.InferOutput<typeof SavedEmbedSchema>;

/** What is stored of an embed, read into its type, with the hosts that bear on it. Null for what does not fit. */
export function heldEmbed(stored: unknown, hosts: Hosts): v.InferOutput<typeof HeldEmbedSchema> | null {
  if (stored === null || stored === undefined) return null;
  const read = v.safeParse(SavedEmbedSchema, stored);
  if (!read.success) return null;
  const { embed, framing } = read.output;
  const entry = entryById(embed.host, hosts);
  return { embed, framing, hosts: { entries: entry ? [entry] : [], decisions: [...hosts.decisions] } };
}
