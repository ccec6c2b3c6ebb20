import { useQuery } from '@tanstack/react-query';
import { type KeyboardEvent, useEffect, useId, useRef, useState } from 'react';
import type { Asset } from '#api/assets.ts';
import type { Proposal, WordingItem } from '#api/wording.ts';
import { altFault } from '#core/words/alt.ts';
import { lookalikesQuery } from '../api/queries.ts';
import { AltCheck, mendedAlt } from '../label/alt-check.tsx';
import { Button } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { Deeds } from '../ui/deeds.tsx';
import { INPUT_LOOK } from '../ui/input.tsx';
import { RadioList } from '../ui/radio-list.tsx';
import { altOf, DECISION_WORDS, DECISIONS, type Draft, draftOf, LEADS_WORDS } from './decisions.ts';

const KEY_LOOK =
  'flex-none rounded-sm border border-current px-1.5 font-mono text-2xs leading-4 font-normal text-soft';

interface WordingItemProps {
  readonly item: WordingItem;
  readonly said: Draft;
  readonly language: string;
  /** The other pieces of the round that have words, to say the same as they do. */
  readonly others: readonly Asset[];
  readonly isProposal: boolean;
  readonly onNext: (draft: Draft) => void;
  readonly onBack: (draft: Draft) => void;
  readonly onProposal: (proposal: Proposal, isTaken: boolean) => void;
}

/** One picture of a round: what it does on its page, and what is heard in its place. */
export function WordingCard({
  item: { asset, place, proposal },
  said,
  language,
  others,
  isProposal,
  onNext,
  onBack,
  onProposal,
}: WordingItemProps) {
  const [draft, setDraft] = useState(said);
  const id = useId();
  const card = useRef<HTMLElement>(null);
  const hasField = draft.decision !== 'decorates';
  // Whoever goes on by keyboard writes at once, and is nowhere else when there is nothing to write.
  useEffect(() => {
    card.current
      ?.querySelector<HTMLElement>(hasField ? 'textarea' : '[role="radio"][aria-checked="true"]')
      ?.focus();
  }, [hasField]);
  const alike = useQuery(lookalikesQuery(asset.id)).data ?? [];
  const same = [...alike.map((one) => one.asset), ...others].filter(
    ({ id: other, label }, at, all) =>
      other !== asset.id && label.alt.kind === 'text' && all.findIndex((one) => one.id === other) === at,
  );
  const caption = place?.caption ?? asset.label.caption;
  const isLinked = (place?.leadsTo ?? '') !== '';
  const keys = (event: KeyboardEvent) => {
    const decision = event.altKey ? DECISIONS[Number(event.key) - 1] : undefined;
    const isLong = event.target instanceof HTMLElement && event.target.dataset.long !== undefined;
    if (decision) setDraft({ ...draft, decision });
    else if (event.altKey && event.key === '.') mend();
    else if (event.altKey && event.key === 'ArrowLeft') onBack(draft);
    else if (event.altKey && event.key === 'ArrowRight') onNext(draft);
    else if (
      event.key === 'Enter' &&
      (event.ctrlKey || !isLong) &&
      !(event.target instanceof HTMLElement && event.target.matches('button:not([role="radio"])'))
    )
      onNext(draft);
    else return;
    event.preventDefault();
  };
  const mend = () => {
    const fault = altFault({ kind: 'text', text: draft.text }, { linked: isLinked, caption });
    const mended = fault ? mendedAlt(fault, draft.text) : null;
    if (mended) setDraft({ ...draft, text: mended });
  };
  const asks = DECISIONS.map((decision) => {
    const words = decision === 'tells' && isLinked ? LEADS_WORDS : DECISION_WORDS[decision];
    return [decision, words] as const;
  });
  return (
    <section
      ref={card}
      className="grid content-start gap-3.5 overflow-auto px-5 py-4 max-narrow:px-2.5"
      aria-label={asset.label.title || asset.stem}
      onKeyDown={keys}
    >
      <header>
        <h2 className="font-serif text-3xl leading-tight font-normal wrap-anywhere italic">
          {asset.label.title || asset.stem}
        </h2>
        <p className="text-soft">{[asset.label.creator, place?.standing].filter(Boolean).join('. ')}</p>
      </header>
      {proposal && !isProposal ? (
        <Proposed
          proposal={proposal}
          asset={asset}
          onTake={() => {
            setDraft(draftOf(proposal));
            onProposal(proposal, true);
          }}
          onLeave={() => onProposal(proposal, false)}
        />
      ) : null}
      <div className="grid gap-1">
        <h3 className="mb-0.5 text-lg font-strong">
          {place ? 'What does it do on this page?' : 'What does it do?'}
        </h3>
        <RadioList
          about="What it does"
          value={draft.decision}
          choices={asks.map(([decision, [does, then]], at) => [
            decision,
            <span key={decision} className="flex w-full items-start gap-2 py-0.75">
              <span>
                <strong>{does}</strong> <span className="text-soft">{then}</span>
              </span>
              <kbd className={cx(KEY_LOOK, 'ml-auto')}>Alt {at + 1}</kbd>
            </span>,
          ])}
          onChoose={(decision) => setDraft({ ...draft, decision })}
        />
      </div>
      {hasField ? (
        <div>
          <label className="mb-1.25 block text-lg font-strong" htmlFor={`${id}-alt`}>
            {draft.decision === 'words' ? 'The words in it' : 'Somebody who cannot see it hears'}
          </label>
          <textarea
            id={`${id}-alt`}
            className={cx(INPUT_LOOK, 'min-h-14 w-full text-md')}
            rows={2}
            maxLength={1000}
            spellCheck
            lang={language || undefined}
            value={draft.text}
            onChange={(event) => setDraft({ ...draft, text: event.target.value.replace(/\n/g, ' ') })}
          />
          <AltCheck
            text={draft.text}
            caption={caption}
            linked={isLinked}
            onText={(text) => setDraft({ ...draft, text })}
            onDecorative={() => setDraft({ ...draft, decision: 'decorates' })}
          />
        </div>
      ) : null}
      {draft.decision === 'too-much' ? (
        <div>
          <label className="mb-1.25 block font-strong" htmlFor={`${id}-long`}>
            The long of it
          </label>
          <textarea
            id={`${id}-long`}
            data-long
            className={cx(INPUT_LOOK, 'min-h-24 w-full')}
            rows={5}
            maxLength={5000}
            spellCheck
            lang={language || undefined}
            value={draft.long}
            onChange={(event) => setDraft({ ...draft, long: event.target.value })}
          />
        </div>
      ) : null}
      <HeardHere place={place} draft={draft} />
      {same.length > 0 && draft.decision !== 'decorates' ? (
        <div>
          <h3 className="mb-1 text-sm text-soft">The same as</h3>
          <ul className="grid gap-1">
            {same.slice(0, 4).map(({ id: other, thumb, label, stem }) => (
              <li key={other} className="flex items-start gap-2">
                <img className="h-8 w-12 flex-none bg-stage object-cover" src={thumb} alt="" />
                <Button
                  kind="link"
                  className="text-left whitespace-normal"
                  aria-label={`Say the same as of ${label.title || stem}: ${label.alt.kind === 'text' ? label.alt.text : ''}`}
                  onClick={() => label.alt.kind === 'text' && setDraft({ ...draft, text: label.alt.text })}
                >
                  {label.alt.kind === 'text' ? label.alt.text : ''}
                </Button>
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      <Deeds>
        <Button kind="action" onClick={() => onNext(draft)}>
          {isProposal ? 'Propose it, next' : 'Next'}
        </Button>
        <Button onClick={() => onBack(draft)}>Back</Button>
        <span className="ml-auto text-sm text-soft max-narrow:hidden">
          <kbd className={KEY_LOOK}>Enter</kbd> next, <kbd className={KEY_LOOK}>Alt ←</kbd> back
        </span>
      </Deeds>
    </section>
  );
}

/** How it is heard between the words that stand round it. */
function HeardHere({ place, draft }: { readonly place: WordingItem['place']; readonly draft: Draft }) {
  if (!place) return null;
  const alt = altOf(draft);
  const heard = alt.kind === 'text' ? `Graphic: ${alt.text}` : alt.kind === 'decorative' ? '' : 'Graphic.';
  return (
    <div className="bg-ground px-3 py-2">
      <h3 className="mb-0.5 text-sm text-soft">As it is heard on “{place.title || 'Untitled page'}”</h3>
      <p className="font-serif text-md italic">
        {place.before} <strong className="font-bold">{heard}</strong>{' '}
        {[place.caption, place.credit, place.after].filter(Boolean).join(' ')}
      </p>
    </div>
  );
}

interface ProposedProps {
  readonly proposal: Proposal;
  readonly asset: Asset;
  readonly onTake: () => void;
  readonly onLeave: () => void;
}

/** What a contributor proposes, beside what was said. */
function Proposed({ proposal: { by, alt, extendedDescription }, asset, onTake, onLeave }: ProposedProps) {
  const says = (one: Asset['label']['alt']) =>
    one.kind === 'text' ? `“${one.text}”` : one.kind === 'decorative' ? 'It decorates.' : 'Nothing yet.';
  return (
    <div className="border-l-4 border-measure bg-ground px-3 py-2">
      <div className="grid grid-cols-2 gap-3 max-narrow:grid-cols-1">
        <p>
          <span className="block text-sm text-soft">Now</span>
          {says(asset.label.alt)}
        </p>
        <p>
          <span className="block text-sm text-soft">{by} proposes</span>
          {says(alt)} {extendedDescription}
        </p>
      </div>
      <Deeds>
        <Button onClick={onTake}>Take it</Button>
        <Button kind="link" onClick={onLeave}>
          Leave it
        </Button>
      </Deeds>
    </div>
  );
}
