import * as v from 'valibot';
import type { AssetQuery } from '#api/assets.ts';
import { AssetQuerySchema } from '#api/assets.ts';

/** The Shelf's question as it stands in the address bar, so that it can be kept, sent and gone back to. */
export function readQuestion(params: URLSearchParams): AssetQuery {
  const known = Object.keys(AssetQuerySchema.entries);
  const said = Object.fromEntries([...params].filter(([key]) => known.includes(key)));
  return v.is(AssetQuerySchema, said) ? said : {};
}

/** The parameters of a question; what is not asked is left out. */
export function writeQuestion(question: AssetQuery): URLSearchParams {
  const said = Object.entries(question).filter(
    ([, value]) =>
      value !== undefined &&
      value !== '' &&
      value !== 'any' &&
      value !== 'nothing' &&
      value !== 'standing' &&
      value !== '0',
  );
  return new URLSearchParams(said.map(([key, value]) => [key, String(value)]));
}
