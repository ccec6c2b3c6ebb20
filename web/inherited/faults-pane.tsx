import { type ReactNode, useEffect, useRef } from 'react';
import type { BringInWish, InheritedPage, SaidFault } from '#api/inherited.ts';
import { addressOf } from '../api/client.ts';
import { Button, LinkButton } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { Folded } from '../ui/folded.tsx';
import { WordsAsked } from './words-asked.tsx';

interface FaultsPaneProps {
  readonly page: InheritedPage;
  readonly wish: BringInWish;
  readonly isBusy: boolean;
  readonly chosen: number | null;
  readonly onWish: (wish: BringInWish) => void;
  readonly onChoose: (number: number | null) => void;
  readonly onBringIn: () => void;
  readonly onTakeBack: () => void;
  /** Reads the pages that it is made of by frames. */
  readonly onReadFramed: () => void;
}

/** What is wrong with an inherited page, what becomes of each, and what has to be decided before it comes in. */
export function FaultsPane(props: FaultsPaneProps) {
  const { page, wish, isBusy, chosen, onChoose } = props;
  return (
    <aside className="overflow-auto bg-panel px-4 pt-3 pb-7.5" aria-label="Faults">
      <div className="flex min-h-8 flex-wrap items-center justify-between gap-2">
        <h2 className="text-lg">{titleOf(page)}</h2>
        <Deed {...props} />
      </div>
      <ol className="mt-2.5">
        {page.list.map((fault, at) => (
          <FaultLine
            key={fault.code}
            number={at + 1}
            fault={fault}
            isMended={wish.mends && fault.outcome === 'mended'}
            isChosen={chosen === at + 1}
            onChoose={onChoose}
          >
            {page.state === 'read' ? (
              <Decision
                fault={fault}
                isBusy={isBusy}
                wish={wish}
                asked={fault.code === askingCode(page) ? page.unworded : []}
                framed={page.framed}
                onWish={props.onWish}
                onReadFramed={props.onReadFramed}
              />
            ) : null}
          </FaultLine>
        ))}
      </ol>
      {page.state === 'in' && page.asks > 0 ? (
        <p className="border-t border-hairline py-2.5">
          What asks you waits in{' '}
          <LinkButton kind="link" to={`/pages/${page.pageId}/proof`}>
            the proof of the page
          </LinkButton>
          .
        </p>
      ) : null}
      <LeftOut left={page.left} />
      <p className="border-t border-hairline pt-2.75 text-soft">
        The page as it was{' '}
        <a
          className="text-ink underline hover:bg-action-soft"
          href={addressOf('get /inherited/{id}/html', { path: { id: page.id } })}
          download
        >
          is kept as a file
        </a>
        . One step takes everything back.
      </p>
    </aside>
  );
}

const titleOf = ({ list }: InheritedPage): string =>
  list.length === 0 ? 'No faults' : list.length === 1 ? '1 sort of fault' : `${list.length} sorts of faults`;

function Deed({ page, isBusy, onBringIn, onTakeBack }: FaultsPaneProps) {
  if (page.state === 'in')
    return (
      <div className="flex flex-wrap gap-2">
        {page.mayBeTakenBack ? <Button onClick={onTakeBack}>Take it back</Button> : null}
        <LinkButton kind="action" to={`/pages/${page.pageId}`}>
          Open the page
        </LinkButton>
      </div>
    );
  return (
    <Button kind="action" disabled={isBusy || page.state !== 'read'} onClick={onBringIn}>
      Bring it in
    </Button>
  );
}

interface DecisionProps {
  readonly fault: SaidFault;
  readonly isBusy: boolean;
  readonly wish: BringInWish;
  readonly asked: InheritedPage['unworded'];
  readonly framed: InheritedPage['framed'];
  readonly onWish: (wish: BringInWish) => void;
  readonly onReadFramed: () => void;
}

/** The first of the faults by which pictures say nothing: all of them are asked for there. */
const askingCode = ({ list }: InheritedPage): string | undefined =>
  list.find(({ code }) => /^(?:alt-missing|alt-file-name|linked-decorative)$/.test(code))?.code;

/** What can be said beforehand, for all that a fault is about. */
function Decision({ fault, isBusy, wish, asked, framed, onWish, onReadFramed }: DecisionProps) {
  if (asked.length > 0) return <WordsAsked asked={asked} wish={wish} isBusy={isBusy} onWish={onWish} />;
  if (fault.code === 'frames' && framed.length > 0)
    return (
      <>
        <ul className="my-1 list-disc pl-4.5 font-mono text-mono wrap-anywhere">
          {framed.map((address) => (
            <li key={address}>{address}</li>
          ))}
        </ul>
        <Button kind="link" onClick={onReadFramed}>
          {framed.length === 1 ? 'Read it' : `Read all ${framed.length}`}
        </Button>
      </>
    );
  if (fault.code === 'licence-unknown')
    return (
      <Checkbox checked={wish.isOurs} disabled={isBusy} onChange={(isOurs) => onWish({ ...wish, isOurs })}>
        They are our own work
      </Checkbox>
    );
  if (fault.code === 'link-dead')
    return (
      <Checkbox
        checked={wish.unlinksDead}
        disabled={isBusy}
        onChange={(unlinksDead) => onWish({ ...wish, unlinksDead })}
      >
        Keep the words without the link
      </Checkbox>
    );
  return null;
}

interface FaultLineProps {
  readonly number: number;
  readonly fault: SaidFault;
  readonly isMended: boolean;
  readonly isChosen: boolean;
  readonly onChoose: (number: number | null) => void;
  readonly children: ReactNode;
}

function FaultLine({ number, fault, isMended, isChosen, onChoose, children }: FaultLineProps) {
  const line = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (isChosen) line.current?.scrollIntoView({ block: 'nearest' });
  }, [isChosen]);
  const outcome = fault.outcome === 'asks' ? 'asks you' : isMended ? 'mended' : 'stays';
  const isSeen = fault.spots.length > 0;
  return (
    <li
      className="grid grid-cols-[24px_minmax(0,1fr)_auto] gap-x-3 gap-y-1 border-t border-hairline pt-2.5 pb-2.75 data-[chosen=true]:bg-action-soft data-[chosen=true]:shadow-[-16px_0_0_var(--color-action-soft),16px_0_0_var(--color-action-soft)]"
      data-chosen={isChosen}
      ref={line}
    >
      {isSeen ? (
        <button
          type="button"
          className="size-6 bg-ink text-center font-sans text-sm leading-6 font-semibold text-panel data-[asks=true]:bg-measure data-[asks=true]:text-white"
          data-asks={fault.outcome === 'asks'}
          aria-label={`Show fault ${number} on the page`}
          aria-pressed={isChosen}
          onClick={() => onChoose(isChosen ? null : number)}
        >
          {number}
        </button>
      ) : (
        <span className="text-center leading-6 font-semibold text-soft">{number}</span>
      )}
      <div className="min-w-0">
        <p className="wrap-anywhere">
          {fault.sentence}{' '}
          <span className="text-soft">
            {isMended || fault.outcome === 'asks' ? fault.became : 'Left as it is.'}
          </span>
        </p>
        {children}
      </div>
      <span
        className="font-semibold text-action data-[outcome=asks]:text-due data-[outcome=stays]:text-soft"
        data-outcome={outcome === 'asks you' ? 'asks' : outcome}
      >
        {outcome}
      </span>
    </li>
  );
}

const LEFT_WORDS: Readonly<Record<string, readonly [one: string, more: string]>> = {
  furniture: ['a part that the site has on every page', 'parts that the site has on every page'],
  decoration: ['a picture that only decorates or counts', 'pictures that only decorate or count'],
  program: ['a program', 'programs'],
  drawing: ['a drawing', 'drawings'],
  text: ['words that were struck out', 'places with words that were struck out'],
  picture: ['a picture', 'pictures'],
  form: ['a form', 'forms'],
};

/** What does not come along, folded away: it is rarely missed. */
function LeftOut({ left }: { readonly left: InheritedPage['left'] }) {
  if (left.length === 0) return null;
  const count = left.reduce((sum, one) => sum + one.count, 0);
  return (
    <Folded
      className="border-t border-hairline py-2"
      words={count === 1 ? 'One thing does not come along' : `${count} things do not come along`}
    >
      <ul className="list-disc pl-4.5 text-soft">
        {left.map(({ kind, count: some, examples }) => {
          const [one, more] = LEFT_WORDS[kind] ?? [kind, kind];
          return (
            <li key={kind} className="wrap-anywhere">
              {some === 1 ? one : `${some} ${more}`}: {examples.map((example) => `“${example}”`).join(', ')}
            </li>
          );
        })}
      </ul>
    </Folded>
  );
}
