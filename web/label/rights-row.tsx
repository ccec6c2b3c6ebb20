import { useQuery } from '@tanstack/react-query';
import * as v from 'valibot';
import type { Asset } from '#api/assets.ts';
import { may } from '#api/people.ts';
import { messagesFor } from '#core/messages/messages.ts';
import { embedOf, isPicture } from '#core/page/piece.ts';
import type { HouseRules } from '#core/page/target.ts';
import { creditedAs, judgeHere, judgeUnplaced } from '#core/page/words.ts';
import { creditOf, creditText } from '#core/rights/credit.ts';
import { sayCreditParts } from '#core/rights/credit-words.ts';
import { LicenceKeySchema, licenceByKey, licenceKeyOf, termsOf } from '#core/rights/house-licence.ts';
import { decidableOf } from '#core/rights/judgement.ts';
import { type LabelPatch, LabelSchema, WORKS } from '#core/rights/label.ts';
import { labelIn } from '#core/rights/label-in.ts';
import { sayJudgement } from '#core/rights/say-judgement.ts';
import { meQuery } from '../api/queries.ts';
import { BuyDeed } from '../buying/buy-deed.tsx';
import { Line, OneOfList } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { changePiece, pieceOf } from '../pieces/pieces.ts';
import { useOpened } from '../pieces/use-opened.ts';
import { Button } from '../ui/button.tsx';
import { Fault } from '../ui/fault.tsx';
import { CreditForm } from './credit-form.tsx';
import { DecisionForm } from './decision-form.tsx';
import { InUseLine } from './in-use-line.tsx';
import { licenceGroups, useHouseLicences } from './licences.ts';
import { LabelForm, LabelRow, OpenRow, type RowState, type Use } from './row.tsx';
import { isTermsRowShown } from './terms-row.tsx';
import { useLabelChange } from './use-label-change.ts';

interface RightsRowProps extends RowState {
  /** The row of what was agreed, which is opened from here while nothing was. */
  readonly terms: RowState;
  readonly decision: RowState;
  readonly credit: RowState;
  readonly asset: Asset;
  readonly rules: HouseRules;
  readonly use: Use | null;
}

/** What a licence that was only claimed is kept by. */
const OF_LICENCE: ReadonlySet<string> = new Set(['licence', 'houseLicence', 'licenceAddress']);

const OF_POSTER = 'To show its poster, a licence would have to be said.';

/** Whether it may be used here, like this, and what it owes. */
export function RightsRow({
  asset,
  rules,
  use,
  terms: ofTerms,
  decision,
  credit: ofCredit,
  ...state
}: RightsRowProps) {
  const { data: me } = useQuery(meQuery);
  const { fault, save } = useLabelChange(asset);
  const piece = pieceOf(asset);
  const now = new Date();
  const judgement = use ? judgeHere(rules, use.placement, piece, now) : judgeUnplaced(rules, piece, now);
  const label = labelIn(asset.label, rules.language);
  const credit = creditOf(label, judgement, {
    made: creditedAs(piece),
    messages: messagesFor(rules.language),
    language: rules.language,
    form: 'full',
  });
  const said = creditText(credit);
  const terms = termsOf(asset.label);
  const isUnknown = asset.label.licence === 'unknown';
  const isClaimed = judgement.reasons.some(({ code }) => code === 'licence-claimed');
  const [about = null] = judgement.reasons.flatMap((reason) => decidableOf(reason) ?? []);
  const maySay = state.isEditable && me ? may(me.role, 'say-rights') : false;
  const mayDecide = state.isEditable && me ? may(me.role, 'decide-rights') : false;
  return (
    <LabelRow
      name="Rights"
      isUnsaid={isUnknown}
      way={<OpenRow words={isUnknown ? 'Set licence' : 'Change rights'} isWhole={isUnknown} state={state} />}
      form={
        state.isOpen ? (
          <RightsForm key={asset.id} asset={asset} onDone={state.onToggle} />
        ) : decision.isOpen && about !== null && mayDecide ? (
          <DecisionForm
            key={asset.id}
            asset={asset}
            about={about}
            targetName={rules.name}
            onDone={decision.onToggle}
          />
        ) : ofCredit.isOpen && ofCredit.isEditable ? (
          <CreditForm
            key={asset.id}
            asset={asset}
            rules={rules}
            judgement={judgement}
            onDone={ofCredit.onToggle}
          />
        ) : null
      }
    >
      <p className={judgement.verdict === 'allowed' ? '' : 'text-due'}>{sayJudgement(judgement)}</p>
      {judgement.decisions.map(({ document, on }) =>
        document === null ? null : <RestsOn key={`${document} ${on}`} id={document} />,
      )}
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 empty:hidden">
        {asset.label.licence === 'comp' && maySay ? (
          <BuyDeed comps={[asset]} words="Buy the original..." />
        ) : null}
        {isClaimed && maySay ? (
          <Button
            onClick={() =>
              void save(
                { confirmed: asset.drafted.filter((field) => OF_LICENCE.has(field)) },
                'keeping its licence',
              )
            }
          >
            Keep this licence
          </Button>
        ) : null}
        {about !== null && mayDecide ? (
          <OpenRow words="Decide it all the same" isWhole state={decision} />
        ) : null}
        {judgement.decisions.length > 0 && mayDecide ? (
          <Button
            kind="link"
            onClick={() =>
              void save(
                {
                  label: {
                    decisions: asset.label.decisions.filter((one) => !judgement.decisions.includes(one)),
                  },
                },
                'taking the decision back',
              )
            }
          >
            Take the decision back
          </Button>
        ) : null}
        {!maySay || isTermsRowShown(asset) || isUnknown || asset.label.licence === 'not-copied' ? null : (
          <OpenRow words="Add terms" isWhole state={ofTerms} />
        )}
      </div>
      <Fault says={fault} />
      {asset.label.licence === 'not-copied' ? null : (
        <p className="text-soft">
          {judgement.restsOn === 'licence' ? `${terms.name}.` : OF_POSTER}{' '}
          {said ? `${judgement.duties.includes('credit') ? '' : 'Suggested: '}“${said}”` : ''}
          {said && rules.creditsAt === 'foot' ? ' It stands at the page’s foot.' : ''}{' '}
          {said ? <OpenRow words="Word it yourself" isWhole state={ofCredit} /> : null}
        </p>
      )}
      {credit.leftOut.length > 0 ? (
        <p className="text-due">The credit leaves out {sayCreditParts(credit.leftOut)}.</p>
      ) : null}
    </LabelRow>
  );
}

/** The document that a decision rests on. */
function RestsOn({ id }: { readonly id: string }) {
  const document = useOpened(id);
  if (document?.kind !== 'document') return null;
  return (
    <p className="text-soft">
      It rests on{' '}
      <a className="underline" href={document.file}>
        {document.label.title || document.stem}
      </a>
      .
    </p>
  );
}

const LINES = [
  ['creator', 'Maker', 'Who took or drew it'],
  ['makerAddress', 'Maker’s address', 'https://'],
  ['source', 'Source', 'Where it came from'],
  ['sourceAddress', 'Address at the source', 'https://'],
  ['sourceId', 'ID at the source', ''],
  ['copyrightNotice', 'Copyright notice', '© ...'],
  ['licensedTo', 'Licensed to', ''],
] as const;

const RightsSchema = v.object({
  ...v.pick(LabelSchema, ['work', ...LINES.map(([field]) => field)]).entries,
  licence: LicenceKeySchema,
});

/** What a credit calls it; without a word, by its kind of file. */
const WORK_WORDS: Readonly<Record<(typeof WORKS)[number], string>> = {
  photo: 'A photo',
  drawing: 'A drawing',
  painting: 'A painting',
  print: 'A print',
  map: 'A map',
  chart: 'A chart',
  picture: 'A picture',
};

function RightsForm({ asset, onDone }: { readonly asset: Asset; readonly onDone: () => void }) {
  const { data: me } = useQuery(meQuery);
  const ofHouse = useHouseLicences();
  const groups = licenceGroups(ofHouse, asset.label).filter(
    ([, choices]) => embedOf(asset)?.poster === 'drawn' || choices.every(([key]) => key !== 'not-copied'),
  );
  const maySayLicence = me ? may(me.role, 'say-rights') : false;
  const { label: said } = asset;
  const form = useSaveForm({
    schema: RightsSchema,
    defaults: {
      licence: licenceKeyOf(said),
      work: said.work,
      creator: said.creator,
      makerAddress: said.makerAddress,
      source: said.source,
      sourceAddress: said.sourceAddress,
      sourceId: said.sourceId,
      copyrightNotice: said.copyrightNotice,
      licensedTo: said.licensedTo,
    },
    keepAs: `rights of ${asset.id}`,
    save: async ({ licence, ...lines }) => {
      const chosen = licence === licenceKeyOf(said) ? null : licenceByKey(licence, ofHouse);
      const label: LabelPatch = maySayLicence ? { ...lines, ...chosen } : lines;
      await changePiece(asset.id, { label }, 'its rights');
      onDone();
    },
  });
  return (
    <>
      <LabelForm of={form} deed="Save rights">
        <OneOfList
          of={form}
          name="licence"
          label="Licence"
          {...(maySayLicence ? {} : { hint: 'Said by editors and rights keepers.' })}
          disabled={!maySayLicence}
          choices={groups.map(([heading, choices]) => ({ heading, choices }))}
        />
        {isPicture(asset) ? (
          <OneOfList
            of={form}
            name="work"
            label="It is"
            choices={[['', 'As its file says'], ...WORKS.map((work) => [work, WORK_WORDS[work]] as const)]}
          />
        ) : null}
        {LINES.map(([field, name, hint]) =>
          field === 'creator' || field === 'source' ? (
            <InUseLine
              key={field}
              of={form}
              name={field}
              label={name}
              field={field}
              placeholder={hint}
              maxLength={300}
            />
          ) : (
            <Line key={field} of={form} name={field} label={name} placeholder={hint} maxLength={1000} />
          ),
        )}
      </LabelForm>
      <p className="col-span-full text-soft">A help, not legal advice.</p>
    </>
  );
}
