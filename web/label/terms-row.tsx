import { Controller } from 'react-hook-form';
import * as v from 'valibot';
import type { Asset } from '#api/assets.ts';
import { readRegions, writeRegions } from '#core/rights/regions.ts';
import { USE_WORDS } from '#core/rights/say-judgement.ts';
import { CONSENT_WORDS, hasTerms, readPrice, sayPrice, sayTerms } from '#core/rights/say-terms.ts';
import { AGREED_USES, CONSENTS, isInOrder, type Terms, TermsSchema } from '#core/rights/terms.ts';
import { DateLine, Line, Lines, OneOfList } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { changePiece, pieces } from '../pieces/pieces.ts';
import { Checkbox } from '../ui/checkbox.tsx';
import { useDocuments } from './documents-list.ts';
import { RegionsTypedSchema } from './regions-typed.ts';
import { LabelForm, LabelRow, OpenRow, type RowState } from './row.tsx';

/** Licences that say nothing by themselves of how long, where and for what. */
const RESTS_ON_TERMS: ReadonlySet<string> = new Set(['agency', 'permission']);

/** Whether a label has a row for what was agreed, though nothing was yet. */
export const isTermsRowShown = ({ label }: Asset): boolean =>
  hasTerms(label.terms) || RESTS_ON_TERMS.has(label.licence);

/** What was agreed for a piece besides its licence, who is shown in it, and when it may be shown. */
export function TermsRow({ asset, ...state }: { readonly asset: Asset } & RowState) {
  if (!state.isOpen && !isTermsRowShown(asset)) return null;
  const { terms } = asset.label;
  const says = sayTerms(terms);
  const isUnsaid = says === '';
  const document = terms.agreement === null ? undefined : pieces.state.get(terms.agreement);
  return (
    <LabelRow
      name="Agreed"
      isUnsaid={isUnsaid}
      way={
        <OpenRow
          words={isUnsaid ? 'Say what was agreed' : 'Change what was agreed'}
          isWhole={isUnsaid}
          state={state}
        />
      }
      form={state.isOpen ? <TermsForm key={asset.id} asset={asset} onDone={state.onToggle} /> : null}
    >
      <p className="wrap-anywhere whitespace-pre-line">
        {isUnsaid ? 'Nobody has said for how long, where and for what.' : says}
      </p>
      {document?.kind === 'document' ? (
        <p>
          <a className="underline" href={document.file}>
            {document.label.title || document.stem}
          </a>
        </p>
      ) : null}
    </LabelRow>
  );
}

const { entries } = TermsSchema.pipe[0];

/** The terms as they are typed: regions and price in words, documents by their IDs, the empty text for none. */
const TypedSchema = v.pipe(
  v.object({
    begins: entries.begins,
    ends: entries.ends,
    territory: RegionsTypedSchema,
    uses: entries.uses,
    copies: v.pipe(v.string(), v.trim(), v.regex(/^\d{0,9}$/, 'A number of copies, or nothing.')),
    price: v.pipe(
      v.string(),
      v.check((text) => readPrice(text) !== undefined, 'A price is written as 48.00 GBP.'),
    ),
    agreed: entries.agreed,
    agreement: v.string(),
    consent: entries.consent,
    consentForm: v.string(),
    shownFrom: entries.shownFrom,
    shownUntil: entries.shownUntil,
    afterwards: entries.afterwards,
  }),
  v.forward(
    v.partialCheck(
      [['begins'], ['ends']],
      ({ begins, ends }) => isInOrder(begins, ends),
      'It ends before it begins.',
    ),
    ['ends'],
  ),
  v.forward(
    v.partialCheck(
      [['shownFrom'], ['shownUntil']],
      ({ shownFrom, shownUntil }) => isInOrder(shownFrom, shownUntil),
      'It ends before it begins.',
    ),
    ['shownUntil'],
  ),
);

function TermsForm({ asset, onDone }: { readonly asset: Asset; readonly onDone: () => void }) {
  const { terms } = asset.label;
  const agreements = useDocuments(terms.agreement);
  const consents = useDocuments(terms.consentForm);
  const form = useSaveForm({
    schema: TypedSchema,
    defaults: {
      ...terms,
      territory: writeRegions(terms.territory),
      copies: terms.copies === null ? '' : String(terms.copies),
      price: terms.price === null ? '' : sayPrice(terms.price),
      agreement: terms.agreement ?? '',
      consentForm: terms.consentForm ?? '',
    },
    keepAs: `terms of ${asset.id}`,
    save: async ({ territory, copies, price, agreement, consentForm, ...rest }) => {
      const said: Terms = {
        ...asset.label.terms,
        ...rest,
        territory: [...readRegions(territory).regions],
        copies: copies === '' ? null : Math.max(1, Number(copies)),
        price: readPrice(price) ?? null,
        agreement: agreement || null,
        consentForm: consentForm || null,
      };
      await changePiece(asset.id, { label: { terms: said } }, 'what was agreed');
      onDone();
    },
  });
  return (
    <LabelForm of={form} deed="Save what was agreed">
      <DateLine of={form} name="begins" label="From" />
      <DateLine of={form} name="ends" label="Until, that day included" />
      <Line
        of={form}
        name="territory"
        label="Where"
        placeholder="Everywhere"
        hint="Countries, Europe, European Union."
      />
      <Controller
        control={form.form.control}
        name="uses"
        render={({ field }) => (
          <fieldset className="grid grid-cols-2 gap-1.25">
            <legend className="mb-1 text-sm text-soft">For: nothing chosen is anything</legend>
            {AGREED_USES.map((use) => (
              <Checkbox
                key={use}
                checked={field.value.includes(use)}
                onChange={(isOn) =>
                  field.onChange(
                    AGREED_USES.filter((one) => (one === use ? isOn : field.value.includes(one))),
                  )
                }
              >
                {USE_WORDS[use]}
              </Checkbox>
            ))}
          </fieldset>
        )}
      />
      <div className="grid grid-cols-2 gap-2.25">
        <Line of={form} name="copies" label="Copies at most" inputMode="numeric" />
        <Line of={form} name="price" label="Price" placeholder="48.00 GBP" />
      </div>
      <Lines of={form} name="agreed" label="Agreed besides" rows={2} maxLength={2000} />
      <OneOfList of={form} name="agreement" label="The agreement itself" choices={agreements} />
      <OneOfList
        of={form}
        name="consent"
        label="Consent of those who are shown"
        choices={CONSENTS.map((consent) => [consent, CONSENT_WORDS[consent]] as const)}
      />
      <OneOfList of={form} name="consentForm" label="Document of the consent" choices={consents} />
      <DateLine of={form} name="shownFrom" label="Shown from" />
      <DateLine of={form} name="shownUntil" label="Shown until" />
    </LabelForm>
  );
}
