import { type FormEvent, useState } from 'react';
import { type Target, TargetSchema } from '#api/targets.ts';
import { ask, sayFailure, tell } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Fault } from '../ui/fault.tsx';
import { TextField } from '../ui/text-field.tsx';
import { ledger } from '../undo/ledger.ts';

interface NewTargetProps {
  /** The target whose rules the new one begins with. */
  readonly like: Target;
  readonly onMade: (id: string) => void;
  readonly onClose: () => void;
}

/** Another place that pages go to, with the rules of the one that is looked at. */
export function NewTarget({ like, onMade, onClose }: NewTargetProps) {
  const [name, setName] = useState('');
  const [siteAddress, setSiteAddress] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setFault(null);
    try {
      const { commercial } = like.rules;
      const made = await ask(TargetSchema, '/targets', {
        method: 'POST',
        body: { name, siteAddress, commercial, like: like.id },
      });
      await queryClient.invalidateQueries();
      ledger.add({
        name: `the making of ${name}`,
        scope: 'rules',
        undo: () => removeTarget(made.id),
        redo: () => bringBack(made.id),
      });
      onMade(made.id);
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  const remove = async () => {
    setFault(null);
    try {
      await removeTarget(like.id);
      ledger.add({
        name: `the removing of ${like.rules.name}`,
        scope: 'rules',
        undo: () => bringBack(like.id),
        redo: () => removeTarget(like.id),
      });
      onMade('');
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  return (
    <form
      className="flex flex-wrap items-start gap-2.5 border-b border-line py-3"
      aria-label="Targets"
      onSubmit={(event) => void submit(event)}
    >
      <TextField
        className="max-w-70 flex-[1_1_200px]"
        name="Another target"
        hint={`It begins with the rules of ${like.rules.name}.`}
        placeholder="What you call it"
        required
        maxLength={60}
        value={name}
        onChange={setName}
      />
      <TextField
        className="max-w-70 flex-[1_1_200px]"
        name="Its address"
        placeholder="https://"
        value={siteAddress}
        onChange={setSiteAddress}
      />
      <Button className="mt-5" type="submit">
        Make it
      </Button>
      <Button className="mt-5" kind="link" onClick={() => void remove()}>
        Remove {like.rules.name}
      </Button>
      <Button className="mt-5" kind="link" onClick={onClose}>
        Close
      </Button>
      <Fault says={fault} />
    </form>
  );
}

async function removeTarget(id: string): Promise<void> {
  await tell(`/targets/${id}`, { method: 'DELETE' });
  await queryClient.invalidateQueries();
}

async function bringBack(id: string): Promise<void> {
  await ask(TargetSchema, `/targets/${id}/back`, { method: 'POST' });
  await queryClient.invalidateQueries();
}
