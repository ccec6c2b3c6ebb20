import * as v from 'valibot';
import type { FoundPicture } from '#api/gather.ts';
import { maybeStatement, statements } from '#core/gather/statement.ts';
import { OfferSchema } from '#core/rights/offer.ts';
import { addressOr, putJson, readJson } from './json.ts';
import type { Shop, Source } from './source.ts';

const text = v.pipe(v.string(), v.maxLength(2000));
const size = v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(200_000));
const ResultSchema = v.object({
  id: text,
  title: text,
  photographer: text,
  original: v.object({ width: size, height: size }),
  offer: v.object({
    /** In the smallest unit of the currency. */
    amount: v.pipe(v.number(), v.integer(), v.minValue(0)),
    currency: v.pipe(v.string(), v.regex(/^[A-Z]{3}$/)),
    terms: text,
  }),
  comp: v.object({ address: text }),
  preview: text,
  page: text,
});
const AnswerSchema = v.object({
  total: v.number(),
  next: v.nullable(v.number()),
  results: v.array(ResultSchema),
});

const OffersSchema = v.object({ offers: v.array(OfferSchema) });
const OrderSchema = v.object({ offer: OfferSchema, receipt: text, file: text });

const shop: Shop = {
  offers: async (picture, tools) =>
    (await readJson(OffersSchema, `/api/pictures/${encodeURIComponent(picture)}/offers`, tools)).offers,
  order: (key, wish, tools) => putJson(OrderSchema, `/api/orders/${encodeURIComponent(key)}`, wish, tools),
};

/** A picture agency: its comps are free to lay out, and go out only when bought. */
export const brackwater: Source = {
  id: 'brackwater',
  name: 'Brackwater Pictures',
  about: 'to buy; comps are free to try',
  kind: 'agency',
  standIn: 'brackwater',
  shop,
  async search(question, cursor, tools) {
    const asked = new URLSearchParams({ words: question.words, page: cursor ?? '1' });
    if (question.shape === 'landscape' || question.shape === 'portrait')
      asked.set('orientation', question.shape);
    const answer = await readJson(AnswerSchema, `/api/search?${asked}`, tools);
    return {
      pictures: answer.results.map(found),
      count: answer.total,
      cursor: answer.next === null ? null : String(answer.next),
    };
  },
};

function found(result: v.InferOutput<typeof ResultSchema>): FoundPicture {
  const say = (about: Parameters<typeof maybeStatement>[1], value: string) =>
    maybeStatement('agency', about, value);
  return {
    source: 'brackwater',
    key: result.id.slice(0, 300),
    stamp: '',
    fileName: `BP-${result.id}-comp.jpg`.slice(0, 300),
    address: addressOr(result.comp.address),
    preview: addressOr(result.preview),
    pageAddress: addressOr(result.page),
    // Of the original that can be bought; the comp is smaller.
    width: result.original.width,
    height: result.original.height,
    statements: [
      ...statements(
        say('title', result.title),
        say('maker', result.photographer),
        say('source', 'Brackwater Pictures'),
        say('source-id', result.id),
        say('licence', 'comp'),
        say('price', `${(result.offer.amount / 100).toFixed(2)} ${result.offer.currency}`),
        say('terms', result.offer.terms),
      ),
    ],
  };
}
