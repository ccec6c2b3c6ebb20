import { and, desc, eq, getViewSelectedFields, gt, isNull, ne } from 'drizzle-orm';
import { Router } from 'express';
import type { Errand } from '#api/desk.ts';
import { may, type Person } from '#api/people.ts';
import { judgeOnPage } from '#core/page/judge-page.ts';
import { placementsOf } from '#core/page/walk.ts';
import { altHere } from '#core/page/words.ts';
import { sayFinding } from '#core/proof/say.ts';
import { sayReason } from '#core/rights/say-judgement.ts';
import type { Context } from '../context.ts';
import { held, people } from '../db/schema.ts';
import { proofOf } from '../pages/proof.ts';
import { summaries } from '../pages/routes.ts';
import { type AllPages, readPages, type WholePage } from '../pages/store.ts';
import { personOf } from '../people/guard.ts';
import { route } from '../route.ts';
import { haltedRuns } from '../runs/runs.ts';
import { presentAssets, thumbAddress } from '../shelf/present.ts';
import { standing } from '../shelf/put-away.ts';
import { readHanging } from './hanging.ts';

const NO_PAGES: AllPages = { wholes: [], broken: [] };
const RECENT = 8;
const NEW_DAYS = 7;
const HANDED_IN_LIMIT = 500;
const DAY_MILLIS = 24 * 60 * 60 * 1000;

export function deskRoutes(context: Context): Router {
  const router = Router();
  route(router, 'get /desk', async (request, response) => {
    const person = personOf(request);
    const { wholes, broken } = may(person.role, 'edit-pages') ? await readPages(context) : NO_PAGES;
    const recent = await context.db
      .select()
      .from(held)
      .where(standing(held))
      .orderBy(desc(held.createdAt), desc(held.id))
      .limit(RECENT);
    response.json({
      errands: [
        ...byDue(wholes).flatMap((whole) => pageErrands(context, whole, new Date())),
        ...(await handedIn(context, person, new Date())),
        ...(await runErrands(context, person, new Date())),
      ],
      pages: await summaries(context, { wholes, broken }),
      recent: await presentAssets(context, recent, person),
      hanging: context.config.isDemo ? await readHanging(context.db) : null,
    });
  });
  return router;
}

/** Pages that are due first come first; those without a date come last. */
function byDue(wholes: readonly WholePage[]): readonly WholePage[] {
  const key = (whole: WholePage) => whole.row.due ?? '9999';
  return [...wholes].sort((one, other) => key(one).localeCompare(key(other)));
}

/** What each page waits for: worst first, at most one errand of a kind. */
function pageErrands(context: Context, whole: WholePage, now: Date): readonly Errand[] {
  return [
    comps(context, whole),
    notCleared(context, whole, now),
    unworded(context, whole),
    unfilled(whole),
    stopped(whole),
  ].filter((errand) => errand !== null);
}

function piecesOn(whole: WholePage) {
  const ids = new Set([...whole.doc.tray, ...placementsOf(whole.doc).map((placement) => placement.asset)]);
  return whole.assets.filter((asset) => ids.has(asset.id));
}

async function runErrands(context: Context, person: Person, now: Date): Promise<readonly Errand[]> {
  const runs = await haltedRuns(context, person.id, now);
  return runs.map(({ id, title, words, done, of }) => ({
    id: `run-${id}`,
    kind: 'run',
    before: '',
    subject: title,
    after: `halted after ${done} of ${of}.`,
    detail: words,
    due: null,
    action: 'Look at it',
    address: `/shelf/runs/${id}`,
    thumb: null,
    count: of - done,
  }));
}

const pageAddress = (whole: WholePage) => `/pages/${whole.row.id}`;

function comps(context: Context, whole: WholePage): Errand | null {
  const comp = piecesOn(whole).find((asset) => asset.licence === 'comp');
  if (!comp) return null;
  return {
    id: `comp-${whole.row.id}`,
    kind: 'rights',
    before: 'The comp on',
    subject: whole.row.title,
    after: 'has to be bought or swapped before it can be sent.',
    detail: `${[comp.label.source, comp.label.sourceId].filter(Boolean).join(' ') || comp.stem}.`,
    due: whole.row.due,
    action: 'Look at it',
    address: `${pageAddress(whole)}?piece=${comp.id}`,
    thumb: thumbAddress(context, comp),
    count: null,
  };
}

function notCleared(context: Context, whole: WholePage, now: Date): Errand | null {
  const refused = piecesOn(whole).flatMap((asset) => {
    const piece = whole.pieces.get(asset.id);
    if (!piece || asset.licence === 'comp') return [];
    const { verdict, reasons } = judgeOnPage(whole.rules, whole.doc, piece, now);
    return verdict === 'not-allowed' ? [{ asset, reasons }] : [];
  });
  const [one] = refused;
  if (!one) return null;
  const { asset: first, reasons } = one;
  return {
    id: `rights-${whole.row.id}`,
    kind: 'rights',
    before: refused.length === 1 ? 'One piece on' : `${refused.length} pieces on`,
    subject: whole.row.title,
    after: 'may not be used yet.',
    detail: `${first.label.title || first.stem}: ${reasons.map(sayReason).join(' ')}`,
    due: whole.row.due,
    action: 'Set licence',
    address: `${pageAddress(whole)}?piece=${first.id}&row=rights`,
    thumb: thumbAddress(context, first),
    count: null,
  };
}

function unworded(context: Context, whole: WholePage): Errand | null {
  const bare = placementsOf(whole.doc).filter((placement) => {
    const piece = whole.pieces.get(placement.asset);
    return piece && altHere(whole.rules, placement, piece).kind === 'unsaid';
  });
  const [first] = bare;
  if (!first) return null;
  const row = whole.assets.find((asset) => asset.id === first.asset);
  return {
    id: `words-${whole.row.id}`,
    kind: 'words',
    before: bare.length === 1 ? 'A picture on' : `${bare.length} pictures on`,
    subject: whole.row.title,
    after: bare.length === 1 ? 'has no words yet.' : 'have no words yet.',
    detail: `Those who cannot see ${bare.length === 1 ? 'it' : 'them'} hear nothing.`,
    due: whole.row.due,
    action: bare.length === 1 ? 'Word it' : 'Word them',
    address: `${pageAddress(whole)}?piece=${first.asset}&row=words`,
    thumb: bare.length === 1 && row ? thumbAddress(context, row) : null,
    count: bare.length === 1 ? null : bare.length,
  };
}

function unfilled(whole: WholePage): Errand | null {
  const wants = whole.doc.wants.filter((want) => want.filledBy === null);
  const [first] = wants;
  if (!first) return null;
  return {
    id: `want-${whole.row.id}`,
    kind: 'want',
    before: '',
    subject: whole.row.title,
    after: wants.length === 1 ? 'still wants a piece.' : `still wants ${wants.length} pieces.`,
    detail: `${wants.map((want) => want.purpose).join(', ')}.`,
    due: whole.row.due,
    action: 'Gather',
    address: `/gather?page=${whole.row.id}&want=${first.id}`,
    thumb: null,
    count: wants.length,
  };
}

function stopped(whole: WholePage): Errand | null {
  const known = new Set(['alt-missing', 'licence-missing', 'use-not-allowed', 'want-unfilled']);
  const others = proofOf(whole).filter((finding) => finding.severity === 'stops' && !known.has(finding.code));
  const [first] = others;
  if (!first) return null;
  return {
    id: `stops-${whole.row.id}`,
    kind: 'stops',
    before: '',
    subject: whole.row.title,
    after: 'cannot go out yet.',
    detail: sayFinding(first).sentence,
    due: whole.row.due,
    action: 'Proof it',
    address: `${pageAddress(whole)}/proof`,
    thumb: null,
    count: others.length,
  };
}

/** What contributors handed in lately that nobody has cleared. */
async function handedIn(context: Context, person: Person, now: Date): Promise<readonly Errand[]> {
  if (!may(person.role, 'say-rights')) return [];
  const rows = await context.db
    .select({ asset: getViewSelectedFields(held), name: people.name })
    .from(held)
    .innerJoin(people, eq(held.createdBy, people.id))
    .where(
      and(
        eq(people.role, 'contributor'),
        ne(people.id, person.id),
        eq(held.licence, 'unknown'),
        isNull(held.deletedAt),
        gt(held.createdAt, new Date(now.getTime() - NEW_DAYS * DAY_MILLIS)),
      ),
    )
    .orderBy(desc(held.createdAt))
    .limit(HANDED_IN_LIMIT);
  const [first] = rows;
  if (!first) return [];
  return [
    {
      id: 'handed-in',
      kind: 'handed-in',
      before: `${first.name} handed in`,
      subject: rows.length === 1 ? 'a piece' : sayMany(rows.length),
      after: 'that nobody has cleared.',
      detail: 'Nothing says yet what may be done with them.',
      due: null,
      action: 'Clear them',
      address: '/shelf?licence=unknown',
      thumb: rows.length === 1 ? thumbAddress(context, first.asset) : null,
      count: rows.length === 1 ? null : rows.length,
    },
  ];
}

const sayMany = (count: number) =>
  count < HANDED_IN_LIMIT ? `${count} pieces` : `${HANDED_IN_LIMIT} pieces or more`;
