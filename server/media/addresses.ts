import { createHash } from 'node:crypto';
import type { Label } from '#core/rights/label.ts';
import type { Context } from '../context.ts';

export const thumbPath = (assetId: string, recipe: string, width: number) =>
  `/thumb/${assetId}/${recipe}/${width}.webp`;

/** A far picture to be looked at before it is taken; `text` says which. */
export const farPath = (text: string) => `/far/${text}`;

export const cutPath = (assetId: string, recipe: string, width: number, quality: number, fileName: string) =>
  `/cut/${assetId}/${recipe}/${width}/${quality}/${fileName}`;

/** The part of a cut round a place, given in fractions, at the cut's own pixels. */
export const detailPath = (
  assetId: string,
  recipe: string,
  width: number,
  quality: number,
  { x, y, file }: { readonly x: number; readonly y: number; readonly file: string },
) => `/detail/${assetId}/${recipe}/${width}/${quality}/${x.toFixed(4)}/${y.toFixed(4)}/${file}`;

/** The own file of a document, to be downloaded. */
export const filePath = (assetId: string, fileName: string) => `/file/${assetId}/${fileName}`;

/** All of a film as it is looked at here, where browsers do not play it as it came. */
export const WHOLE_NAME = 'whole.mp4';

/** Captions of a film in a language: of all of it, or as they lie in what is made of it. */
export const captionsPath = (assetId: string, fileName: string, as: 'whole' | 'made') =>
  `/captions/${as}/${assetId}/${fileName}`;

/** A page in a version, as one person may see it. */
export const pagePath = ({ id, version }: PageState, readerId: string) =>
  `/page/${id}/${version}/${readerId}/`;

/** A page as a listing shows it. */
export const listingPath = ({ id, version }: PageState, readerId: string) =>
  `/listing/${id}/${version}/${readerId}/`;

/** A page as it would be sent now, or as it would stand there. */
export const foreseenPath = (
  { id, version }: PageState,
  { readerId, targetId }: { readonly readerId: string; readonly targetId: string },
  which: 'sent' | 'found',
) => `/foreseen/${id}/${version}/${readerId}/${targetId}/${which}`;

/** A page as it was sent, or as it stood where it was sent to when it was read back. */
export const deliveryPath = ({ id }: { readonly id: string }, which: 'sent' | 'found') =>
  `/delivery/${id}/${which}`;

/** An inherited page as it stood, or as it would be written. */
export const inheritedPath = ({ id }: { readonly id: string }, which: 'found' | 'written') =>
  `/inherited/${id}/${which}`;

interface PageState {
  readonly id: string;
  readonly version: number;
}

/**
 * What an address opens: a thing that is held, one that was thrown away, one that only a group may see (named by a digest of
 * who that is, so that it opens no more once they are others), or what is only looked at now.
 */
export type Opening = 'held' | 'thrown-away' | 'look' | `group-${string}`;

const HOUR_MILLIS = 60 * 60 * 1000;
const DAY_MILLIS = 24 * HOUR_MILLIS;
/**
 * How long an address opens at least, and at most twice as long: it ends at a full one of these, so that it is the same
 * address for a while and browsers need not fetch the same picture anew at each look.
 */
const OPEN_MILLIS = {
  held: 7 * DAY_MILLIS,
  'thrown-away': DAY_MILLIS,
  look: 12 * HOUR_MILLIS,
} as const;
const OF_GROUP = 'group-';
const DIGEST_LETTERS = 16;

const openMillis = (opening: Opening): number =>
  isOfGroup(opening) ? OPEN_MILLIS.held : OPEN_MILLIS[opening];

/** How a piece is opened by its addresses. */
export function openingFor({ deletedAt, label, createdBy }: OpenedRow): Opening {
  if (deletedAt) return 'thrown-away';
  const { seenBy } = label.terms;
  if (seenBy.who !== 'group') return 'held';
  const who = JSON.stringify([createdBy, ...[...seenBy.people].sort()]);
  return `${OF_GROUP}${createHash('sha256').update(who).digest('base64url').slice(0, DIGEST_LETTERS)}`;
}

export interface OpenedRow {
  readonly deletedAt: Date | null;
  readonly label: Pick<Label, 'terms'>;
  readonly createdBy: string;
}

type Signing = Pick<Context, 'config' | 'signatures'>;

/** A whole address on the media origin that nobody can make up, and that ends. */
export function signedAddress(
  { config, signatures }: Signing,
  path: string,
  opening: Opening = 'held',
  now = Date.now(),
): string {
  const span = openMillis(opening);
  const until = ((Math.floor(now / span) + 2) * span).toString(36);
  const signature = signatures.sign(textOf(path, opening, until));
  return `${config.mediaOrigin}${path}?s=${signature}&u=${until}${opening === 'held' ? '' : `&o=${opening}`}`;
}

/** What the address of a request opens; undefined for one that was made up, or has ended. */
export function openingOf(
  { signatures }: Pick<Signing, 'signatures'>,
  path: string,
  query: Readonly<Record<string, unknown>>,
  now = Date.now(),
): Opening | undefined {
  const { s, u, o = 'held' } = query;
  if (typeof s !== 'string' || typeof u !== 'string' || !/^[a-z0-9]{1,11}$/.test(u) || !isOpening(o))
    return undefined;
  const isOpen = signatures.isSigned(textOf(path, o, u), s) && Number.parseInt(u, 36) > now;
  return isOpen ? o : undefined;
}

const textOf = (path: string, opening: Opening, until: string) => `${opening} ${until} ${path}`;

const isOfGroup = (text: string): text is `group-${string}` => text.startsWith(OF_GROUP);

const isOpening = (text: unknown): text is Opening =>
  typeof text === 'string' && (Object.hasOwn(OPEN_MILLIS, text) || isOfGroup(text));
