import type { Editor } from '@tiptap/core';
import * as v from 'valibot';
import { Form, Line } from '../../form/form.tsx';
import { useSaveForm } from '../../form/use-save-form.ts';
import { Button } from '../../ui/button.tsx';
import { changeBlock } from '../commands.ts';

interface LineFormProps {
  readonly editor: Editor;
  readonly id: string;
  /** The attribute of the block that is said in the line, as it is now, and what it may be. */
  readonly attribute: string;
  readonly value: string;
  readonly schema: v.GenericSchema<string>;
  readonly label: string;
  readonly placeholder: string;
  readonly maxLength: number;
  readonly isMono?: boolean;
  /** What undo calls the change. */
  readonly change: string;
}

/** One line that is said of a block, kept by a button; what another hand makes of it meanwhile takes its place. */
export function LineForm(props: LineFormProps) {
  return <FreshLineForm key={`${props.id} ${props.value}`} {...props} />;
}

function FreshLineForm({ editor, id, attribute, value, schema, change, ...line }: LineFormProps) {
  const form = useSaveForm({
    schema: v.object({ said: schema }),
    defaults: { said: value },
    save: ({ said }) => void changeBlock(editor, id, { [attribute]: said }, change),
  });
  return (
    <Form of={form}>
      <Line of={form} name="said" {...line} />
      <div>
        <Button type="submit">Keep</Button>
      </div>
    </Form>
  );
}
