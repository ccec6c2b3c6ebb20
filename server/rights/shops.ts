import type { Label } from '#core/rights/label.ts';
import type { Offer } from '#core/rights/offer.ts';
import { isSameName } from '#core/rights/same-name.ts';
import type { Context } from '../context.ts';
import type { Shop, Source, SourceTools } from '../gather/sources/source.ts';
import { SOURCES } from '../gather/sources/sources.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { HttpProblem } from '../problem.ts';

/** An agency that sells what a label names. */
export interface Seller {
  readonly source: Source;
  readonly shop: Shop;
  readonly picture: string;
  readonly tools: SourceTools;
}

/** Who sells the original of a comp: the agency that its label names, by its ID there. Throws an HttpProblem where nobody does. */
export function sellerOf(context: Context, label: Label, signal: AbortSignal): Seller {
  const source = SOURCES.find(({ name, shop }) => shop && isSameName(name, label.source));
  const origin = source ? context.config.sourceOrigins[source.id] : undefined;
  if (!source?.shop || origin === undefined)
    throw new HttpProblem(
      409,
      `${label.source || 'Whoever made it'} does not sell here. Buy it where it is sold, and drop the original on the comp.`,
    );
  if (label.sourceId === '')
    throw new HttpProblem(
      409,
      'The label does not say which picture of the agency it is. Say its ID there first.',
    );
  const { outbound, texts } = context;
  return { source, shop: source.shop, picture: label.sourceId, tools: { outbound, texts, origin, signal } };
}

/** What the agency asks for a picture just now. Throws an HttpProblem where it does not say. */
export async function offersOf({ source, shop, picture, tools }: Seller): Promise<readonly Offer[]> {
  try {
    return await shop.offers(picture, tools);
  } catch (error) {
    if (error instanceof OutboundProblem)
      throw error.fault === 'not-found'
        ? new HttpProblem(409, `${source.name} does not offer this picture any more.`)
        : new HttpProblem(502, error.message);
    throw error;
  }
}
