import { sayDifference } from '#core/deliver/say.ts';
import { judgeOnPage } from '#core/page/judge-page.ts';
import { placementsOf } from '#core/page/walk.ts';
import { altHere } from '#core/page/words.ts';
import { sayFinding } from '#core/proof/say.ts';
import { sayOtherwise } from '#core/rights/differences.ts';
import { sayDay, sayReason } from '#core/rights/say-judgement.ts';
import { dayIn } from '#core/rights/terms.ts';
import type { Context } from '../context.ts';
import { proofOf } from '../pages/proof.ts';
import type { WholePage } from '../pages/store.ts';
import type { piecesSaidOtherwise } from '../rights/differences.ts';
import type { standingSent } from '../sending/deliveries.ts';
import { thumbAddress } from '../shelf/present.ts';
import type { OpenErrand } from './given.ts';

/** What each page waits for: worst first, at most one errand of a kind. */
export function pageErrands(
  context: Context,
  whole: WholePage,
  otherwise: SaidOtherwise,
  sent: SentOf,
  failed: ReadonlyMap<string, string>,
  now: Date,
): readonly OpenErrand[] {
  return [
    comps(context, whole),
    notCleared(context, whole, now),
    ending(context, whole, now),
    claimed(context, whole, now),
    contradicted(context, whole, otherwise),
    unworded(context, whole),
    unfilled(whole),
    stopped(whole),
    planFailed(whole, failed.get(whole.row.id)) ?? otherwiseThere(whole, sent),
  ].filter((errand) => errand !== null);
}

/** By piece, what is said of it elsewhere and stands undecided. */
type SaidOtherwise = Awaited<ReturnType<typeof piecesSaidOtherwise>>;

function piecesOn(whole: WholePage) {
  const ids = new Set([...whole.doc.tray, ...placementsOf(whole.doc).map((placement) => placement.asset)]);
  return whole.assets.filter((asset) => ids.has(asset.id));
}

const pageAddress = (whole: WholePage) => `/pages/${whole.row.id}`;

function comps(context: Context, whole: WholePage): OpenErrand | null {
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

function notCleared(context: Context, whole: WholePage, now: Date): OpenErrand | null {
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
    after: reasons.some(({ code }) => code === 'over') ? 'may not be used any more.' : 'may not be used yet.',
    detail: `${first.label.title || first.stem}: ${reasons.map(sayReason).join(' ')}`,
    due: whole.row.due,
    action: reasons.some(({ code }) => code === 'licence-unknown') ? 'Set licence' : 'Look at it',
    address: `${pageAddress(whole)}?piece=${first.id}&row=rights`,
    thumb: thumbAddress(context, first),
    count: null,
  };
}

/** From this many days before its last day on, somebody has to say what happens then. */
const ENDING_DAYS = 30;
const DAY_MILLIS = 86_400_000;

/** What may be used for a while yet and soon no more: the soonest of a page. */
function ending(context: Context, whole: WholePage, now: Date): OpenErrand | null {
  const [today, last] = [now, new Date(now.getTime() + ENDING_DAYS * DAY_MILLIS)].map((day) =>
    dayIn(whole.rules.timeZone, day),
  );
  const [soonest] = piecesOn(whole)
    .flatMap((asset) => {
      const piece = whole.pieces.get(asset.id);
      const judged = piece ? judgeOnPage(whole.rules, whole.doc, piece, now) : null;
      const day = judged?.verdict === 'allowed' ? judged.until : null;
      return day !== null && last !== undefined && day <= last ? [{ asset, day }] : [];
    })
    .sort((one, other) => one.day.localeCompare(other.day));
  if (!soonest || today === undefined) return null;
  const { asset, day } = soonest;
  const left = Math.round((Date.parse(day) - Date.parse(today)) / DAY_MILLIS);
  return {
    id: `ending-${whole.row.id}`,
    kind: 'rights',
    before: 'A piece on',
    subject: whole.row.title,
    after: `may be used until ${sayDay(day)}.`,
    detail: `${asset.label.title || asset.stem}: ${left === 0 ? 'today is its last day' : left === 1 ? 'until tomorrow' : `${left} days are left`}. Renew it, put another in its place, or take it off.`,
    // The day is said already, and it is the piece's, not the page's.
    due: null,
    action: 'Look at it',
    address: `${pageAddress(whole)}?piece=${asset.id}&row=terms`,
    thumb: thumbAddress(context, asset),
    count: null,
  };
}

/** Licences that only a file or a source says, and nobody has kept. */
function claimed(context: Context, whole: WholePage, now: Date): OpenErrand | null {
  const all = piecesOn(whole).filter((asset) => {
    const piece = whole.pieces.get(asset.id);
    return (
      piece &&
      judgeOnPage(whole.rules, whole.doc, piece, now).reasons.some(({ code }) => code === 'licence-claimed')
    );
  });
  const [first] = all;
  if (!first) return null;
  return {
    id: `claimed-${whole.row.id}`,
    kind: 'rights',
    before: all.length === 1 ? 'The licence of a piece on' : `The licences of ${all.length} pieces on`,
    subject: whole.row.title,
    after: all.length === 1 ? 'is only claimed.' : 'are only claimed.',
    detail: `${first.label.title || first.stem}: look, and keep it.`,
    due: whole.row.due,
    action: 'Look at it',
    address: `${pageAddress(whole)}?piece=${first.id}`,
    thumb: thumbAddress(context, first),
    count: all.length === 1 ? null : all.length,
  };
}

/** What files and sources say otherwise than labels, and nobody has decided. */
function contradicted(context: Context, whole: WholePage, otherwise: SaidOtherwise): OpenErrand | null {
  const all = piecesOn(whole).filter(({ id }) => otherwise.has(id));
  const [first] = all;
  const [said] = first ? (otherwise.get(first.id) ?? []) : [];
  if (!first || !said) return null;
  const isOne = all.length === 1;
  return {
    id: `otherwise-${whole.row.id}`,
    kind: 'rights',
    before: isOne ? 'The credit of a piece on' : `The credits of ${all.length} pieces on`,
    subject: whole.row.title,
    after:
      said.by === 'file'
        ? `${isOne ? 'contradicts its file' : 'contradict their files'}.`
        : `${isOne ? 'is' : 'are'} not what the source says by now.`,
    detail: `${first.label.title || first.stem}: ${sayOtherwise(said)}`,
    due: whole.row.due,
    action: 'Look at it',
    address: `${pageAddress(whole)}?piece=${first.id}`,
    thumb: thumbAddress(context, first),
    count: isOne ? null : all.length,
  };
}

function unworded(context: Context, whole: WholePage): OpenErrand | null {
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
    address:
      bare.length === 1
        ? `${pageAddress(whole)}?piece=${first.asset}&row=words`
        : `/shelf/words?place=page&page=${whole.row.id}`,
    thumb: bare.length === 1 && row ? thumbAddress(context, row) : null,
    count: bare.length === 1 ? null : bare.length,
  };
}

function unfilled(whole: WholePage): OpenErrand | null {
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

/** What was planned and came to nothing: readers wait for it, or still get it. */
function planFailed(whole: WholePage, why: string | undefined): OpenErrand | null {
  if (why === undefined) return null;
  return {
    id: `sent-${whole.row.id}`,
    kind: 'sent',
    before: '',
    subject: whole.row.title,
    after: 'was not sent or taken down as planned.',
    detail: why,
    due: null,
    action: 'Look at it',
    address: `${pageAddress(whole)}/sent`,
    thumb: null,
    count: null,
  };
}

/** By page, how it stands where it was sent to. */
type SentOf = Awaited<ReturnType<typeof standingSent>>;

/** What was sent and does not stand there as it was sent, or not any more. */
function otherwiseThere(whole: WholePage, sent: SentOf): OpenErrand | null {
  const there = sent.get(whole.row.id);
  if (!there) return null;
  const { lost, words } = there;
  const [first] = lost;
  if (!first && words === '') return null;
  return {
    id: `sent-${whole.row.id}`,
    kind: 'sent',
    before: '',
    subject: whole.row.title,
    after: first ? 'does not stand there as it was sent.' : 'could not be read back.',
    detail: first ? sayDifference(first).sentence : words,
    due: null,
    action: 'Look at it',
    address: `${pageAddress(whole)}/sent`,
    thumb: null,
    count: lost.length > 1 ? lost.length : null,
  };
}

function stopped(whole: WholePage): OpenErrand | null {
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
