import type { Change } from '../media/recipe-says.ts';
import { EN } from '../messages/en.ts';
import type { Judgement, Reason } from './judgement.ts';
import { sayRegions } from './regions.ts';
import type { AgreedUse, Decision } from './terms.ts';

const dayFormat = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'long',
  year: 'numeric',
  timeZone: 'UTC',
});

/** A day of the calendar as it is said: "14 December 2026". */
export const sayDay = (day: string): string => dayFormat.format(new Date(`${day}T00:00:00Z`));

/** The ways of publishing, as they stand in a list and in a sentence. */
export const USE_WORDS: Readonly<Record<AgreedUse, string>> = {
  web: 'the web',
  newsletter: 'newsletters',
  social: 'social media',
  print: 'print',
  advertising: 'advertising',
};

export const sayUses = (uses: readonly AgreedUse[]): string =>
  new Intl.ListFormat('en-GB').format(uses.map((use) => USE_WORDS[use]));

const LACKING = { agency: 'the agency', id: 'its ID there' } as const;

/** A reason in a sentence or two: the term that it rests on, and what would change it. */
export function sayReason(reason: Reason): string {
  switch (reason.code) {
    case 'licence-unknown':
      return 'Nobody has said under which licence it may be used.';
    case 'licence-claimed':
      return `That it is under ${reason.licence} is only claimed, by ${reason.source || 'its file'}. Look, and keep it.`;
    case 'comp':
      return 'It is a comp: to be laid out, never sent. It has to be bought first.';
    case 'no-permission':
      return 'It is in copyright and no permission is on file.';
    case 'licence-refuses':
      return `${reason.licence} does not let it be published.${reason.isDecidable ? ' Whether it may be all the same is for the rights keeper to decide.' : ''}`;
    case 'statement':
      return `Its statement says: ${reason.licence}. Whether it may be used all the same is for the rights keeper to decide.`;
    case 'not-commercial':
      return `${reason.licence} forbids commercial use, and ${reason.targetName} is commercial.`;
    case 'educational-only':
      return `Its statement allows educational use alone, and ${reason.targetName} is not said to be educational.`;
    case 'no-changes':
      return `${reason.licence} forbids changes, and it is ${EN.changed(reason.changes)} here. Show it ${reason.changes.includes('cropped') ? 'whole' : 'as it is'}.`;
    case 'territory':
      return `It may be shown in ${sayRegions(reason.agreed)}, and ${reason.targetName} is read ${reason.place.length === 0 ? 'everywhere' : `in ${sayRegions(reason.place)}`}.`;
    case 'use-not-agreed':
      return `It was agreed for ${sayUses(reason.agreed)}, not for ${USE_WORDS[reason.publishing]}.`;
    case 'not-yet':
      return reason.of === 'agreement'
        ? `What was agreed begins on ${sayDay(reason.day)}.`
        : `It is to be shown from ${sayDay(reason.day)}.`;
    case 'over':
      return reason.of === 'agreement'
        ? `What was agreed ended on ${sayDay(reason.day)}. Renew it, or put another in its place.`
        : `It was to be shown until ${sayDay(reason.day)}.`;
    case 'not-public':
      return reason.seenBy === 'house'
        ? 'It is for the house alone, and not for readers.'
        : 'It is for a group of the house alone, and not for readers.';
    case 'other-page':
      return 'It is kept for one page, and this is not it.';
    case 'ask-first':
      return 'The rights keeper is asked before it is used.';
    case 'consent':
      return reason.consent === 'missing'
        ? 'The consent of people shown in it is missing.'
        : 'Somebody shown in it has withdrawn their consent.';
    case 'agency-missing':
      return `The credit names the agency and its ID, and ${new Intl.ListFormat('en-GB').format(reason.lacks.map((one) => LACKING[one]))} ${reason.lacks.length === 1 ? 'is' : 'are'} not said.`;
    case 'maker-missing':
      return `${reason.licence} owes a credit, and neither maker nor source is known.`;
  }
}

function sayDuty(duty: Judgement['duties'][number], changes: readonly Change[]): string {
  switch (duty) {
    case 'credit':
      return 'The credit is owed.';
    case 'say-changes':
      return `The credit must say that it was ${EN.changed(changes)}.`;
    case 'same-licence':
      return 'The changed picture stays under the same licence; the page does not.';
  }
}

const sayDecision = ({ by, on, why }: Decision): string => `${by} decided so on ${sayDay(on)}: “${why}”`;

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
      return [
        judgement.until === null ? 'May be used here.' : `May be used here until ${sayDay(judgement.until)}.`,
        ...judgement.decisions.map(sayDecision),
        ...(owes.length > 0 ? owes : ['No credit required.']),
      ].join(' ');
    case 'allowed-if':
      return [sayCondition(judgement.reasons), ...why].join(' ');
    case 'not-allowed':
      return ['May not be used here.', ...why].join(' ');
  }
}

function sayCondition(reasons: readonly Reason[]): string {
  return reasons.some(({ code }) => code === 'licence-claimed')
    ? 'May be used here once somebody has kept its licence.'
    : 'May be used here once the credit is complete.';
}
