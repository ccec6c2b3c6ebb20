import { useQuery } from '@tanstack/react-query';
import * as v from 'valibot';
import { ROLE_WORDS, type Role } from '#api/people.ts';
import { type SpendingLimits, SpendingLimitsSchema, SpendingSchema } from '#api/purchases.ts';
import { requestJson } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { spendingQuery } from '../buying/purchases.ts';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { Button } from '../ui/button.tsx';
import { toast } from '../ui/toast.ts';
import { RulesCard } from './rules-card.tsx';

/** Those who may say rights, and so could buy. */
const BUYERS = ['editor', 'rights-keeper', 'site-owner'] as const satisfies readonly Role[];

const amount = v.pipe(
  v.string(),
  v.trim(),
  v.regex(/^(\d{1,7}([.,]\d{1,2})?)?$/, 'An amount is written as 500 or 500.00; nothing is any amount.'),
);
const TypedSchema = v.object({ editor: amount, 'rights-keeper': amount, 'site-owner': amount });

const typed = (limit: number | null): string => (limit === null ? '' : (limit / 100).toFixed(2));
const read = (text: string): number | null =>
  text === '' ? null : Math.round(Number(text.replace(',', '.')) * 100);

/** Who may spend how much a month at agencies. */
export function SpendingCard() {
  const { data } = useQuery(spendingQuery);
  return (
    <RulesCard
      id="rules-spending"
      title="Spending"
      about="What each role may spend a month at agencies, in each currency. Nothing typed is any amount, 0 is nothing."
      className="mt-5"
    >
      {data ? <SpendingForm key={JSON.stringify(data.limits)} limits={data.limits} /> : null}
    </RulesCard>
  );
}

function SpendingForm({ limits }: { readonly limits: SpendingLimits }) {
  const form = useSaveForm({
    schema: TypedSchema,
    defaults: {
      editor: typed(limits.editor),
      'rights-keeper': typed(limits['rights-keeper']),
      'site-owner': typed(limits['site-owner']),
    },
    save: async (said) => {
      const body = v.parse(SpendingLimitsSchema, {
        contributor: 0,
        ...Object.fromEntries(BUYERS.map((role) => [role, read(said[role])])),
      });
      const saved = await requestJson('put /spending', SpendingSchema, { body });
      queryClient.setQueryData(spendingQuery.queryKey, saved);
      toast('Saved: who may spend how much.');
    },
  });
  return (
    <Form
      of={form}
      className="grid grid-cols-3 items-end gap-2.5 max-narrow:grid-cols-1"
      aria-label="Spending"
    >
      {BUYERS.map((role) => (
        <Line
          key={role}
          of={form}
          name={role}
          label={ROLE_WORDS[role]}
          inputMode="numeric"
          placeholder="Any amount"
        />
      ))}
      <Button className="justify-self-start" type="submit" kind="action" disabled={form.isBusy}>
        Save spending
      </Button>
    </Form>
  );
}
