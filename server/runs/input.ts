import * as v from 'valibot';
import { RunOrderSchema } from '#core/run/order.ts';

/** What the job of a run is given. */
export const RunInputSchema = v.object({
  order: RunOrderSchema,
  /** Folders that the run makes, and takes away again when it is taken back. */
  newFolders: v.optional(v.array(v.string()), []),
});
