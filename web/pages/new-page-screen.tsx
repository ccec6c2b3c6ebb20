import './pages.css';
import '../label/label.css';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import * as v from 'valibot';
import type { Want } from '#core/page/model.ts';
import { ask, sayFailure } from '../api/client.ts';
import { targetsQuery } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
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
    <div className="new-page">
      <div className="card">
        <h1>Begin a page</h1>
        <form onSubmit={(event) => void begin(event)}>
          <Field name="Title" fault={fault}>
            {(control) => (
              <input
                {...control}
                // biome-ignore lint/a11y/noAutofocus: a page begins with its title, and the screen was opened for that.
                autoFocus
                className="input"
                required
                maxLength={300}
                value={title}
                onChange={(event) => setTitle(event.target.value)}
              />
            )}
          </Field>
          <div className="label-pair">
            <Field name="For">
              {(control) => (
                <select
                  {...control}
                  className="input"
                  value={chosen}
                  onChange={(event) => setTargetId(event.target.value)}
                >
                  {targets.data.map((target) => (
                    <option key={target.id} value={target.id}>
                      {target.rules.name}, column {target.rules.column} px
                    </option>
                  ))}
                </select>
              )}
            </Field>
            <Field name="Due on">
              {(control) => (
                <input
                  {...control}
                  className="input"
                  type="date"
                  value={due}
                  onChange={(event) => setDue(event.target.value)}
                />
              )}
            </Field>
          </div>
          <div>
            <h2>What it needs</h2>
            <p className="soft">Said now, pictures are looked for in the right shape and size.</p>
          </div>
          <WantLines wants={wants} onChange={setWants} />
          <div className="dialog-actions">
            <Button kind="action" type="submit">
              Begin
            </Button>
            <Button onClick={() => setWants([...wants, newWant('', 'any', 800)])}>Another want</Button>
          </div>
        </form>
      </div>
    </div>
  );
}

export function newWant(purpose: string, shape: Want['shape'], leastWidth: number): Want {
  return { id: crypto.randomUUID(), purpose, shape, leastWidth, filledBy: null };
}
