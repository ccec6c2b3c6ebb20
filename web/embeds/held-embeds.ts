import { ArrivedSchema, type Asset } from '#api/assets.ts';
import type { Embed } from '#core/embed/model.ts';
import { requestJson, requestVoid } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { putPieces } from '../pieces/pieces.ts';

export interface Kept {
  readonly asset: Asset;
  readonly isNew: boolean;
  readonly sentence: string;
}

/** Puts an embed on the shelf; the same thing is held once. */
export async function keepEmbed(embed: Embed): Promise<Kept> {
  const kept = await requestJson('post /embeds', ArrivedSchema, {
    body: { embed },
  });
  putPieces([kept.asset]);
  for (const key of ['shelf', 'desk', 'folders', 'embed-held'])
    void queryClient.invalidateQueries({ queryKey: [key] });
  return kept;
}

/** Records the decision to trust the host of an address. */
export async function trustHost(address: string, scope: 'address' | 'host', reason: string): Promise<void> {
  await requestVoid('post /embeds/decisions', { body: { scope, address, reason } });
  await queryClient.invalidateQueries({ queryKey: ['embed-hosts'] });
}
