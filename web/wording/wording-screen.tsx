import { queryOptions, useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import * as v from 'valibot';
import type { Asset } from '#api/assets.ts';
import { mayChangePiece } from '#api/people.ts';
import {
  type Proposal,
  type WordingItem,
  type WordingQuery,
  WordingQuerySchema,
  WordingSchema,
} from '#api/wording.ts';
import { requestJson, requestVoid, sayFailure } from '../api/client.ts';
import { meQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { HeadPane } from '../frame/panes.tsx';
import { sayPageTitle } from '../pages/say-title.ts';
import { pieces, putPieces } from '../pieces/pieces.ts';
import { cx } from '../ui/cx.ts';
import { Empty } from '../ui/empty.tsx';
import { say } from '../ui/spoken.ts';
import { useStore } from '../ui/store.ts';
import { toast } from '../ui/toast.ts';
import type { Draft } from './decisions.ts';
import { saidOf, saveWords } from './save-words.ts';
import { WordingCard } from './wording-item.tsx';
import { WordingQuestion } from './wording-question.tsx';

/** A round is asked for once: what was worded in it stays in its place until another is asked for. */
const wordingQuery = (question: WordingQuery) =>
  queryOptions({
    queryKey: ['wording', question],
    queryFn: ({ signal }) => requestJson('get /wording', WordingSchema, { query: question, signal }),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });

function readWordingQuestion(params: URLSearchParams): WordingQuery {
  const said = Object.fromEntries(params);
  return v.is(WordingQuerySchema, said) ? said : {};
}

function writeWordingQuestion(question: WordingQuery): URLSearchParams {
  const said = Object.entries(question).filter(
    ([, value]) => value !== undefined && value !== '' && value !== 'no',
  );
  return new URLSearchParams(said.map(([key, value]) => [key, String(value)]));
}

/** All pictures that want words, one after the other. */
export function WordingScreen() {
  const [params, setParams] = useSearchParams();
  const question = readWordingQuestion(params);
  const asked = useQuery(wordingQuery(question));
  useEffect(() => {
    if (asked.data) putPieces(asked.data.items.map(({ asset }) => asset));
  }, [asked.data]);
  return (
    <div className="grid h-full grid-rows-[auto_minmax(0,1fr)]">
      <HeadPane aria-label="Question">
        <h1 className="sr-only">Words, one piece after the other</h1>
        <WordingQuestion
          question={question}
          onAsk={(next) => setParams(writeWordingQuestion(next), { replace: true })}
        />
        <p className="mt-0.5 text-soft">Everything is kept as you go.</p>
      </HeadPane>
      <Unanswered of={asked} />
      {asked.data?.items.length === 0 ? (
        <Empty>
          <h2 className="mb-1 text-xl text-ink">Every picture here has its words</h2>
          <p>
            Ask for other pages, or for every picture. <Link to="/shelf">Back to the shelf</Link>
          </p>
        </Empty>
      ) : null}
      {asked.data && asked.data.items.length > 0 ? (
        <Round
          key={params.toString()}
          items={asked.data.items}
          more={asked.data.more}
          language={question.language ?? ''}
        />
      ) : null}
    </div>
  );
}

interface RoundProps {
  readonly items: readonly WordingItem[];
  readonly more: boolean;
  readonly language: string;
}

function Round({ items, more, language }: RoundProps) {
  const [at, setAt] = useState(0);
  const [settled, setSettled] = useState<ReadonlySet<string>>(new Set());
  /** The pieces that were worded here: each counts at once, however long its saving takes. */
  const [worded, setWorded] = useState<ReadonlySet<string>>(new Set());
  const known = useStore(pieces);
  const { data: me } = useQuery(meQuery);
  const all = items.map((item) => ({ ...item, asset: known.get(item.asset.id) ?? item.asset }));
  const item = all[at];
  const strip = useRef<HTMLOListElement>(null);
  useEffect(() => {
    strip.current?.querySelector(`[data-at="${at}"]`)?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [at]);
  if (!item || !me) return null;
  const isProposal = !mayChangePiece(me, item.asset.createdBy.id);
  const { id } = item.asset;
  const leftAfter = (now: ReadonlySet<string>) =>
    all.filter(({ asset }) => !now.has(asset.id) && !isSaid(asset, language)).length;
  /** Said at once, and saved behind; answers what is worded from then on. */
  const save = (draft: Draft): ReadonlySet<string> => {
    const now = new Set(worded);
    if (!isProposal && saysSomething(draft)) now.add(id);
    else now.delete(id);
    setWorded(now);
    void saveWords(item.asset, draft, language, isProposal).catch((error: unknown) => {
      setWorded((before) => new Set([...before].filter((one) => one !== id)));
      toast.error(`${item.asset.label.title || item.asset.stem}: ${sayFailure(error)}`);
    });
    return now;
  };
  const go = (to: number) => {
    const next = all[to];
    if (!next) return;
    setAt(to);
    say(`${to + 1} of ${all.length}: ${next.asset.label.title || next.asset.stem}`);
  };
  const settle = (proposal: Proposal) => {
    setSettled((before) => new Set([...before, proposal.id]));
    void requestVoid('delete /proposals/{id}', { path: { id: proposal.id } }).catch((error: unknown) =>
      toast.error(sayFailure(error)),
    );
  };
  const open = item.proposal && !settled.has(item.proposal.id) ? item.proposal : null;
  const left = leftAfter(worded);
  return (
    <div className="grid min-h-0 grid-rows-[minmax(0,1fr)_auto]">
      <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_470px] max-middle:grid-cols-1 max-middle:grid-rows-[30vh_minmax(0,1fr)]">
        <figure className="grid min-h-0 grid-rows-[minmax(0,1fr)_auto] bg-stage p-4.5 max-narrow:p-2">
          <img className="size-full min-h-0 object-contain" src={item.asset.view} alt="" />
          <figcaption className="pt-2 font-mono text-mono text-white max-middle:hidden">
            {[
              `${item.asset.stem}.${item.asset.extension}`,
              item.place ? `on “${sayPageTitle(item.place.title)}”` : '',
            ]
              .filter(Boolean)
              .join(' · ')}
          </figcaption>
        </figure>
        <div className="grid min-h-0 border-l border-line bg-panel">
          <WordingCard
            key={`${item.asset.id} ${language}`}
            item={{ ...item, proposal: open }}
            said={saidOf(item.asset, language)}
            language={language}
            others={all.filter((_, other) => other < at).map(({ asset }) => asset)}
            isProposal={isProposal}
            onNext={(draft) => {
              const left = leftAfter(save(draft));
              if (at + 1 < all.length) go(at + 1);
              else toast(sayLast(left));
            }}
            onBack={(draft) => {
              save(draft);
              go(at - 1);
            }}
            onProposal={settle}
          />
        </div>
      </div>
      <div className="flex items-start gap-3.5 border-t border-line bg-panel px-4.5 py-2.5 max-narrow:hidden">
        <p className="w-24 flex-none" role="status">
          <strong className="block">
            {all.length === 1 ? '1 piece' : `${all.length} pieces`}
            {more ? ' or more' : ''}
          </strong>
          <span className="text-soft">{left} to go</span>
        </p>
        <ol ref={strip} className="flex min-w-0 gap-2.5 overflow-x-auto pb-1" aria-label="The round">
          {all.map(({ asset, proposal }, place) => (
            <li key={asset.id} data-at={place} className="flex-none">
              <button
                type="button"
                className="block text-left"
                aria-current={place === at}
                onClick={() => go(place)}
              >
                <img
                  className={cx(
                    'h-16 border-b-4',
                    isSaid(asset, language) ? 'border-action' : 'border-line',
                    place === at && 'outline-3 outline-measure',
                  )}
                  src={asset.thumb}
                  alt={asset.label.title || asset.stem}
                />
                <span className={cx('block text-sm', place === at ? 'font-semibold text-due' : 'text-soft')}>
                  {place === at ? 'now' : sayState(asset, language, proposal)}
                </span>
              </button>
            </li>
          ))}
        </ol>
      </div>
    </div>
  );
}

function sayLast(left: number): string {
  if (left === 0) return 'That was the last one.';
  return `That was the last one; ${left === 1 ? 'one has' : `${left} have`} no words yet.`;
}

const saysSomething = ({ decision, text }: Draft): boolean => decision === 'decorates' || text.trim() !== '';

const isSaid = (asset: Asset, language: string): boolean => {
  const { decision, text } = saidOf(asset, language);
  return decision === 'decorates' || text !== '';
};

function sayState(asset: Asset, language: string, proposal: Proposal | null): string {
  const { decision, text } = saidOf(asset, language);
  if (decision === 'decorates') return 'decorates';
  if (text !== '') return decision === 'too-much' ? 'said, and at length' : 'said';
  return proposal ? `${proposal.by.split(' ')[0] ?? ''} proposes` : 'not yet';
}
