import { useState } from 'react';
import { type Errand, GiveErrandSchema, type Given } from '#api/desk.ts';
import { requestVoid, sayFailure } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { Form, Line, OneOfList } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { Button, LinkButton } from '../ui/button.tsx';
import { isPressing, sayDue } from '../ui/dates.ts';
import { Popover, PopoverContent, PopoverTrigger } from '../ui/popover.tsx';
import { toast } from '../ui/toast.ts';
import { ledger } from '../undo/ledger.ts';

type Colleagues = readonly { readonly id: string; readonly name: string }[];

interface ErrandLineProps {
  readonly errand: Errand;
  readonly me: string;
  readonly colleagues: Colleagues;
}

const sentence = (words: string) => `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;

/** Something that waits: a sentence, why, to whom it was given, and where it is done. */
export function ErrandLine({ errand, me, colleagues }: ErrandLineProps) {
  const { given, isGivable } = errand;
  return (
    <li className="grid grid-cols-[74px_minmax(0,1fr)_auto] items-center gap-4 border-b border-line py-2.5 max-narrow:grid-cols-[56px_minmax(0,1fr)]">
      {errand.thumb ? (
        <img className="h-12 w-18.5 object-cover max-narrow:h-10 max-narrow:w-14" src={errand.thumb} alt="" />
      ) : (
        <span className="grid h-12 w-18.5 place-items-center border-t-4 border-ink bg-panel object-cover font-mono text-xl font-semibold max-narrow:h-10 max-narrow:w-14">
          {errand.count ?? ''}
        </span>
      )}
      <div>
        <p className="text-md">
          {errand.before} <strong>{errand.subject}</strong> {errand.after}
        </p>
        <p className="text-sm text-soft">
          {errand.detail}{' '}
          {errand.due ? (
            <span className={isPressing(errand.due) ? 'text-due' : ''}>{sentence(sayDue(errand.due))}</span>
          ) : null}
        </p>
        {given ? <p className="text-sm">{sayGiven(given, me)}</p> : null}
      </div>
      <div className="flex items-center gap-2.5 max-narrow:col-start-2 max-narrow:justify-self-start">
        {isGivable && colleagues.length > 0 ? <Give errand={errand} colleagues={colleagues} /> : null}
        <LinkButton to={errand.address} aria-label={`${errand.action}: ${errand.subject}`}>
          {errand.action}
        </LinkButton>
      </div>
    </li>
  );
}

/** "For you, from Piet Maas: Please before Friday." */
function sayGiven({ to, by, note }: Given, me: string): string {
  const whose = to.id === me ? 'For you' : `With ${to.name}`;
  const from = by.id === to.id ? '' : by.id === me ? ', from you' : `, from ${by.name}`;
  return note === '' ? `${whose}${from}.` : `${whose}${from}: “${note}”`;
}

function Give({ errand, colleagues }: Omit<ErrandLineProps, 'me'>) {
  const [isOpen, setOpen] = useState(false);
  return (
    <Popover open={isOpen} onOpenChange={setOpen}>
      <PopoverTrigger asChild>
        <Button kind="link" className="text-sm text-soft" aria-label={`Give to somebody: ${errand.subject}`}>
          Give to...
        </Button>
      </PopoverTrigger>
      <PopoverContent align="end" aria-label="Give it to somebody">
        <GiveForm errand={errand} colleagues={colleagues} onDone={() => setOpen(false)} />
      </PopoverContent>
    </Popover>
  );
}

interface GiveFormProps extends Omit<ErrandLineProps, 'me'> {
  readonly onDone: () => void;
}

function GiveForm({ errand: { id, given }, colleagues, onDone }: GiveFormProps) {
  const form = useSaveForm({
    schema: GiveErrandSchema,
    defaults: { to: given?.to.id ?? '', note: given?.note ?? '' },
    save: async (next) => {
      await settle(id, next, given && { to: given.to.id, note: given.note }, 'giving it to somebody');
      onDone();
    },
  });
  const takeBack = async () => {
    if (!given) return;
    try {
      await settle(id, null, { to: given.to.id, note: given.note }, 'taking it back');
      onDone();
    } catch (error) {
      toast.error(sayFailure(error));
    }
  };
  return (
    <Form of={form} className="w-75 p-3" aria-label="Give it to somebody">
      <OneOfList
        of={form}
        name="to"
        label="To"
        choices={[['', 'Nobody yet'], ...colleagues.map(({ id: who, name }) => [who, name] as const)]}
      />
      <Line of={form} name="note" label="Note" maxLength={500} placeholder="What they should know" />
      <div className="flex items-center gap-3">
        <Button kind="action" type="submit" disabled={form.isBusy}>
          Give
        </Button>
        {given ? (
          <Button kind="link" onClick={() => void takeBack()}>
            Take it back
          </Button>
        ) : null}
      </div>
    </Form>
  );
}

interface Assigned {
  readonly to: string;
  readonly note: string;
}

/** Gives an errand, or takes it back; undo settles it as it was. */
async function settle(
  id: string,
  next: Assigned | null,
  before: Assigned | null,
  name: string,
): Promise<void> {
  const put = async (assigned: Assigned | null) => {
    if (assigned) await requestVoid('put /desk/errands/{id}', { path: { id }, body: assigned });
    else await requestVoid('delete /desk/errands/{id}', { path: { id } });
    await queryClient.invalidateQueries({ queryKey: ['desk'] });
  };
  await put(next);
  ledger.add({ name, scope: 'desk', undo: () => put(before), redo: () => put(next) });
}
