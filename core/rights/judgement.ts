import type { Change } from '../media/recipe-says.ts';
import { termsOf } from './house-licence.ts';
import type { Label } from './label.ts';
import type { LicenceId, LicenceTerms } from './licences.ts';
import { isWithin } from './regions.ts';
import { isSameName } from './same-name.ts';
import { type AgreedUse, type Decidable, type Decision, lastDayOf } from './terms.ts';

/** Where and how a target shows what stands on it. */
interface Place {
  readonly name: string;
  readonly commercial: boolean;
  readonly creditOwnWork: boolean;
  /** Where its pages are read; none for everywhere. */
  readonly territory: readonly string[];
  readonly educational: boolean;
  readonly publishing: AgreedUse;
  /** The page that is spoken of, by its ID; not said where it is none. */
  readonly onPage?: string;
  /** Sources whose word on a licence is enough. */
  readonly trustedSources: readonly string[];
}

/** One use of a piece: where, when, and what is done to it. */
export interface Use extends Omit<Place, 'name'> {
  readonly targetName: string;
  readonly changes: readonly Change[];
  /** Whether a copy goes out. False for what its host shows in a frame, and for what is only linked to. */
  readonly copies: boolean;
  /** The day in the target's time zone (YYYY-MM-DD); null where no day is asked about. */
  readonly day: string | null;
}

/** A copy of a piece on a target, changed like this, on a day. */
export function copyAt(target: Place, changes: readonly Change[] = [], day: string | null = null): Use {
  const { name, commercial, creditOwnWork, territory, educational, publishing, trustedSources } = target;
  return {
    ...(target.onPage === undefined ? {} : { onPage: target.onPage }),
    targetName: `the ${name}`,
    commercial,
    creditOwnWork,
    territory,
    educational,
    publishing,
    trustedSources,
    changes,
    copies: true,
    day,
  };
}

/** Why a use is not simply allowed; each names the term that it rests on. */
export type Reason =
  | { readonly code: 'licence-unknown' }
  | { readonly code: 'licence-claimed'; readonly licence: string; readonly source: string }
  | { readonly code: 'comp' }
  | { readonly code: 'no-permission' }
  | { readonly code: 'licence-refuses'; readonly licence: string; readonly isDecidable: boolean }
  | { readonly code: 'statement'; readonly licence: string }
  | { readonly code: 'not-commercial'; readonly licence: string; readonly targetName: string }
  | { readonly code: 'educational-only'; readonly licence: string; readonly targetName: string }
  | { readonly code: 'no-changes'; readonly licence: string; readonly changes: readonly Change[] }
  | {
      readonly code: 'territory';
      readonly agreed: readonly string[];
      readonly place: readonly string[];
      readonly targetName: string;
    }
  | { readonly code: 'use-not-agreed'; readonly agreed: readonly AgreedUse[]; readonly publishing: AgreedUse }
  | { readonly code: 'not-yet'; readonly day: string; readonly of: 'agreement' | 'showing' }
  | { readonly code: 'over'; readonly day: string; readonly of: 'agreement' | 'showing' }
  | { readonly code: 'not-public'; readonly seenBy: 'house' | 'group' }
  | { readonly code: 'other-page' }
  | { readonly code: 'ask-first' }
  | { readonly code: 'consent'; readonly consent: 'missing' | 'withdrawn' }
  | { readonly code: 'agency-missing'; readonly lacks: readonly ('agency' | 'id')[] }
  | { readonly code: 'maker-missing'; readonly licence: string };

type Duty = 'credit' | 'say-changes' | 'same-licence';

/**
 * Whether a piece may be used like this, and what it owes. "allowed-if" names what is still missing. A help, not
 * legal advice.
 */
export interface Judgement {
  readonly verdict: 'allowed' | 'allowed-if' | 'not-allowed';
  readonly reasons: readonly Reason[];
  readonly duties: readonly Duty[];
  /** What is done to the piece in this use. */
  readonly changes: readonly Change[];
  /** What the verdict rests on: the piece's licence, or that nothing of it is copied, so that none is needed. */
  readonly restsOn: 'licence' | 'nothing-copied';
  /** The decisions without which it would not be allowed. */
  readonly decisions: readonly Decision[];
  /** The last day on which it is allowed; null where no end is known. */
  readonly until: string | null;
}

/**
 * Judges one use of a piece: by its licence (the table in `licences.ts`), by what was agreed for it (`terms.ts`), and by what a
 * person decided. `isClaimed`: its licence is only said by the file or the place it came from, and nobody has kept it.
 */
export function judge(label: Label, use: Use, isClaimed = false): Judgement {
  const until = lastDayOf(label.terms);
  if (needsNoLicence(label.licence, use))
    return {
      verdict: 'allowed',
      reasons: [],
      duties: [],
      changes: [],
      restsOn: 'nothing-copied',
      decisions: [],
      until,
    };
  const terms = termsOf(label);
  const duties = terms.publish ? dutiesOf(terms, use) : [];
  const refused = [...refusedBy(label, terms, use), ...refusedByTerms(label, use)];
  const decided = refused.map((reason) => ({ reason, decision: decisionOn(reason, label, use) }));
  const left = decided.flatMap(({ reason, decision }) => (decision ? [] : [reason]));
  const missing = left.length > 0 ? [] : missingFor(label, terms, duties, use, isClaimed);
  return {
    verdict: left.length > 0 ? 'not-allowed' : missing.length > 0 ? 'allowed-if' : 'allowed',
    reasons: left.length > 0 ? left : missing,
    duties,
    changes: use.changes,
    restsOn: 'licence',
    decisions: decided.flatMap(({ decision }) => decision ?? []),
    until,
  };
}

/** What is said of a thing's licence holds however it is shown; where nothing is said, a frame or link needs none. */
function needsNoLicence(licence: LicenceId, { copies }: Use): boolean {
  return licence === 'not-copied' || (licence === 'unknown' && !copies);
}

/** What the licence or statement itself refuses, the most weighing first. */
function refusedBy(label: Label, terms: LicenceTerms, use: Use): readonly Reason[] {
  const { short: licence } = terms;
  if (!terms.publish) return [closedReason(label.licence, terms)];
  const refused: Reason[] = [];
  if (use.commercial && !terms.commercial)
    refused.push({ code: 'not-commercial', licence, targetName: use.targetName });
  else if (terms.educationalOnly && !use.educational)
    refused.push({ code: 'educational-only', licence, targetName: use.targetName });
  if (terms.onlyIn !== null && !isWithin(use.territory, [terms.onlyIn]))
    refused.push(outside([terms.onlyIn], use));
  // Changing format or size alone is never adapted material: CC BY 4.0 s2(a)(4). A crop may be, so ND asks first.
  if (use.changes.length > 0 && !terms.allowsDerivatives)
    refused.push({ code: 'no-changes', licence, changes: use.changes });
  return refused;
}

function closedReason(licence: LicenceId, terms: LicenceTerms): Reason {
  if (licence === 'house')
    return { code: 'licence-refuses', licence: terms.short, isDecidable: terms.decision };
  if (terms.decision) return { code: 'statement', licence: terms.short };
  if (licence === 'comp') return { code: 'comp' };
  return licence === 'unknown' ? { code: 'licence-unknown' } : { code: 'no-permission' };
}

const outside = (agreed: readonly string[], { territory, targetName }: Use): Reason => ({
  code: 'territory',
  agreed,
  place: territory,
  targetName,
});

/** What was agreed besides the licence. A term's first and last day are both included. */
function refusedByTerms({ terms }: Label, use: Use): readonly Reason[] {
  const refused: Reason[] = [];
  const { seenBy, usableBy } = terms;
  if (seenBy.who !== 'readers') refused.push({ code: 'not-public', seenBy: seenBy.who });
  if (usableBy.who === 'page' && usableBy.page !== use.onPage) refused.push({ code: 'other-page' });
  if (usableBy.who === 'rights-keeper') refused.push({ code: 'ask-first' });
  if (terms.consent === 'missing' || terms.consent === 'withdrawn')
    refused.push({ code: 'consent', consent: terms.consent });
  if (use.day !== null) {
    if (terms.begins > use.day) refused.push({ code: 'not-yet', day: terms.begins, of: 'agreement' });
    if (terms.ends !== '' && terms.ends < use.day)
      refused.push({ code: 'over', day: terms.ends, of: 'agreement' });
    if (terms.shownFrom > use.day) refused.push({ code: 'not-yet', day: terms.shownFrom, of: 'showing' });
    if (terms.shownUntil !== '' && terms.shownUntil < use.day)
      refused.push({ code: 'over', day: terms.shownUntil, of: 'showing' });
  }
  if (!isWithin(use.territory, terms.territory)) refused.push(outside(terms.territory, use));
  if (terms.uses.length > 0 && !terms.uses.includes(use.publishing))
    refused.push({ code: 'use-not-agreed', agreed: terms.uses, publishing: use.publishing });
  return refused;
}

/** What a recorded decision can say all the same of a reason. A comp is bought, a consent asked for, a term renewed. */
const DECIDED_BY: Readonly<Partial<Record<Reason['code'], Decidable>>> = {
  statement: 'publish',
  'no-permission': 'publish',
  'not-commercial': 'commercial',
  'educational-only': 'commercial',
  'no-changes': 'changes',
  territory: 'territory',
  'ask-first': 'use',
};

/** What would have to be decided for a reason to fall away; null for what nobody can decide. */
export function decidableOf(reason: Reason): Decidable | null {
  if (reason.code === 'licence-refuses') return reason.isDecidable ? 'publish' : null;
  return DECIDED_BY[reason.code] ?? null;
}

function decisionOn(reason: Reason, { decisions }: Label, { targetName }: Use): Decision | null {
  const about = decidableOf(reason);
  const here = decisions.find(
    ({ about: decided, target }) => decided === about && (target === '' || `the ${target}` === targetName),
  );
  return here ?? null;
}

/** What is not there yet and has to be before it goes out. */
function missingFor(
  label: Label,
  { short: licence }: LicenceTerms,
  duties: readonly Duty[],
  use: Use,
  isClaimed: boolean,
): readonly Reason[] {
  const missing: Reason[] = [];
  if (isClaimed && !use.trustedSources.some((name) => isSameName(name, label.source)))
    missing.push({ code: 'licence-claimed', licence, source: label.source });
  // What an agency asks for in its credit is how it finds what it sold.
  const lacks = [
    ...(label.source === '' ? (['agency'] as const) : []),
    ...(label.sourceId === '' ? (['id'] as const) : []),
  ];
  if (label.licence === 'agency' && lacks.length > 0) missing.push({ code: 'agency-missing', lacks });
  else if (duties.includes('credit') && !hasSomebody(label)) missing.push({ code: 'maker-missing', licence });
  return missing;
}

/** Whether there is anybody to credit. A notice names whose the work is (CC BY 4.0 s3(a)(1)(A)(i) and (ii)). */
const hasSomebody = ({ creator, source, copyrightNotice }: Label): boolean =>
  creator !== '' || source !== '' || copyrightNotice !== '';

function dutiesOf(terms: LicenceTerms, use: Use): readonly Duty[] {
  const duties: Duty[] = [];
  if (terms.owesCredit === 'yes' || (terms.owesCredit === 'house' && use.creditOwnWork))
    duties.push('credit');
  if (terms.sayChanges && use.changes.length > 0) duties.push('say-changes');
  if (terms.shareAlike && use.changes.length > 0) duties.push('same-licence');
  return duties;
}
