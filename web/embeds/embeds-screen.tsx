import './embeds.css';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { toast } from 'sonner';
import type { Asset } from '#api/assets.ts';
import type { Target } from '#api/targets.ts';
import type { EmbedForm, FormCase } from '#core/embed/forms.ts';
import { entryById, type Hosts, trustOf } from '#core/embed/host.ts';
import type { Embed } from '#core/embed/model.ts';
import { type ReadEmbed, readPasted } from '#core/embed/reading.ts';
import { sayEmbed, sayWhatItIs } from '#core/embed/say.ts';
import { titleOf } from '#core/embed/write.ts';
import type { HeldEmbed } from '#core/page/embed-here.ts';
import { sayFailure } from '../api/client.ts';
import { queryClient, strictest, targetsQuery } from '../api/queries.ts';
import { useDrop } from '../arrivals/use-drop.ts';
import { changePiece, putPieces } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { ledger } from '../undo/ledger.ts';
import { AsReaders } from './as-readers.tsx';
import { EmbedDeeds } from './embed-deeds.tsx';
import { heldEmbedQuery, hostsQuery, lookQuery } from './embed-queries.ts';
import { FilmSearch } from './film-search.tsx';
import { HeldList } from './held-list.tsx';
import { LeftOut, PastedBox } from './pasted-box.tsx';
import { TrustForm } from './trust-form.tsx';
import { EmbedFields, Statements } from './what-it-is.tsx';

const KEPT = 'placard-pasted';
const SCOPE = 'embed';

/** Pasted, What it is, As readers get it: the whole story of one embed, from left to right. */
export function EmbedsScreen() {
  const hosts = useQuery(hostsQuery);
  const targets = useQuery(targetsQuery);
  const failure = hosts.error ?? targets.error;
  if (failure) return <p className="empty">{sayFailure(failure)}</p>;
  if (!hosts.data || !targets.data) return null;
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
  useEffect(() => () => ledger.forget(SCOPE), []);
  const read = useDeferredValue(text);
  const { embeds, marks, refusals } = useMemo(() => readPasted(read, hosts), [read, hosts]);
  useEffect(() => {
    if (piece.data) putPieces([piece.data]);
  }, [piece.data]);
  const held = pieceId === null ? null : (piece.data ?? null);
  const chosen = held?.embed ? asRead(held.embed) : embeds[Math.min(at, embeds.length - 1)];
  const searchable = hosts.entries.filter(({ search }) => search !== null);
  const paste = (next: string) => {
    setText(next);
    setAt(0);
    if (pieceId !== null) setParams({}, { replace: true });
  };
  usePastedAnywhere(paste);
  const drop = useDrop(holdsText, (data) =>
    paste(data.getData('text/plain') || data.getData('text/uri-list')),
  );
  return (
    <div className={`embeds${drop.isOver ? ' is-over' : ''}`} {...drop.handlers}>
      <section className="embeds-pasted" aria-labelledby="embeds-pasted">
        <header>
          <h1 id="embeds-pasted">Pasted</h1>
          <p className="soft">An address, or whatever code the other site gave you.</p>
        </header>
        <PastedBox
          text={held?.embed ? held.embed.embed.page : text}
          marks={read === text && !held ? marks : []}
          onChange={paste}
        />
        {piece.error ? <p className="pasted-says fault">{sayFailure(piece.error)}</p> : null}
        {(held ? [] : refusals).map((refusal) => (
          <p key={refusal} className="pasted-says fault" role="status">
            {refusal}
          </p>
        ))}
        {marks.length > 0 && !held ? (
          <>
            <p className="pasted-says soft">
              Green is kept as a fact. What is struck through does not come along: the code at the right is
              written anew.
            </p>
            <LeftOut text={read} marks={marks} />
          </>
        ) : null}
        {embeds.length > 1 && !held ? (
          <Several embeds={embeds} hosts={hosts} at={at} onChoose={setAt} />
        ) : null}
        {text !== '' || held ? (
          <p className="pasted-says">
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
            setParams({ piece: asset.id }, { replace: true });
          }}
        />
      ) : (
        <section className="embeds-empty" aria-label="What is held">
          <p className="embeds-invitation">
            Films, maps, forms, boards and feeds of other sites come here first. Paste the address of a page
            or the code its host offers, and see what it is, what it asks for, and how it will stand on the
            page.
          </p>
          <HeldList />
        </section>
      )}
    </div>
  );
}

const holdsText = (data: DataTransfer) =>
  data.types.includes('text/plain') || data.types.includes('text/uri-list');

/** Pasted anywhere here but into a field, it is read as if it had been pasted into the box. */
function usePastedAnywhere(paste: (text: string) => void): void {
  const steady = useRef(paste);
  useEffect(() => {
    steady.current = paste;
  });
  useEffect(() => {
    const listen = (event: ClipboardEvent) => {
      if (event.target instanceof Element && event.target.closest('input, textarea')) return;
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (text.trim() === '') return;
      event.preventDefault();
      steady.current(text);
    };
    document.addEventListener('paste', listen);
    return () => document.removeEventListener('paste', listen);
  }, []);
}

interface SeveralProps {
  readonly embeds: readonly ReadEmbed[];
  readonly hosts: Hosts;
  readonly at: number;
  readonly onChoose: (at: number) => void;
}

/** Several things in one paste, one of which is looked at. */
function Several({ embeds, hosts, at, onChoose }: SeveralProps) {
  return (
    <fieldset className="several">
      <legend>{embeds.length} things are in this text</legend>
      {embeds.map(({ embed }, index) => (
        <label key={embed.address} className="check">
          <input type="radio" name="thing" checked={index === at} onChange={() => onChoose(index)} />
          <span>
            {titleOf(embed, entryById(embed.host, hosts))}{' '}
            <span className="soft mono">{new URL(embed.page).pathname}</span>
          </span>
        </label>
      ))}
    </fieldset>
  );
}

/** A held embed as it would be read anew: nothing of it is open any more. */
function asRead({ embed, hosts }: HeldEmbed): ReadEmbed {
  const trust = trustOf(embed.address, hosts);
  return { from: 'address', embed, trust, notGiven: [], unknown: [], tracking: [], notes: [] };
}

interface EmbeddingProps {
  readonly read: ReadEmbed;
  /** The piece that it is on the shelf, or null. */
  readonly piece: Asset | null;
  readonly isJustKept: boolean;
  readonly onKept: (asset: Asset) => void;
  readonly hosts: Hosts;
  readonly targets: readonly Target[];
}

function Embedding({ read, piece, isJustKept, hosts, targets, onKept }: EmbeddingProps) {
  const look = useQuery(lookQuery(read.embed));
  const [changes, setChanges] = useState<Partial<Embed>>({});
  const [targetId, setTargetId] = useState(() => strictest(targets)?.id ?? targets[0]?.id ?? '');
  const [wishes, setWishes] = useState<Readonly<Record<string, EmbedForm | null>>>({});
  const target = targets.find(({ id }) => id === targetId);
  const entry = entryById(read.embed.host, hosts);
  // A host without an entry may offer a frame of its own; what an entry knows stands.
  const told = look.data?.embed;
  const base =
    told && read.embed.host === null ? told : { ...read.embed, facts: told?.facts ?? read.embed.facts };
  const embed: Embed = { ...base, ...changes };
  const trust = trustOf(embed.address, hosts);
  if (!target) return null;
  const caseOn = ({ id, rules }: Target): FormCase => ({
    embed,
    target: rules,
    hosts,
    framing: look.data?.framing.find((one) => one.target === id)?.framing ?? null,
    hasPoster: embed.facts.thumbnail !== '',
  });
  const here = caseOn(target);
  const change = (next: Partial<Embed>, name: string) => {
    if (piece) {
      void changePiece(piece.id, { embed: { ...embed, ...next } }, name)
        .then(() => queryClient.invalidateQueries({ queryKey: ['asset', piece.id] }))
        .catch((error: unknown) => toast.error(sayFailure(error)));
      return;
    }
    const before = changes;
    const after = { ...changes, ...next };
    setChanges(after);
    ledger.add({ name, scope: SCOPE, undo: () => setChanges(before), redo: () => setChanges(after) });
  };
  const statements = sayEmbed({
    ...here,
    trust,
    notGiven: read.notGiven,
    notes: [...read.notes, ...(look.data?.notes ?? []), ...(look.error ? [sayFailure(look.error)] : [])],
    asked: askedOf(look),
    elsewhere: targets.filter(({ id }) => id !== targetId).map(caseOn),
  });
  return (
    <>
      <section className="embeds-what" aria-labelledby="embeds-what">
        <header>
          <h2 id="embeds-what">What it is</h2>
          <p className="soft">{sayWhatItIs(embed, entry, trust)}</p>
        </header>
        <Statements statements={statements} />
        <EmbedFields
          embed={embed}
          entry={entry}
          unknown={read.unknown}
          notGiven={read.notGiven}
          change={change}
        />
      </section>
      <section className="embeds-readers" aria-labelledby="embeds-readers">
        <header>
          <h2 id="embeds-readers">As readers get it</h2>
        </header>
        <AsReaders
          of={here}
          targets={targets}
          target={target}
          wish={wishes[targetId] ?? null}
          onTarget={setTargetId}
          onWish={(form) => setWishes({ ...wishes, [targetId]: form })}
        >
          <EmbedDeeds embed={embed} piece={piece} isJustKept={isJustKept} onKept={onKept} />
          {trust === 'none' && embed.carrier === 'frame' ? <TrustForm address={embed.address} /> : null}
        </AsReaders>
      </section>
    </>
  );
}

function askedOf(look: {
  readonly isPending: boolean;
  readonly data?: { readonly notes: readonly string[]; readonly embed: Embed } | undefined;
}) {
  if (look.isPending) return 'not-yet';
  return look.data && look.data.embed.facts.visibility !== 'unknown' ? 'answered' : 'silent';
}
