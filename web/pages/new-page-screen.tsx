import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import * as v from 'valibot';
import type { Want } from '#core/page/model.ts';
import { ask, sayFailure } from '../api/client.ts';
import { targetsQuery } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Card } from '../ui/card.tsx';
import { DateInput } from '../ui/date-input.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { Select } from '../ui/select.tsx';
import { WantLines } from './want-lines.tsx';

const CreatedSchema = v.object({ id: v.string() });

export function NewPageScreen() {
  const targets = useQuery(targetsQuery);
  const [title, setTitle] = useState('');
  const [targetId, setTargetId] = useState<string | null>(null);
  const [wants, setWants] = useState<readonly Want[]>([newWant('Lead of the page', 'landscape', 1600)]);
  const [due, setDue] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const client = useQueryClient();
  const navigate = useNavigate();
  if (!targets.data) return null;
  const chosen =
    targetId ?? targets.data.find((target) => target.id === 'reserve')?.id ?? targets.data[0]?.id ?? '';

  const begin = async (event: FormEvent) => {
    event.preventDefault();
    setFault(null);
    try {
      const said = wants.filter((want) => want.purpose.trim() !== '');
      const { id } = await ask(CreatedSchema, '/pages', {
        method: 'POST',
        body: { title, targetId: chosen, wants: said, due: due || null },
      });
      await client.invalidateQueries({ queryKey: ['pages'] });
      navigate(`/pages/${id}`);
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  return (
    <div className="h-full overflow-auto px-5 py-6.5">
      <Card as="div" className="mx-auto max-w-180 px-6 pt-5 pb-6">
        <h1 className="mb-3.5 text-3xl">Begin a page</h1>
        <form className="grid gap-3.5" onSubmit={(event) => void begin(event)}>
          <Field name="Title" fault={fault}>
            {(control) => (
              <Input
                {...control}
                autoFocus
                required
                maxLength={300}
                value={title}
                onChange={(event) => setTitle(event.target.value)}
              />
            )}
          </Field>
          <div className="grid grid-cols-2 gap-2">
            <Field name="For">
              {(control) => (
                <Select
                  {...control}
                  value={chosen}
                  choices={targets.data.map(
                    ({ id, rules }) => [id, `${rules.name}, column ${rules.column} px`] as const,
                  )}
                  onChoose={setTargetId}
                />
              )}
            </Field>
            <Field name="Due on">
              {(control) => <DateInput {...control} value={due} onChange={setDue} />}
            </Field>
          </div>
          <div>
            <h2 className="mt-2 text-lg">What it needs</h2>
            <p className="text-soft">Said now, pictures are looked for in the right shape and size.</p>
          </div>
          <WantLines wants={wants} onChange={setWants} />
          <Deeds>
            <Button kind="action" type="submit">
              Begin
            </Button>
            <Button onClick={() => setWants([...wants, newWant('', 'any', 800)])}>Another want</Button>
          </Deeds>
        </form>
      </Card>
    </div>
  );
}

export function newWant(purpose: string, shape: Want['shape'], leastWidth: number): Want {
  return { id: crypto.randomUUID(), purpose, shape, leastWidth, filledBy: null };
}
