import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { may } from '#api/people.ts';
import type { HouseRules } from '#core/page/target.ts';
import { creditedAs, judgeHere, judgeUnplaced } from '#core/page/words.ts';
import { creditParts, creditText } from '#core/rights/attribution.ts';
import { sayJudgement } from '#core/rights/judgement.ts';
import type { LabelPatch } from '#core/rights/label.ts';
import { isLicenceId, isOfCopies, LICENCE_GROUPS, licenceTerms } from '#core/rights/licences.ts';
import { meQuery } from '../api/queries.ts';
import { pieceOf } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
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
      <p className={judgement.verdict === 'allowed' ? '' : 'due'}>{sayJudgement(judgement)}</p>
      {asset.label.licence === 'not-copied' ? null : (
        <p className="soft">
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
    <form className="label-form" onSubmit={(event) => void submit(event)}>
      <Field name="Licence" {...(maySayLicence ? {} : { hint: 'Said by editors and rights keepers.' })}>
        {(control) => (
          <select
            {...control}
            className="input"
            disabled={!maySayLicence}
            value={draft.licence}
            onChange={(event) =>
              isLicenceId(event.target.value) && setDraft({ ...draft, licence: event.target.value })
            }
          >
            {groups.map(([group, ids]) => (
              <optgroup key={group} label={group}>
                {ids.map((id) => (
                  <option key={id} value={id}>
                    {licenceTerms(id).name}
                  </option>
                ))}
              </optgroup>
            ))}
          </select>
        )}
      </Field>
      {LINES.map(([field, name, hint]) => (
        <Field key={field} name={name}>
          {(control) => (
            <input
              {...control}
              className="input"
              placeholder={hint}
              value={draft[field]}
              onChange={(event) => setDraft({ ...draft, [field]: event.target.value })}
            />
          )}
        </Field>
      ))}
      <Fault says={fault} />
      <div className="label-actions">
        <Button kind="action" type="submit">
          Save rights
        </Button>
      </div>
      <p className="soft">A help, not legal advice.</p>
    </form>
  );
}
