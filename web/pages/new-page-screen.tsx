import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Controller } from 'react-hook-form';
import { useNavigate } from 'react-router';
import * as v from 'valibot';
import { NewPageSchema } from '#api/pages.ts';
import { MadeSchema } from '#api/problem.ts';
import type { Target } from '#api/targets.ts';
import type { Want } from '#core/page/model.ts';
import { DaySchema } from '#core/rights/terms.ts';
import { requestJson } from '../api/client.ts';
import { targetsQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { DateLine, Form, Line, OneOfList } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { Button } from '../ui/button.tsx';
import { Card } from '../ui/card.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { WantLines } from './want-lines.tsx';

/** A new page as it is said: wants without words are none, and a date may be left out. */
const SaidSchema = v.object({
  ...v.pick(NewPageSchema, ['title', 'targetId']).entries,
  wants: v.pipe(
    v.array(v.custom<Want>((want) => typeof want === 'object' && want !== null)),
    v.transform((wants) => wants.filter(({ purpose }) => purpose.trim() !== '')),
    NewPageSchema.entries.wants,
  ),
  due: DaySchema,
});

export function NewPageScreen() {
  const targets = useQuery(targetsQuery);
  return targets.data ? (
    <div className="h-full overflow-auto px-5 py-6.5">
      <Card as="div" className="mx-auto max-w-180 px-6 pt-5 pb-6">
        <h1 className="mb-3.5 text-3xl">Begin a page</h1>
        <NewPageForm targets={targets.data} />
      </Card>
    </div>
  ) : (
    <Unanswered isScreen of={targets} />
  );
}

function NewPageForm({ targets }: { readonly targets: readonly Target[] }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const form = useSaveForm({
    schema: SaidSchema,
    defaults: {
      title: '',
      targetId: (targets.find(({ id }) => id === 'reserve') ?? targets[0])?.id ?? '',
      wants: [LEAD],
      due: '',
    },
    keepAs: 'new-page',
    save: async ({ due, wants, ...said }) => {
      // A want has an id of its own on each page.
      const own = wants.map((want) => ({ ...want, id: crypto.randomUUID() }));
      const body = { ...said, wants: own, due: due === '' ? null : due };
      const { id } = await requestJson('post /pages', MadeSchema, { body });
      await client.invalidateQueries({ queryKey: ['pages'] });
      navigate(`/pages/${id}`);
    },
  });
  return (
    <Form of={form} className="gap-3.5">
      <Line of={form} name="title" label="Title" autoFocus maxLength={300} />
      <div className="grid grid-cols-2 gap-2">
        <OneOfList
          of={form}
          name="targetId"
          label="For"
          choices={targets.map(({ id, rules }) => [id, `${rules.name}, column ${rules.column} px`] as const)}
        />
        <DateLine of={form} name="due" label="Due on" />
      </div>
      <div>
        <h2 className="mt-2 text-lg">What it needs</h2>
        <p className="text-soft">Said now, pictures are looked for in the right shape and size.</p>
      </div>
      <Controller
        control={form.form.control}
        name="wants"
        render={({ field: { value, onChange } }) => (
          <>
            <WantLines wants={value} onChange={onChange} />
            <Deeds>
              <Button kind="action" type="submit" disabled={form.isBusy}>
                Begin
              </Button>
              <Button onClick={() => onChange([...value, newWant('', 'any', 800)])}>Another want</Button>
            </Deeds>
          </>
        )}
      />
    </Form>
  );
}

export function newWant(purpose: string, shape: Want['shape'], leastWidth: number): Want {
  return { id: crypto.randomUUID(), purpose, shape, leastWidth, filledBy: null };
}

/** What most pages begin with. */
const LEAD: Want = { ...newWant('Lead of the page', 'landscape', 1600), id: 'lead' };
