import type { Change } from '../media/recipe-says.ts';
import { EN } from '../messages/en.ts';
import type { Label } from './label.ts';
import { type LicenceId, licenceTerms } from './licences.ts';

/** One use of a piece: where, and what is done to it. */
export interface Use {
  readonly targetName: string;
  readonly commercial: boolean;
  readonly creditOwnWork: boolean;
  readonly changes: readonly Change[];
  /** Whether a copy goes out. False for what its host shows in a frame, and for what is only linked to. */
  readonly copies: boolean;
}

/** A copy of a piece on a target, changed like this. */
export function copyAt(
  target: { readonly name: string; readonly commercial: boolean; readonly creditOwnWork: boolean },
  changes: readonly Change[] = [],
): Use {
  const { name, commercial, creditOwnWork } = target;
  return { targetName: `the ${name}`, commercial, creditOwnWork, changes, copies: true };
}

export type Reason =
  | { readonly code: 'licence-unknown' }
  | { readonly code: 'comp' }
  | { readonly code: 'no-permission' }
  | { readonly code: 'not-commercial'; readonly licence: string; readonly targetName: string }
  | { readonly code: 'no-changes'; readonly licence: string; readonly changes: readonly Change[] }
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
}

/** Judges one use of a piece by its licence's terms (the table in `licences.ts`). */
export function judge(label: Label, use: Use): Judgement {
  if (needsNoLicence(label.licence, use))
    return { verdict: 'allowed', reasons: [], duties: [], changes: [], restsOn: 'nothing-copied' };
  return { ...byLicence(label, use), changes: use.changes, restsOn: 'licence' };
}

/** What is said of a thing's licence holds however it is shown; where nothing is said, a frame or link needs none. */
function needsNoLicence(licence: LicenceId, { copies }: Use): boolean {
  return licence === 'not-copied' || (licence === 'unknown' && !copies);
}

function byLicence(label: Label, use: Use): Pick<Judgement, 'verdict' | 'reasons' | 'duties'> {
  const terms = licenceTerms(label.licence);
  if (!terms.publish) return { verdict: 'not-allowed', reasons: [closedReason(label.licence)], duties: [] };
  const refused: Reason[] = [];
  if (use.commercial && !terms.commercial) {
    refused.push({ code: 'not-commercial', licence: terms.short, targetName: use.targetName });
  }
  // Changing format or size alone is never adapted material: CC BY 4.0 s2(a)(4). A crop may be, so ND asks first.
  if (use.changes.length > 0 && !terms.allowsDerivatives)
    refused.push({ code: 'no-changes', licence: terms.short, changes: use.changes });
  const duties = dutiesOf(label.licence, use);
  if (refused.length > 0) return { verdict: 'not-allowed', reasons: refused, duties };
  if (duties.includes('credit') && label.creator === '' && label.source === '') {
    return {
      verdict: 'allowed-if',
      reasons: [{ code: 'maker-missing', licence: terms.short }],
      duties,
    };
  }
  return { verdict: 'allowed', reasons: [], duties };
}

function closedReason(licence: LicenceId): Reason {
  if (licence === 'comp') return { code: 'comp' };
  return licence === 'unknown' ? { code: 'licence-unknown' } : { code: 'no-permission' };
}

function dutiesOf(licence: LicenceId, use: Use): readonly Duty[] {
  const terms = licenceTerms(licence);
  const duties: Duty[] = [];
  if (terms.owesCredit === 'yes' || (terms.owesCredit === 'house' && use.creditOwnWork))
    duties.push('credit');
  if (terms.sayChanges && use.changes.length > 0) duties.push('say-changes');
  if (terms.shareAlike && use.changes.length > 0) duties.push('same-licence');
  return duties;
}

export function sayReason(reason: Reason): string {
  switch (reason.code) {
    case 'licence-unknown':
      return 'Nobody has said under which licence it may be used.';
    case 'comp':
      return 'It is a comp: to be laid out, never sent. It has to be bought first.';
    case 'no-permission':
      return 'It is in copyright and no permission is on file.';
    case 'not-commercial':
      return `${reason.licence} forbids commercial use, and ${reason.targetName} is commercial.`;
    case 'no-changes':
      return `${reason.licence} forbids changes, and it is ${EN.changed(reason.changes)} here. Show it ${reason.changes.includes('cropped') ? 'whole' : 'as it is'}.`;
    case 'maker-missing':
      return `${reason.licence} owes a credit, and neither maker nor source is known.`;
  }
}

function sayDuty(duty: Duty, changes: readonly Change[]): string {
  switch (duty) {
    case 'credit':
      return 'The credit is owed.';
    case 'say-changes':
      return `The credit must say that it was ${EN.changed(changes)}.`;
    case 'same-licence':
      return 'The changed picture stays under the same licence; the page does not.';
  }
}

/** The whole judgement in plain sentences, as the label says it. */
export function sayJudgement(judgement: Judgement): string {
  if (judgement.restsOn === 'nothing-copied')
    return 'May be used here. Its host shows it and nothing of it is copied, so no credit is required.';
  const duties = judgement.duties.filter(
    (duty) => duty !== 'credit' || !judgement.duties.includes('say-changes'),
  );
  const owes = duties.map((duty) => sayDuty(duty, judgement.changes));
  const why = judgement.reasons.map(sayReason);
  switch (judgement.verdict) {
    case 'allowed':
      return ['May be used here.', ...(owes.length > 0 ? owes : ['No credit required.'])].join(' ');
    case 'allowed-if':
      return ['May be used here once the credit is complete.', ...why].join(' ');
    case 'not-allowed':
      return ['May not be used here.', ...why].join(' ');
  }
}
