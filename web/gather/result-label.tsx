import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import type { CloserLook, SealedPicture } from '#api/gather.ts';
import {
  firstSaid,
  type LicenceReading,
  labelFrom,
  readLicence,
  sayLicenceReading,
} from '#core/gather/reading.ts';
import type { Statement } from '#core/gather/statement.ts';
import { shapeOf } from '#core/media/dimensions.ts';
import { messagesFor } from '#core/messages/messages.ts';
import type { Want } from '#core/page/model.ts';
import type { HouseRules } from '#core/page/target.ts';
import { creditOf, creditText } from '#core/rights/credit.ts';
import { termsOf } from '#core/rights/house-licence.ts';
import { copyAt, judge } from '#core/rights/judgement.ts';
import { EMPTY_LABEL, type Label, withPatch } from '#core/rights/label.ts';
import { isLicenceId, type LicenceId, licenceTerms } from '#core/rights/licences.ts';
import { sayJudgement } from '#core/rights/say-judgement.ts';
import { LabelRow } from '../label/row.tsx';
import { Compare } from '../lookalikes/compare.tsx';
import { Button } from '../ui/button.tsx';
import { sayDate } from '../ui/dates.ts';
import { Field } from '../ui/field.tsx';
import { Select } from '../ui/select.tsx';
import { closerQuery } from './gather-queries.ts';
import { SaidList } from './said-list.tsx';
import { titleOf } from './source-group.tsx';

interface ResultLabelProps {
  readonly picture: SealedPicture;
  readonly rules: HouseRules;
  readonly want: Want | null;
  readonly licence: LicenceId | null;
  readonly onLicence: (licence: LicenceId | null) => void;
  /** What is done with it, under the card. */
  readonly children: ReactNode;
}

/** The label of a result before it is taken: how it fits, what it may be used for, what it owes, what looks like it. */
export function ResultLabel({ picture, rules, want, licence, onLicence, children }: ResultLabelProps) {
  const closer = useQuery(closerQuery(picture.seal));
  const said = [...picture.statements, ...(closer.data?.pageSays ?? [])];
  const reading = readLicence(said);
  const label = labelOf(said, licence);
  const by = [label.creator, sayDate(label.dateCreated)].filter(Boolean).join(' · ');
  return (
    <>
      <article
        className="border-t-7 border-ink bg-panel px-3.75 pb-2 shadow-card"
        aria-label={`Label of ${titleOf(picture)}`}
      >
        <header className="pt-3 pb-2.75">
          <h2 className="font-serif text-3xl leading-tight font-normal wrap-anywhere italic">
            {titleOf(picture)}
          </h2>
          <div className="mt-0.75 flex items-baseline justify-between gap-2.5 text-soft">
            {by || 'Nobody says who made it.'}
          </div>
        </header>
        <LabelRow name="Fit">
          <p>{sayFit(picture, want)}</p>
        </LabelRow>
        <RightsOfResult
          reading={reading}
          label={label}
          rules={rules}
          licence={licence}
          onLicence={onLicence}
        />
        <Offer said={said} />
        <AlikeRow picture={picture} closer={closer.data} isLooking={closer.isPending} />
        <SourceRow picture={picture} closer={closer.data} reading={reading} said={said} />
      </article>
      {children}
    </>
  );
}

function labelOf(said: readonly Statement[], licence: LicenceId | null): Label {
  return withPatch(EMPTY_LABEL, { ...labelFrom(said), ...(licence ? { licence } : {}) });
}

function sayFit({ width, height, statements }: SealedPicture, want: Want | null): string {
  if (width === 0) return 'Its size is not said; it is measured when it comes.';
  const size = `${width} × ${height} px.`;
  const ofOriginal = firstSaid(statements, 'price') ? ' That is the original; the comp is smaller.' : '';
  if (!want) return `${size}${ofOriginal}`;
  const shape = shapeOf({ width, height });
  const isShape = want.shape === 'any' || want.shape === shape;
  const cut = isShape ? '' : ` It is ${shape}, and can be cut to ${want.shape}.`;
  if (want.leastWidth === 0) return `${size}${cut}${ofOriginal}`;
  const times = width / want.leastWidth;
  const fills =
    times >= 1
      ? `Fills the want ${times < 1.05 ? 'just' : `${times.toFixed(1)} times over`}.`
      : `It is ${want.leastWidth - width} px too narrow for the want.`;
  return `${size} ${fills}${cut}${ofOriginal}`;
}

interface RightsProps {
  readonly reading: LicenceReading;
  readonly label: Label;
  readonly rules: HouseRules;
  readonly licence: LicenceId | null;
  readonly onLicence: (licence: LicenceId | null) => void;
}

/** What it may be used for; where the places disagree or say nothing clear, the decision that a person has to make. */
function RightsOfResult({ reading, label, rules, licence, onLicence }: RightsProps) {
  const judgement = judge(label, copyAt(rules));
  const cropped = judge(label, copyAt(rules, ['cropped']));
  const credit = creditText(
    creditOf(label, judgement, {
      made: label.work || 'photo',
      messages: messagesFor(rules.language),
      language: rules.language,
      form: 'full',
    }),
  );
  const unclear = sayLicenceReading(reading);
  return (
    <>
      <LabelRow name="Rights">
        {unclear ? <p className="text-due">{unclear}</p> : null}
        {unclear && reading.kind !== 'silent' && reading.kind !== 'clear' ? (
          <Decision
            voices={reading.voices.flatMap(({ licence: one }) => one ?? [])}
            licence={licence}
            onLicence={onLicence}
          />
        ) : null}
        {unclear && licence === null ? (
          <p className="text-soft">It can be gathered; it cannot go out before its licence is known.</p>
        ) : (
          <p className={judgement.verdict === 'allowed' ? '' : 'text-due'}>
            {termsOf(label).short}. {sayJudgement(judgement)}{' '}
            {judgement.verdict === 'allowed' && cropped.verdict === 'not-allowed'
              ? 'It may not be cropped.'
              : ''}
          </p>
        )}
      </LabelRow>
      {credit ? (
        <LabelRow name="Credit">
          <p>{credit}</p>
        </LabelRow>
      ) : null}
    </>
  );
}

interface DecisionProps {
  readonly voices: readonly LicenceId[];
  readonly licence: LicenceId | null;
  readonly onLicence: (licence: LicenceId | null) => void;
}

function Decision({ voices, licence, onLicence }: DecisionProps) {
  const offered = [...new Set(voices)];
  return (
    <Field name="Which holds?">
      {(control) => (
        <Select
          {...control}
          value={licence ?? ''}
          choices={[
            ['', 'Not decided: leave it unknown'],
            ...[...offered, 'permission' as const, 'copyright' as const].map(
              (id) => [id, licenceTerms(id).name] as const,
            ),
          ]}
          onChoose={(chosen) => onLicence(isLicenceId(chosen) ? chosen : null)}
        />
      )}
    </Field>
  );
}

function Offer({ said }: { readonly said: readonly Statement[] }) {
  const price = firstSaid(said, 'price');
  if (!price) return null;
  const terms = firstSaid(said, 'terms');
  return (
    <LabelRow name="Price">
      <p>
        {price}
        {terms ? ` for ${terms}` : ''}. The comp is free to lay out, and goes out only when it is bought.
      </p>
    </LabelRow>
  );
}

interface AlikeProps {
  readonly picture: SealedPicture;
  readonly closer: CloserLook | undefined;
  readonly isLooking: boolean;
}

function AlikeRow({ picture, closer, isLooking }: AlikeProps) {
  const [compared, setCompared] = useState(false);
  if (isLooking) {
    return (
      <LabelRow name="Looks like">
        <p className="text-soft">The shelf is looked through.</p>
      </LabelRow>
    );
  }
  const alike = closer?.alike ?? [];
  const [first] = alike;
  if (!first) return null;
  return (
    <LabelRow name="Looks like">
      <p>
        <span className="font-mono text-mono">{first.asset.stem}</span> on your shelf
        {alike.length > 1 ? `, and ${alike.length - 1} more` : ''}.
      </p>
      <Button kind="link" onClick={() => setCompared(true)}>
        Compare
      </Button>
      {compared ? (
        <Compare
          fresh={{
            title: titleOf(picture),
            look: picture.look,
            width: picture.width,
            height: picture.height,
            maker: firstSaid([...picture.statements, ...(closer?.pageSays ?? [])], 'maker'),
          }}
          names={['The new one', 'The one on the shelf']}
          held={alike.map(({ asset }) => asset)}
          onClose={() => setCompared(false)}
        />
      ) : null}
    </LabelRow>
  );
}

interface SourceProps {
  readonly picture: SealedPicture;
  readonly closer: CloserLook | undefined;
  readonly reading: LicenceReading;
  readonly said: readonly Statement[];
}

/** Where it comes from, whether its page says the same, and all that is said, word for word. */
function SourceRow({ picture, closer, reading, said }: SourceProps) {
  const page = picture.pageAddress || picture.address;
  return (
    <LabelRow name="Source">
      <p>
        {closer?.pageFault
          ? closer.pageFault
          : closer && closer.pageSays.length > 0
            ? sayAgreement(reading)
            : 'What is said of it stands below, word for word.'}
      </p>
      <p>
        <a href={page} target="_blank" rel="noopener noreferrer">
          {new URL(page).hostname}
        </a>
      </p>
      <SaidList said={said} words="All that is said" />
    </LabelRow>
  );
}

function sayAgreement(reading: LicenceReading): string {
  switch (reading.kind) {
    case 'clear':
      return reading.voices.length > 1
        ? 'Its page says the same licence.'
        : 'Its page says nothing of a licence.';
    case 'contradicting':
      return 'Its page says another licence.';
    default:
      return 'Its page makes the licence no clearer.';
  }
}
