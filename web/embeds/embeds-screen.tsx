import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Target } from '#api/targets.ts';
import { entryById, type Hosts, trustOf } from '#core/embed/host.ts';
import { type ReadEmbed, readPasted } from '#core/embed/reading.ts';
import { titleOf } from '#core/embed/write.ts';
import { EN } from '#core/messages/en.ts';
import type { HeldEmbed } from '#core/page/piece.ts';
import { embedOf } from '#core/page/piece.ts';
import { sayFailure } from '../api/client.ts';
import { pagesQuery, targetsQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { carriedText } from '../arrivals/carried-text.ts';
import { useDrop } from '../arrivals/use-drop.ts';
import { usePaste } from '../arrivals/use-paste.ts';
import { sayPageTitle } from '../pages/say-title.ts';
import { putPieces } from '../pieces/pieces.ts';
import { Button, LinkButton } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { FAULT_LOOK, Fault } from '../ui/fault.tsx';
import { RadioList } from '../ui/radio-list.tsx';
import { ledger } from '../undo/ledger.ts';
import { heldEmbedQuery, hostsQuery } from './embed-queries.ts';
import { EMBED_SCOPE, Embedding } from './embedding.tsx';
import { FilmSearch } from './film-search.tsx';
import { HeldList } from './held-list.tsx';
import { EMBED_PANE_LOOK, NEXT_PANE_LOOK } from './panes.ts';
import { LeftOut, PastedBox } from './pasted-box.tsx';

const KEPT = 'placard-pasted';

/** Pasted, What it is, As readers get it: the whole story of one embed, from left to right. */
export function EmbedsScreen() {
  const hosts = useQuery(hostsQuery);
  const targets = useQuery(targetsQuery);
  if (!hosts.data || !targets.data) return <Unanswered isScreen of={[hosts, targets]} />;
  return <Workplace hosts={hosts.data} targets={targets.data} />;
}

interface WorkplaceProps {
  readonly hosts: Hosts;
  readonly targets: readonly Target[];
}

function Workplace({ hosts, targets }: WorkplaceProps) {
  const [params, setParams] = useSearchParams();
  const pieceId = params.get('piece');
  const piece = useQuery({ ...heldEmbedQuery(pieceId ?? ''), enabled: pieceId !== null });
  const [text, setText] = useState(() => params.get('text') ?? sessionStorage.getItem(KEPT) ?? '');
  const [at, setAt] = useState(0);
  const [keptId, setKeptId] = useState<string | null>(null);
  useEffect(() => sessionStorage.setItem(KEPT, text.slice(0, 100_000)), [text]);
  useEffect(() => () => ledger.forget(EMBED_SCOPE), []);
  const read = useDeferredValue(text);
  const { embeds, marks, refusals } = useMemo(() => readPasted(read, hosts), [read, hosts]);
  useEffect(() => {
    if (piece.data) putPieces([piece.data]);
  }, [piece.data]);
  const held = pieceId === null ? null : (piece.data ?? null);
  const heldEmbed = held ? embedOf(held) : null;
  const chosen = heldEmbed ? asRead(heldEmbed) : embeds[Math.min(at, embeds.length - 1)];
  const searchable = hosts.entries.filter(({ search }) => search !== null);
  const paste = (next: string) => {
    setText(next);
    setAt(0);
    if (pieceId !== null) setParams(forPage(params), { replace: true });
  };
  usePaste((data) => {
    const pasted = data.getData('text/plain');
    if (pasted.trim() === '') return false;
    paste(pasted);
    return true;
  });
  const drop = useDrop(holdsText, (data) => paste(carriedText(data)));
  return (
    <div
      className={cx(
        'grid h-full grid-cols-[minmax(260px,352px)_minmax(300px,420px)_minmax(0,1fr)] max-middle:block max-middle:overflow-auto',
        drop.isOver && 'inset-ring-3 inset-ring-action',
      )}
      {...drop.handlers}
    >
      <section className={EMBED_PANE_LOOK} aria-labelledby="embeds-pasted">
        <header className="mb-3">
          <h1 className="text-xl" id="embeds-pasted">
            Pasted
          </h1>
          <p className="mt-0.5 text-soft">An address, or whatever code the other site gave you.</p>
        </header>
        <PastedBox
          text={heldEmbed ? heldEmbed.embed.page : text}
          marks={read === text && !held ? marks : []}
          onChange={paste}
        />
        <Fault className="mt-2.5" says={piece.error ? sayFailure(piece.error) : null} />
        {(held ? [] : refusals).map((refusal) => (
          <p key={refusal} className={cx(FAULT_LOOK, 'mt-2.5')} role="status">
            {refusal}
          </p>
        ))}
        {marks.length > 0 && !held ? (
          <>
            <p className="mt-2.5 text-soft">
              Green is kept as a fact. What is struck through does not come along: the code at the right is
              written anew.
            </p>
            <LeftOut text={read} marks={marks} />
          </>
        ) : null}
        {embeds.length > 1 && !held ? (
          <Several embeds={embeds} hosts={hosts} at={at} onChoose={setAt} />
        ) : null}
        {pieceId === null ? null : <BackToPage params={params} />}
        {text !== '' || held ? (
          <p className="mt-2.5">
            <Button kind="link" onClick={() => paste('')}>
              Begin with another
            </Button>
          </p>
        ) : (
          searchable.map((host) => <FilmSearch key={host.id} host={host} onTake={paste} />)
        )}
      </section>
      {chosen ? (
        <Embedding
          key={`${held?.id} ${chosen.embed.address}`}
          read={chosen}
          piece={held}
          hosts={hosts}
          targets={targets}
          isJustKept={held !== null && held.id === keptId}
          onKept={(asset) => {
            setKeptId(asset.id);
            setParams({ ...forPage(params), piece: asset.id }, { replace: true });
          }}
        />
      ) : (
        <section className={cx(EMBED_PANE_LOOK, NEXT_PANE_LOOK, 'col-[2_/_-1]')} aria-label="What is held">
          <p className="mb-7 max-w-[44ch] font-serif text-2xl leading-normal font-normal text-soft italic">
            Films, maps, forms, boards and feeds of other sites come here first. Paste the address of a page
            or the code its host offers, and see what it is, what it asks for, and how it will stand on the
            page.
          </p>
          {hosts.entries.length === 0 ? (
            <p className="mt-3.5 max-w-100 text-soft">
              No host is trusted yet, so that everything comes as a link. The site owner decides on an address
              here, or takes entries of hosts in under <Link to="/rules">House rules</Link>.
            </p>
          ) : null}
          <HeldList />
        </section>
      )}
    </div>
  );
}

/** The page, and the want of it, that an embed was looked for. */
function forPage(params: URLSearchParams): Readonly<Record<string, string>> {
  return Object.fromEntries([...params].filter(([name]) => name === 'page' || name === 'want'));
}

/** The way back to where it stands on a page, for whoever came from there. */
function BackToPage({ params }: { readonly params: URLSearchParams }) {
  const [pageId, use] = [params.get('page'), params.get('use')];
  const pages = useQuery({ ...pagesQuery, enabled: use !== null });
  if (pageId === null || use === null) return null;
  // The way back needs no list: only its words wait for it.
  const page = pages.data?.pages.find(({ id }) => id === pageId);
  return (
    <p className="mt-2.5">
      <LinkButton to={`/pages/${pageId}?use=${use}`}>
        Back to {page ? sayPageTitle(page.title) : 'the page'}
      </LinkButton>
    </p>
  );
}

const holdsText = (data: DataTransfer) =>
  data.types.includes('text/plain') || data.types.includes('text/uri-list');

interface SeveralProps {
  readonly embeds: readonly ReadEmbed[];
  readonly hosts: Hosts;
  readonly at: number;
  readonly onChoose: (at: number) => void;
}

/** Several things in one paste, one of which is looked at. */
function Several({ embeds, hosts, at, onChoose }: SeveralProps) {
  return (
    <section className="mt-3.5 grid gap-1.5 border-t-2 border-ink pt-2.5">
      <h2 className="text-base font-strong">{embeds.length} things are in this text</h2>
      <RadioList
        about={`${embeds.length} things are in this text`}
        value={String(at)}
        choices={embeds.map(({ embed }, index) => [
          String(index),
          <span key={embed.address}>
            {titleOf(embed, entryById(embed.host, hosts), EN)}{' '}
            <span className="font-mono text-mono text-soft">{new URL(embed.page).pathname}</span>
          </span>,
        ])}
        onChoose={(index) => onChoose(Number(index))}
      />
    </section>
  );
}

/** A held embed as it would be read anew: nothing of it is open any more. */
function asRead({ embed, hosts }: HeldEmbed): ReadEmbed {
  const trust = trustOf(embed.address, hosts);
  return { from: 'address', embed, trust, notGiven: [], unknown: [], tracking: [], notes: [] };
}
