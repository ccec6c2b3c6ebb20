import * as v from 'valibot';
import { readRegions } from '#core/rights/regions.ts';

/** Regions as they are typed, in words; names that no country has are said. */
export const RegionsTypedSchema = v.pipe(
  v.string(),
  v.check(
    (text) => readRegions(text).unknown.length === 0,
    ({ input }) => `${readRegions(input).unknown.join(', ')}: no country is called so.`,
  ),
);
