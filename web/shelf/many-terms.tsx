import * as v from 'valibot';
import type { Asset } from '#api/assets.ts';
import { readRegions, writeRegions } from '#core/rights/regions.ts';
import { CONSENT_WORDS } from '#core/rights/say-terms.ts';
import { CONSENTS, type Terms, TermsSchema } from '#core/rights/terms.ts';
import { DateLine, Form, Line, OneOfList } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { RegionsTypedSchema } from '../label/regions-typed.ts';
import type { ChangeOfEach } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';

const { begins, ends, agreed, consent } = TermsSchema.pipe[0].entries;
const FIELDS = ['begins', 'ends', 'territory', 'consent', 'agreed'] as const;
const TypedSchema = v.object({ begins, ends, territory: RegionsTypedSchema, consent, agreed });

interface ManyTermsProps {
  readonly assets: readonly Asset[];
  readonly onChange: (change: ChangeOfEach, name: string) => Promise<void>;
  readonly onDone: () => void;
}

/** What was agreed for several pieces at once. What is not touched stays as it is on each. */
export function ManyTerms({ assets, onChange, onDone }: ManyTermsProps) {
  const shared = <Field extends keyof Terms>(field: Field, none: Terms[Field]): Terms[Field] => {
    const said = new Set(assets.map(({ label }) => JSON.stringify(label.terms[field])));
    return said.size === 1 ? (assets[0]?.label.terms[field] ?? none) : none;
  };
  const form = useSaveForm({
    schema: TypedSchema,
    defaults: {
      begins: shared('begins', ''),
      ends: shared('ends', ''),
      territory: writeRegions(shared('territory', [])),
      consent: shared('consent', 'unsaid'),
      agreed: shared('agreed', ''),
    },
    save: async ({ territory, ...said }) => {
      const { dirtyFields } = form.form.formState;
      const all = { ...said, territory: [...readRegions(territory).regions] };
      const touched = Object.fromEntries(
        FIELDS.flatMap((field) => (dirtyFields[field] ? [[field, all[field]]] : [])),
      );
      if (Object.keys(touched).length > 0)
        await onChange(
          ({ label }) => ({ label: { terms: { ...label.terms, ...touched } } }),
          'what was agreed',
        );
      onDone();
    },
  });
  // Asked for while it is drawn, so that it is kept up to date from then on.
  void form.form.formState.dirtyFields;
  return (
    <Form of={form} className="w-75 p-3" aria-label="What was agreed">
      <DateLine of={form} name="begins" label="From" />
      <DateLine of={form} name="ends" label="Until, that day included" />
      <Line of={form} name="territory" label="Where" placeholder="Not touched, it stays as it is" />
      <OneOfList
        of={form}
        name="consent"
        label="Consent of those who are shown"
        choices={CONSENTS.map((one) => [one, CONSENT_WORDS[one]] as const)}
      />
      <Line of={form} name="agreed" label="Agreed besides" maxLength={2000} />
      <Button className="justify-self-start" kind="action" type="submit" disabled={form.isBusy}>
        Save for all {assets.length}
      </Button>
    </Form>
  );
}
