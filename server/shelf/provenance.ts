import { desc, eq } from 'drizzle-orm';
import type { Provenance } from '#api/gather.ts';
import type { Context } from '../context.ts';
import { people, provenance } from '../db/schema.ts';
import { sourceName } from '../gather/sources/sources.ts';

const SHOWN = 20;

/** Every coming of a piece, latest first, with what was said there then. */
export async function provenanceOf(context: Context, assetId: string): Promise<Provenance[]> {
  const rows = await context.db
    .select()
    .from(provenance)
    .leftJoin(people, eq(people.id, provenance.personId))
    .where(eq(provenance.assetId, assetId))
    .orderBy(desc(provenance.at))
    .limit(SHOWN);
  return rows.map(({ provenance: row, people: person }) => ({
    at: row.at.toISOString(),
    by: person?.name ?? 'Somebody',
    way: wayOf(row.way),
    sourceName: row.sourceId ? sourceName(row.sourceId) : null,
    address: row.address,
    pageAddress: row.pageAddress,
    fileName: row.fileName,
    said: row.said,
  }));
}

function wayOf(way: string): Provenance['way'] {
  return way === 'address' || way === 'source' || way === 'clip' ? way : 'upload';
}
