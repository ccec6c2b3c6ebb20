import { useQuery } from '@tanstack/react-query';
import { useId } from 'react';
import { type Delivery, DeliverySchema, PastedAtSchema } from '#api/deliveries.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { sentCodeQuery } from '../api/queries.ts';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { Button } from '../ui/button.tsx';
import { copyRich, copyText } from '../ui/copy.ts';
import { Deeds } from '../ui/deeds.tsx';
import { Fault } from '../ui/fault.tsx';

interface PastePaneProps {
  readonly delivery: Delivery;
  /** Where an earlier state of the page stands. */
  readonly before: string;
  readonly onPasted: () => void | Promise<void>;
}

/** How a page comes to a site where it is pasted: its code, and then where it stands. */
export function PastePane({ delivery, before, onPasted }: PastePaneProps) {
  const { id, targetName, address } = delivery;
  const code = useQuery(sentCodeQuery(id, delivery.at));
  const heading = useId();
  const form = useSaveForm({
    schema: PastedAtSchema,
    defaults: { address: address ?? before },
    refusedAt: 'address',
    save: async (body) => {
      await requestJson('put /deliveries/{id}/address', DeliverySchema, { path: { id }, body });
      await onPasted();
    },
  });
  const html = code.data?.html ?? '';
  return (
    <section className="grid gap-2.5" aria-labelledby={heading}>
      <h2 className="text-lg" id={heading}>
        Paste it at the {targetName}
      </h2>
      <p>
        Its files answer already, and are shown wherever its code stands. The code says what the {targetName}{' '}
        keeps.
      </p>
      {code.error ? <Fault says={sayFailure(code.error)} /> : null}
      <Deeds>
        <Button
          kind="action"
          disabled={html === ''}
          onClick={() => void copyText(html, 'The code of the page is')}
        >
          Copy its code
        </Button>
        <Button
          disabled={html === ''}
          onClick={() => void copyRich(html, wordsOf(html), 'The page is copied, with its pictures.')}
        >
          Copy as rich text
        </Button>
      </Deeds>
      <Form of={form} className="mt-2 grid gap-2.5 border-t border-line pt-3">
        <Line
          of={form}
          name="address"
          label="Where it stands there"
          hint="It is read back from there and compared, as often as it is looked at."
          placeholder="https://"
          isMono
        />
        <Deeds>
          <Button type="submit" disabled={form.isBusy}>
            Read it back
          </Button>
        </Deeds>
      </Form>
    </section>
  );
}

/** What stays where only plain text is taken: the words of each block in a line of its own. */
function wordsOf(html: string): string {
  const { body } = new DOMParser().parseFromString(html, 'text/html');
  for (const block of body.querySelectorAll('p, li, h1, h2, h3, h4, h5, h6, figcaption, tr, dt, dd'))
    block.append('\n');
  return (body.textContent ?? '')
    .replace(/[ \t]+/g, ' ')
    .replace(/\s*\n\s*/g, '\n')
    .trim();
}
