import { useState } from 'react';
import { NewTargetSchema, type Target, TargetSchema } from '#api/targets.ts';
import { requestJson, requestVoid, sayFailure } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { Button } from '../ui/button.tsx';
import { Fault } from '../ui/fault.tsx';
import { ledger } from '../undo/ledger.ts';

const WIDE = 'max-w-70 flex-[1_1_200px]';

interface NewTargetProps {
  /** The target whose rules the new one begins with. */
  readonly like: Target;
  readonly onMade: (id: string) => void;
  readonly onClose: () => void;
}

/** Another place that pages go to, with the rules of the one that is looked at. */
export function NewTarget({ like, onMade, onClose }: NewTargetProps) {
  const [fault, setFault] = useState<string | null>(null);
  const form = useSaveForm({
    schema: NewTargetSchema,
    defaults: { name: '', siteAddress: '', commercial: like.rules.commercial, like: like.id },
    keepAs: 'new-target',
    save: async (body) => {
      const made = await requestJson('post /targets', TargetSchema, { body });
      await queryClient.invalidateQueries();
      ledger.add({
        name: `the making of ${body.name}`,
        scope: 'rules',
        undo: () => removeTarget(made.id),
        redo: () => bringBack(made.id),
      });
      onMade(made.id);
    },
  });
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
    <Form
      of={form}
      className="flex flex-wrap items-start gap-2.5 border-b border-line py-3"
      aria-label="Targets"
    >
      <Line
        of={form}
        className={WIDE}
        name="name"
        label="Another target"
        hint={`It begins with the rules of ${like.rules.name}.`}
        placeholder="What you call it"
        maxLength={60}
      />
      <Line of={form} className={WIDE} name="siteAddress" label="Its address" placeholder="https://" />
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
    </Form>
  );
}

async function removeTarget(id: string): Promise<void> {
  await requestVoid('delete /targets/{id}', { path: { id } });
  await queryClient.invalidateQueries();
}

async function bringBack(id: string): Promise<void> {
  await requestJson('post /targets/{id}/back', TargetSchema, { path: { id } });
  await queryClient.invalidateQueries();
}
