import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { BegunSchema, type InheritedLine, type NewInherited } from '#api/inherited.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { inheritedListQuery, queryClient, targetsQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { holdsFiles, useDrop } from '../arrivals/use-drop.ts';
import { useOffer } from '../frame/commands.ts';
import { Choice, Sentence } from '../sentence/sentence.tsx';
import { Button } from '../ui/button.tsx';
import { Empty } from '../ui/empty.tsx';
import { Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
import { Input, TextArea } from '../ui/input.tsx';
import { InheritedList } from './inherited-list.tsx';

const FROM = [
  ['addresses', 'pages by their addresses'],
  ['section', 'a whole section of a site'],
  ['file', 'a file'],
  ['html', 'pasted HTML'],
] as const;
type From = (typeof FROM)[number][0];

/** While something is read or comes in, the list is asked anew so often, in milliseconds. */
const ASKED_AGAIN = 1500;

const isUnderWay = ({ state, words }: InheritedLine): boolean =>
  (state === 'reading' && words === '') || state === 'coming';

/** Pages that other people made: read by address, as a section, as a file or pasted; and all that were read. */
export function BringInScreen() {
  const targets = useQuery(targetsQuery);
  const list = useQuery({
    ...inheritedListQuery,
    refetchInterval: ({ state }) => (state.data?.some(isUnderWay) ? ASKED_AGAIN : false),
  });
  const [from, setFrom] = useState<From>('addresses');
  const [target, setTarget] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [leftOut, setLeftOut] = useState<readonly string[]>([]);
  const [isBusy, setBusy] = useState(false);
  const navigate = useNavigate();
  const all = targets.data ?? [];
  const targetId = target ?? (all.find(({ id }) => id === 'reserve') ?? all[0])?.id ?? '';
  const reading = async (work: () => Promise<{ ids: readonly string[]; leftOut: readonly string[] }>) => {
    setFault(null);
    setLeftOut([]);
    setBusy(true);
    try {
      const begun = await work();
      await queryClient.invalidateQueries({ queryKey: ['inherited'] });
      setLeftOut(begun.leftOut);
      const [only, ...others] = begun.ids;
      if (only !== undefined && others.length === 0 && begun.leftOut.length === 0)
        navigate(`/pages/bring-in/${only}`);
    } catch (error) {
      setFault(sayFailure(error));
    } finally {
      setBusy(false);
    }
  };
  const read = (what: NewInherited['from']) =>
    void reading(() => requestJson('post /inherited', BegunSchema, { body: { targetId, from: what } }));
  const readFile = (file: File) =>
    void reading(() =>
      requestJson('post /inherited/files', BegunSchema, { query: { targetId, name: file.name }, file }),
    );
  const drop = useDrop(holdsFiles, (data) => {
    const [file] = data.files;
    if (file) readFile(file);
  });
  if (!targets.data || !list.data) return <Unanswered isScreen of={[targets, list]} />;
  return (
    <div
      className="h-full overflow-auto px-8.5 pt-5.5 pb-10 max-narrow:px-3.5 max-narrow:py-4"
      {...drop.handlers}
    >
      <div className="mx-auto max-w-275">
        <header className="border-b-2 border-ink pb-2.5">
          <h1 className="sr-only">Bring in pages that other people made</h1>
          <Sentence>
            Bring in <Choice about="From" value={from} choices={FROM} onChoose={setFrom} /> for the{' '}
            <Choice
              about="For"
              value={targetId}
              choices={all.map(({ id, rules }) => [id, rules.name] as const)}
              onChoose={setTarget}
            />
          </Sentence>
          <p className="text-soft">
            Each page is read first, and stands beside what it becomes here, with its faults. Nothing is taken
            before you say so.
          </p>
        </header>
        <div className="border-b border-line py-3.5 data-[over=true]:bg-action-soft" data-over={drop.isOver}>
          <Given key={from} from={from} isBusy={isBusy} onRead={read} onFile={readFile} />
          <Fault says={fault} className="mt-2" />
          {leftOut.length > 0 ? (
            <ul className="mt-2 list-disc pl-4.5 text-due" aria-label="Not read">
              {leftOut.map((one) => (
                <li key={one}>{one}</li>
              ))}
            </ul>
          ) : null}
        </div>
        {list.data.length === 0 ? (
          <Empty title="No page was read yet">
            A page at an address, a sitemap, a file or a ZIP of pages, or the HTML itself: what it says and
            shows becomes a page here.
          </Empty>
        ) : (
          <InheritedList lines={list.data} />
        )}
      </div>
    </div>
  );
}

interface GivenProps {
  readonly from: From;
  readonly isBusy: boolean;
  readonly onRead: (what: NewInherited['from']) => void;
  readonly onFile: (file: File) => void;
}

/** What is given to be read, as the sentence over it says. */
function Given({ from, isBusy, onRead, onFile }: GivenProps) {
  const [words, setWords] = useState('');
  const [address, setAddress] = useState('');
  const chooser = useRef<HTMLInputElement>(null);
  useOffer([{ words: 'Choose a page or a ZIP to bring in', act: () => chooser.current?.click() }]);
  const lines = words
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (words.trim() === '') return;
    if (from === 'addresses') onRead({ kind: 'addresses', addresses: lines });
    else if (from === 'section') onRead({ kind: 'section', address: words.trim() });
    else onRead({ kind: 'html', html: words, name: 'pasted HTML', address: address.trim() });
  };
  const choose = (
    <input
      ref={chooser}
      type="file"
      accept=".html,.htm,.xhtml,.zip"
      hidden
      aria-label="A page or a ZIP"
      onChange={(event) => {
        const [file] = event.target.files ?? [];
        if (file) onFile(file);
        event.target.value = '';
      }}
    />
  );
  if (from === 'file')
    return (
      <div className="flex flex-wrap items-center gap-3">
        {choose}
        <Button kind="action" disabled={isBusy} onClick={() => chooser.current?.click()}>
          Choose a file
        </Button>
        <p className="text-soft">
          or drop it here: a page of HTML, or a ZIP with pages and the pictures beside them, up to 60 MB.
        </p>
      </div>
    );
  const button = (
    <Button kind="action" type="submit" disabled={isBusy || words.trim() === ''}>
      {from === 'addresses' && lines.length > 1 ? `Read ${lines.length} pages` : 'Read it'}
    </Button>
  );
  return (
    <form className="grid gap-2.5" onSubmit={submit}>
      {choose}
      {from === 'section' ? (
        <div className="flex flex-wrap items-end gap-2">
          <Field
            className="min-w-60 flex-1"
            name="Address of its sitemap, or of a page that links to its pages"
          >
            {(control) => (
              <Input
                {...control}
                inputMode="url"
                maxLength={2000}
                value={words}
                onChange={(event) => setWords(event.target.value)}
              />
            )}
          </Field>
          {button}
        </div>
      ) : from === 'addresses' ? (
        <div className="flex flex-wrap items-end gap-2">
          <Field className="min-w-60 flex-1" name="Addresses, one on each line">
            {(control) => (
              <TextArea
                {...control}
                rows={Math.min(8, Math.max(1, words.split('\n').length))}
                className="min-h-7.5"
                inputMode="url"
                value={words}
                onChange={(event) => setWords(event.target.value)}
              />
            )}
          </Field>
          {button}
        </div>
      ) : (
        <>
          <Field name="HTML of the page">
            {(control) => (
              <TextArea
                {...control}
                rows={6}
                className="font-mono text-sm"
                spellCheck={false}
                value={words}
                onChange={(event) => setWords(event.target.value)}
              />
            )}
          </Field>
          <div className="flex flex-wrap items-end gap-2">
            <Field
              className="min-w-60 flex-1"
              name="Where it stood"
              hint="Its pictures and links are read from there. May be left out where they are whole addresses."
            >
              {(control) => (
                <Input
                  {...control}
                  inputMode="url"
                  maxLength={2000}
                  value={address}
                  onChange={(event) => setAddress(event.target.value)}
                />
              )}
            </Field>
            {button}
          </div>
        </>
      )}
    </form>
  );
}
