import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import * as v from 'valibot';
import { may, type Person } from '#api/people.ts';
import type { Proposal, WordingItem, WordingQuery } from '#api/wording.ts';
import type { Placement } from '#core/page/blocks/placement/schema.ts';
import { heardAround } from '#core/page/heard.ts';
import type { Piece } from '#core/page/piece.ts';
import { sayStanding } from '#core/page/say-standing.ts';
import { placementsOf, standingOn } from '#core/page/walk.ts';
import { altHere, captionHere, creditHere } from '#core/page/words.ts';
import { creditText } from '#core/rights/credit.ts';
import { AltSchema } from '#core/rights/label.ts';
import { translationIn } from '#core/rights/label-in.ts';
import type { Context } from '../context.ts';
import { held, people, proposals } from '../db/schema.ts';
import { readPage, readPages, type WholePage } from '../pages/store.ts';
import { type AssetRow, presentAssets } from '../shelf/present.ts';
import { standing } from '../shelf/put-away.ts';

/** As many as somebody words in a day. */
const MOST_ITEMS = 200;
const DUE_DAYS = 7;
const DAY_MILLIS = 86_400_000;

interface Heard {
  readonly row: AssetRow;
  readonly place: WordingItem['place'];
}

export interface Wording {
  readonly items: WordingItem[];
  readonly more: boolean;
}

/** The pictures that a round goes through, in the order in which they are heard, each once. */
export async function readWording(
  context: Context,
  query: WordingQuery,
  person: Person,
  now: Date,
): Promise<Wording> {
  const { place = 'due' } = query;
  const isOfPages = may(person.role, 'edit-pages') && place !== 'folder' && place !== 'shelf';
  const heard = isOfPages
    ? onPages(await pagesOf(context, query, person, now), query)
    : await onShelf(context, query, person);
  const some = heard.slice(0, MOST_ITEMS);
  const assets = await presentAssets(
    context,
    some.map(({ row }) => row),
    person,
  );
  const proposed = await proposalsFor(
    context,
    assets.map(({ id }) => id),
  );
  return {
    items: assets.map((asset) => ({
      asset,
      place: some.find(({ row }) => row.id === asset.id)?.place ?? null,
      proposal: proposed.get(asset.id) ?? null,
    })),
    more: heard.length > MOST_ITEMS,
  };
}

async function pagesOf(
  context: Context,
  { place = 'due', page }: WordingQuery,
  person: Person,
  now: Date,
): Promise<readonly WholePage[]> {
  if (place === 'page' && page) return [await readPage(context, page, person)];
  const { wholes } = await readPages(context, person);
  const last = new Date(now.getTime() + DUE_DAYS * DAY_MILLIS).toISOString().slice(0, 10);
  const due = (whole: WholePage) => whole.row.due ?? '9999';
  return wholes
    .filter((whole) => place !== 'due' || due(whole) <= last)
    .sort((one, other) => due(one).localeCompare(due(other)));
}

function onPages(wholes: readonly WholePage[], query: WordingQuery): readonly Heard[] {
  const seen = new Set<string>();
  return wholes.flatMap((whole) =>
    placementsOf(whole.doc).flatMap((placement) => {
      const [row, piece] = [
        whole.assets.find(({ id }) => id === placement.asset),
        whole.pieces.get(placement.asset),
      ];
      if (!row || piece?.kind !== 'picture' || seen.has(row.id)) return [];
      // What one page says by itself is worded there; a round words the pieces.
      const isSaid =
        placement.alt !== null ||
        (query.language
          ? isSaidIn(piece, query.language)
          : altHere(whole.rules, placement, piece).kind !== 'unsaid');
      if (isSaid && query.all !== 'yes') return [];
      seen.add(row.id);
      return [{ row, place: placeOf(whole, placement, piece) }];
    }),
  );
}

function isSaidIn({ label }: Piece, language: string): boolean {
  return label.alt.kind === 'decorative' || (translationIn(label, language)?.alt ?? '') !== '';
}

function placeOf({ row, doc, rules, pieces }: WholePage, placement: Placement, piece: Piece) {
  const { click } = placement;
  return {
    pageId: row.id,
    title: row.title,
    standing: sayStanding(standingOn(doc, { rules, pieces }, placement), rules),
    ...heardAround(doc, placement.id),
    caption: captionHere(rules, placement, piece),
    credit: creditText(creditHere(rules, placement, piece)),
    leadsTo: click.kind === 'link' ? click.href : '',
  };
}

async function onShelf(
  context: Context,
  { place, folder, all, language }: WordingQuery,
  person: Person,
): Promise<readonly Heard[]> {
  const rows = await context.db
    .select()
    .from(held)
    .where(
      and(
        standing(context, person, held),
        eq(held.kind, 'picture'),
        place === 'folder' && folder ? eq(held.folder, folder) : undefined,
        all === 'yes' || language ? undefined : eq(held.altState, 'unsaid'),
      ),
    )
    .orderBy(desc(held.createdAt), desc(held.id))
    .limit(MOST_ITEMS + 1);
  return rows
    .filter((row) => all === 'yes' || !language || !isSaidInRow(row, language))
    .map((row) => ({ row, place: null }));
}

const isSaidInRow = ({ label }: AssetRow, language: string) =>
  label.alt.kind === 'decorative' || (translationIn(label, language)?.alt ?? '') !== '';

/** What contributors propose for pieces: of each the oldest that waits. */
async function proposalsFor(
  { db }: Context,
  assetIds: readonly string[],
): Promise<ReadonlyMap<string, Proposal>> {
  if (assetIds.length === 0) return new Map();
  const rows = await db
    .select({ proposal: proposals, name: people.name })
    .from(proposals)
    .leftJoin(people, eq(people.id, proposals.personId))
    .where(inArray(proposals.assetId, [...assetIds]))
    .orderBy(asc(proposals.at));
  const found = new Map<string, Proposal>();
  for (const { proposal, name } of rows) {
    const alt = v.safeParse(AltSchema, proposal.alt);
    if (!alt.success || found.has(proposal.assetId)) continue;
    const { id, extendedDescription, at } = proposal;
    found.set(proposal.assetId, {
      id,
      by: name ?? 'Somebody',
      at: at.toISOString(),
      alt: alt.output,
      extendedDescription,
    });
  }
  return found;
}
