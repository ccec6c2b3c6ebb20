import type { FoundPicture, SourceAbout, SourceId } from '#api/gather.ts';
import type { GatherQuestion } from '#core/gather/question.ts';
import type { Offer } from '#core/rights/offer.ts';
import type { TextTool } from '../../foreign/texts.ts';
import type { Outbound } from '../../outbound/outbound.ts';

/** What a source is given to work with. */
export interface SourceTools {
  readonly outbound: Outbound;
  readonly texts: TextTool;
  /** Where the service is, such as https://commonfield.example. */
  readonly origin: string;
  readonly signal: AbortSignal;
}

/** One page of a source's answer; `cursor` is the source's own and asks for the next. */
interface Found {
  readonly pictures: readonly FoundPicture[];
  readonly count: number | null;
  readonly cursor: string | null;
}

export interface FoundAlbum {
  readonly id: string;
  readonly name: string;
  readonly files: readonly FoundPicture[];
}

/** An order as the agency took it: what was bought, its own number for it, and where the original is fetched. */
interface ShopOrder {
  readonly offer: Offer;
  readonly receipt: string;
  readonly file: string;
}

/** Where pictures are bought. */
export interface Shop {
  readonly offers: (picture: string, tools: SourceTools) => Promise<readonly Offer[]>;
  /**
   * Orders a picture under a key of ours. Under the same key again it is the same order and is paid for once, so that an
   * order nobody heard back of is simply put again. Null where the agency refuses it.
   */
  readonly order: (
    key: string,
    wish: { readonly picture: string; readonly offer: string; readonly licensedTo: string },
    tools: SourceTools,
  ) => Promise<ShopOrder | null>;
}

/** A place that pictures are gathered from. A real service is one more file with one of these. */
export interface Source {
  readonly id: Exclude<SourceId, 'web'>;
  readonly name: string;
  /** What it is, in a few words. */
  readonly about: string;
  readonly kind: SourceAbout['kind'];
  /** The first part of its host name among the stand-ins. */
  readonly standIn: string;
  readonly search: (question: GatherQuestion, cursor: string | null, tools: SourceTools) => Promise<Found>;
  /** Albums with their files, for a source that has them. */
  readonly albums?: (tools: SourceTools) => Promise<readonly FoundAlbum[]>;
  /** For an agency that sells by itself. */
  readonly shop?: Shop;
}
