import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { may } from '#api/people.ts';
import type { HouseRules } from '#core/page/target.ts';
import { creditedAs, judgeHere, judgeUnplaced } from '#core/page/words.ts';
import { creditParts, creditText } from '#core/rights/attribution.ts';
import { sayJudgement } from '#core/rights/judgement.ts';
import type { LabelPatch } from '#core/rights/label.ts';
import { isOfCopies, LICENCE_GROUPS, licenceTerms } from '#core/rights/licences.ts';
import { meQuery } from '../api/queries.ts';
import { pieceOf } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { Select } from '../ui/select.tsx';
import { LabelRow, OpenRow, type RowState, type Use, useLabelChange } from './row.tsx';

interface RightsRowProps extends RowState {
  readonly asset: Asset;
  readonly rules: HouseRules;
  readonly use: Use | null;
}

const OF_POSTER = 'To show its poster, a licence would have to be said.';

/** Whether it may be used here, like this, and what it owes. */
export function RightsRow({ asset, rules, use, ...state }: RightsRowProps) {
  const piece = pieceOf(asset);
  const judgement = use ? judgeHere(rules, use.placement, piece) : judgeUnplaced(rules, piece);
  const credit = creditText(creditParts(asset.label, judgement), creditedAs(piece));
  const terms = licenceTerms(asset.label.licence);
  return (
    <LabelRow
      name="Rights"
      way={
        <OpenRow
          words={asset.label.licence === 'unknown' ? 'Say its rights' : 'Change its rights'}
          state={state}
        />
      }
      form={state.isOpen ? <RightsForm key={asset.id} asset={asset} onDone={state.onToggle} /> : null}
    >
      <p className={judgement.verdict === 'allowed' ? '' : 'text-due'}>{sayJudgement(judgement)}</p>
      {asset.label.licence === 'not-copied' ? null : (
        <p className="text-soft">
          {judgement.restsOn === 'licence' ? `${terms.name}.` : OF_POSTER} {credit ? `“${credit}”` : ''}
        </p>
      )}
    </LabelRow>
  );
}

const LINES = [
  ['maker', 'Maker', 'Who took or drew it'],
  ['makerAddress', 'Maker’s address', 'https://'],
  ['source', 'Source', 'Where it came from'],
  ['sourceAddress', 'Address at the source', 'https://'],
  ['sourceId', 'ID at the source', ''],
  ['notice', 'Copyright notice', '© ...'],
  ['licensedTo', 'Licensed to', ''],
] as const;

function RightsForm({ asset, onDone }: { readonly asset: Asset; readonly onDone: () => void }) {
  const { data: me } = useQuery(meQuery);
  const [draft, setDraft] = useState(asset.label);
  const { fault, save } = useLabelChange(asset);
  const groups = LICENCE_GROUPS.filter(([, ids]) => asset.embed?.poster === 'drawn' || ids.every(isOfCopies));
  const maySayLicence = me ? may(me.role, 'say-rights') : false;
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const lines: LabelPatch = Object.fromEntries(LINES.map(([field]) => [field, draft[field].trim()]));
    if (
      await save({ label: { ...lines, ...(maySayLicence ? { licence: draft.licence } : {}) } }, 'its rights')
    )
      onDone();
  };
  return (
    <form className="col-span-full grid gap-2.25 pt-1.5" onSubmit={(event) => void submit(event)}>
      <Field name="Licence" {...(maySayLicence ? {} : { hint: 'Said by editors and rights keepers.' })}>
        {(control) => (
          <Select
            {...control}
            disabled={!maySayLicence}
            value={draft.licence}
            choices={groups.map(([heading, ids]) => ({
              heading,
              choices: ids.map((id) => [id, licenceTerms(id).name] as const),
            }))}
            onChoose={(licence) => setDraft({ ...draft, licence })}
          />
        )}
      </Field>
      {LINES.map(([field, name, hint]) => (
        <Field key={field} name={name}>
          {(control) => (
            <Input
              {...control}
              placeholder={hint}
              value={draft[field]}
              onChange={(event) => setDraft({ ...draft, [field]: event.target.value })}
            />
          )}
        </Field>
      ))}
      <Fault says={fault} />
      <div className="flex flex-wrap gap-2">
        <Button kind="action" type="submit">
          Save rights
        </Button>
      </div>
      <p className="text-soft">A help, not legal advice.</p>
    </form>
  );
}
