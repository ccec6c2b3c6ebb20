import { eq } from 'drizzle-orm';
import * as v from 'valibot';
import type { Queries } from '../db/connection.ts';
import { settings } from '../db/schema.ts';

/** The setting that says how far the demo is, for as long as it is being painted and hung. */
export const HANGING = 'demo-hanging';

const HangingSchema = v.object({ done: v.number(), of: v.number() });
type Hanging = v.InferOutput<typeof HangingSchema>;

export async function sayHanging(db: Queries, hanging: Hanging): Promise<void> {
  const value = JSON.stringify(hanging);
  await db.insert(settings).values({ name: HANGING, value }).onDuplicateKeyUpdate({ set: { value } });
}

/** How many pieces of the demo hang, and of how many; null where it is whole, or there is none. */
export async function readHanging(db: Queries): Promise<Hanging | null> {
  const [row] = await db.select().from(settings).where(eq(settings.name, HANGING));
  const read = v.safeParse(v.pipe(v.string(), v.parseJson(), HangingSchema), row?.value);
  return read.success ? read.output : null;
}
