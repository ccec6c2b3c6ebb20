import type { LedgerQuery } from '#api/rights.ts';
import { licenceShorts, useHouseLicences } from '../label/licences.ts';
import { Choice, Sentence, Written } from '../sentence/sentence.tsx';

const MATTERS = [
  ['waits', 'what waits for somebody'],
  ['ends', 'what ends'],
  ['claimed', 'what is only claimed'],
  ['consent', 'what lacks a consent'],
  ['comp', 'comps'],
  ['not-cleared', 'what is not cleared'],
  ['owes-credit', 'what owes a credit'],
  ['all', 'every piece'],
] as const;
const WITHIN = [
  ['30', 'a month'],
  ['90', 'three months'],
  ['183', 'six months'],
  ['366', 'a year'],
  ['any', 'any time'],
] as const;
const PLACES = [
  ['pages', 'on any page'],
  ['out', 'on pages that are out'],
  ['nowhere', 'on no page'],
  ['anywhere', 'on a page or not'],
] as const;
const ORDERS = [
  ['soonest', 'soonest'],
  ['name', 'by name'],
  ['newest', 'newest'],
] as const;

/** Whether a last day has to be near for what is asked. */
const asksWithin = (matter: LedgerQuery['matter']) =>
  matter === undefined || matter === 'waits' || matter === 'ends';

/** The one sentence that the ledger of rights is asked with. */
export function RightsQuestion({
  question,
  onAsk,
}: {
  readonly question: LedgerQuery;
  readonly onAsk: (question: LedgerQuery) => void;
}) {
  const change = (part: LedgerQuery) => onAsk({ ...question, ...part });
  const licences = [['any', 'any licence'] as const, ...licenceShorts(useHouseLicences())];
  const { maker = '', source = '' } = question;
  return (
    <Sentence>
      Show{' '}
      <Choice
        about="Matter"
        value={question.matter ?? 'waits'}
        choices={MATTERS}
        onChoose={(matter) => change({ matter })}
      />
      {asksWithin(question.matter) ? (
        <>
          {question.matter === 'ends' ? ' within ' : ' or ends within '}
          <Choice
            about="Within"
            value={question.within ?? '183'}
            choices={WITHIN}
            onChoose={(within) => change({ within })}
          />
        </>
      ) : null}
      ,{' '}
      <Choice
        about="Place"
        value={question.place ?? 'pages'}
        choices={PLACES}
        onChoose={(place) => change({ place })}
      />
      , by{' '}
      <Written
        about="Maker"
        value={maker}
        words={maker || 'anyone'}
        onWrite={(next) => change({ maker: next })}
      />
      , from{' '}
      <Written
        about="Source"
        value={source}
        words={source || 'anywhere'}
        onWrite={(next) => change({ source: next })}
      />
      , under{' '}
      <Choice
        about="Licence"
        value={question.licence ?? 'any'}
        choices={licences}
        onChoose={(licence) => change({ licence })}
      />
      ,{' '}
      <Choice
        about="Order"
        value={question.order ?? 'soonest'}
        choices={ORDERS}
        onChoose={(order) => change({ order })}
      />{' '}
      first
    </Sentence>
  );
}
