import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { HookSecretSchema, type OwnMessages, OwnMessagesSchema } from '#api/notify.ts';
import { may, type Person } from '#api/people.ts';
import {
  MATTER_WORDS,
  MATTERS,
  type Matter,
  type MessageChoices,
  type MessageWay,
} from '#core/notify/choices.ts';
import { requestJson, requestVoid, sayFailure } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { Button } from '../ui/button.tsx';
import { Card } from '../ui/card.tsx';
import { CheckBox } from '../ui/checkbox.tsx';
import { copyText } from '../ui/copy.ts';
import { sayTime } from '../ui/dates.ts';
import { Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
import { Folded } from '../ui/folded.tsx';
import { Input } from '../ui/input.tsx';
import { Select } from '../ui/select.tsx';
import { toast } from '../ui/toast.ts';

const messagesQuery = {
  queryKey: ['messages'],
  queryFn: () => requestJson('get /me/messages', OwnMessagesSchema),
};

/** One after the other: what is tried is tried with what was chosen before, also while that is still on its way. */
const IN_TURN = { id: 'messages' };

const keep = (own: OwnMessages) => queryClient.setQueryData(messagesQuery.queryKey, own);

/** What one is told of by e-mail and by web hooks. What is chosen holds at once. */
export function MessagesCard({ me }: { readonly me: Person }) {
  const own = useQuery(messagesQuery);
  const change = useMutation({
    mutationFn: (body: MessageChoices) => requestJson('put /me/messages', OwnMessagesSchema, { body }),
    // One after the other, so that of two boxes pressed quickly the later one holds too.
    scope: IN_TURN,
    onSuccess: keep,
  });
  if (!own.data) return <Unanswered of={own} />;
  const { canMail, recent } = own.data;
  const choices = change.isPending ? change.variables : own.data.choices;
  const matters = may(me.role, 'edit-pages') ? MATTERS : MATTERS.filter((matter) => matter === 'failure');
  return (
    <Card className="mx-auto mt-4 max-w-105 px-5.5 pt-4.5 pb-5" aria-labelledby="messages">
      <h2 className="text-lg" id="messages">
        What you are told
      </h2>
      <p className="text-soft">
        What is open already waits on your Desk. You are told of what comes from now on, once.
      </p>
      <Fault says={change.error ? sayFailure(change.error) : null} />
      <MatterBoxes choices={choices} matters={matters} canMail={canMail} onChange={change.mutate} />
      {canMail ? (
        <MailPart me={me} choices={choices} onChange={change.mutate} />
      ) : (
        <p className="mt-4 text-soft">
          This house has no host for its mail. Whoever runs Placard names one by PLACARD_MAIL.
        </p>
      )}
      <HookPart own={own.data} choices={choices} onChange={change.mutate} />
      {recent.length > 0 ? <Recent recent={recent} /> : null}
    </Card>
  );
}

interface PartProps {
  readonly choices: MessageChoices;
  readonly onChange: (choices: MessageChoices) => void;
}

function MatterBoxes({
  choices,
  matters,
  canMail,
  onChange,
}: PartProps & { readonly matters: readonly Matter[]; readonly canMail: boolean }) {
  const canBe: Readonly<Record<MessageWay, boolean>> = {
    mail: canMail,
    hook: choices.hook.address !== '',
  };
  const box = (matter: Matter, way: MessageWay) => (
    <td className="py-1 pl-3 text-center">
      <CheckBox
        className="mx-auto"
        aria-label={`${MATTER_WORDS[matter]}: ${WAY_WORDS[way]}`}
        checked={choices[way].matters.includes(matter)}
        disabled={!canBe[way]}
        onChange={(isOn) => onChange(withMatter(choices, way, matter, isOn))}
      />
    </td>
  );
  return (
    <table className="mt-3 w-full">
      <thead>
        <tr className="text-2xs text-soft">
          <th className="text-left font-semibold">When</th>
          <th className="pl-3 text-center font-semibold whitespace-nowrap">E-mail</th>
          <th className="pl-3 text-center font-semibold whitespace-nowrap">Web hook</th>
        </tr>
      </thead>
      <tbody>
        {matters.map((matter) => (
          <tr key={matter} className="border-t border-hairline">
            <th scope="row" className="py-1.5 text-left font-normal">
              {MATTER_WORDS[matter]}
            </th>
            {box(matter, 'mail')}
            {box(matter, 'hook')}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const WAY_WORDS: Readonly<Record<MessageWay, string>> = { mail: 'by e-mail', hook: 'by web hook' };

function withMatter(choices: MessageChoices, way: MessageWay, matter: Matter, isOn: boolean): MessageChoices {
  const matters = choices[way].matters.filter((one) => one !== matter);
  return { ...choices, [way]: { ...choices[way], matters: isOn ? [...matters, matter] : matters } };
}

const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;

function MailPart({ me, choices, onChange }: PartProps & { readonly me: Person }) {
  const { mail } = choices;
  return (
    <section className="mt-4 grid gap-2" aria-label="E-mail">
      <Field name={`E-mail to ${me.email}`}>
        {(control) => (
          <Select
            {...control}
            value={mail.when}
            choices={[
              ['soon', 'As it comes'],
              ['morning', `All together, each morning at 7 (${mail.when === 'morning' ? mail.zone : HERE})`],
            ]}
            onChoose={(when) => onChange({ ...choices, mail: { ...mail, when, zone: HERE } })}
          />
        )}
      </Field>
      <Trial way="mail" done={`Sent to ${me.email}.`} />
    </section>
  );
}

function HookPart({ own, choices, onChange }: PartProps & { readonly own: OwnMessages }) {
  const [typed, setTyped] = useState(choices.hook.address);
  const [secret, setSecret] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const isNew = typed.trim() !== choices.hook.address;
  const makeSecret = async (before: () => void = () => undefined) => {
    setFault(null);
    try {
      const made = await requestJson('post /me/messages/secret', HookSecretSchema);
      before();
      setSecret(made.secret);
      await queryClient.invalidateQueries({ queryKey: messagesQuery.queryKey });
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  const set = async () => {
    const keepIt = () => onChange({ ...choices, hook: { ...choices.hook, address: typed } });
    // Kept before the secret is shown: who sees that takes all of it for done.
    if (typed.trim() !== '' && !own.hasHookSecret) await makeSecret(keepIt);
    else keepIt();
  };
  return (
    <form
      className="mt-4 grid gap-2"
      aria-label="Web hook"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void set();
      }}
    >
      <Field
        name="Address of a web hook"
        hint="Told each thing by POST as JSON, signed (RFC 9421), so that it knows who tells it."
      >
        {(control) => (
          <Input
            {...control}
            className="font-mono text-mono"
            value={typed}
            maxLength={500}
            placeholder="https://"
            onChange={(event) => setTyped(event.target.value)}
          />
        )}
      </Field>
      <Fault says={fault} />
      {secret === null ? null : (
        <div className="grid gap-1 border border-control p-2.5">
          <p>
            What it is signed by, in base64. It is shown this once: give it to whoever listens, and keep it
            from all others.
          </p>
          <code className="font-mono text-mono break-all">{secret}</code>
          <Button
            kind="link"
            className="justify-self-start"
            onClick={() => void copyText(secret, 'The secret')}
          >
            Copy the secret
          </Button>
        </div>
      )}
      <div className="flex flex-wrap gap-x-3 gap-y-1">
        {isNew ? (
          <Button kind="action" type="submit">
            {typed.trim() === '' ? 'Remove it' : 'Keep this address'}
          </Button>
        ) : null}
        {!isNew && choices.hook.address !== '' ? (
          <>
            <Trial way="hook" done="The web hook answered." />
            <Button kind="link" onClick={() => void makeSecret()}>
              Make a new secret
            </Button>
          </>
        ) : null}
      </div>
    </form>
  );
}

/** Says what stands in the way before something that matters is lost there. */
function Trial({ way, done }: { readonly way: MessageWay; readonly done: string }) {
  const trial = useMutation({
    mutationFn: () => requestVoid('post /me/messages/trial', { body: { way } }),
    scope: IN_TURN,
    onSuccess: () => toast(done),
  });
  return (
    <div className="grid justify-items-start">
      <Button kind="link" disabled={trial.isPending} onClick={() => trial.mutate()}>
        {way === 'mail' ? 'Send a trial mail' : 'Ring it for a trial'}
      </Button>
      <Fault says={trial.error ? sayFailure(trial.error) : null} />
    </div>
  );
}

const STATE_WORDS = { waiting: 'waits until', sent: '', failed: 'could not be told' } as const;

function Recent({ recent }: Pick<OwnMessages, 'recent'>) {
  return (
    <Folded className="mt-4" words="What you were told last">
      <ul className="mt-1">
        {recent.map(({ id, way, sentence, path, state, at, words }) => (
          <li key={id} className="border-t border-hairline py-1.5">
            <Link to={path}>{sentence}</Link>
            <p className="text-soft">
              {[WAY_WORDS[way], STATE_WORDS[state], state === 'failed' ? '' : sayTime(at)]
                .filter(Boolean)
                .join(', ')}
              {words === '' ? null : <span className="block">{words}</span>}
            </p>
          </li>
        ))}
      </ul>
    </Folded>
  );
}
