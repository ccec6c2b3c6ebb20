import * as v from 'valibot';
import { type LedgerQuery, LedgerQuerySchema } from '#api/rights.ts';

/** The sentence of the Rights area as it stands in the address bar. */
export function readLedgerQuestion(params: URLSearchParams): LedgerQuery {
  const known = Object.keys(LedgerQuerySchema.entries);
  const said = Object.fromEntries([...params].filter(([key]) => known.includes(key)));
  return v.is(LedgerQuerySchema, said) ? said : {};
}

/** The parameters of a question; what is asked anyway is left out. */
export function writeLedgerQuestion(question: LedgerQuery): URLSearchParams {
  const usual: LedgerQuery = {
    matter: 'waits',
    within: '183',
    place: 'pages',
    licence: 'any',
    order: 'soonest',
  };
  const said = Object.entries(question).filter(
    ([key, value]) =>
      value !== undefined &&
      value !== '' &&
      !Object.entries(usual).some(([name, one]) => name === key && one === value),
  );
  return new URLSearchParams(said.map(([key, value]) => [key, String(value)]));
}
