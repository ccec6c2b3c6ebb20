import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Asset } from '#api/assets.ts';
import type { Target } from '#api/targets.ts';
import type { EmbedForm, FormCase } from '#core/embed/forms.ts';
import { entryById, type Hosts, trustOf } from '#core/embed/host.ts';
import type { Embed } from '#core/embed/model.ts';
import type { ReadEmbed } from '#core/embed/reading.ts';
import { sayEmbed, sayWhatItIs } from '#core/embed/say.ts';
import { settingsOf } from '#core/embed/settings.ts';
import { messagesFor } from '#core/messages/messages.ts';
import { strictest } from '#core/page/target.ts';
import { sayFailure } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { changePiece } from '../pieces/pieces.ts';
import { cx } from '../ui/cx.ts';
import { toast } from '../ui/toast.ts';
import { ledger } from '../undo/ledger.ts';
import { AsReaders } from './as-readers.tsx';
import { EmbedDeeds } from './embed-deeds.tsx';
import { lookQuery } from './embed-queries.ts';
import { EMBED_PANE_LOOK, NEXT_PANE_LOOK } from './panes.ts';
import { TrustForm } from './trust-form.tsx';
import { EmbedFields, Statements } from './what-it-is.tsx';

/** The steps of the ledger that hold while an embed is looked at. */
export const EMBED_SCOPE = 'embed';

interface EmbeddingProps {
  readonly read: ReadEmbed;
  /** The piece that it is on the shelf, or null. */
  readonly piece: Asset | null;
  readonly isJustKept: boolean;
  readonly onKept: (asset: Asset) => void;
  readonly hosts: Hosts;
  readonly targets: readonly Target[];
}

/** What it is and how readers get it: what was read, what its host says of it, and what a person made of both. */
export function Embedding({ read, piece, isJustKept, hosts, targets, onKept }: EmbeddingProps) {
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
    ledger.add({ name, scope: EMBED_SCOPE, undo: () => setChanges(before), redo: () => setChanges(after) });
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
      <section className={cx(EMBED_PANE_LOOK, NEXT_PANE_LOOK)} aria-labelledby="embeds-what">
        <header className="mb-3">
          <h2 className="text-xl" id="embeds-what">
            What it is
          </h2>
          <p className="mt-0.5 text-soft">{sayWhatItIs(embed, entry, trust)}</p>
        </header>
        <Statements statements={statements} />
        <EmbedFields
          embed={embed}
          entry={entry}
          settings={settingsOf(embed, hosts, read.embed.parameters)}
          unknown={read.unknown}
          notGiven={read.notGiven}
          messages={messagesFor(target.rules.language)}
          change={change}
        />
      </section>
      <section className={cx(EMBED_PANE_LOOK, NEXT_PANE_LOOK)} aria-labelledby="embeds-readers">
        <header className="mb-3">
          <h2 className="text-xl" id="embeds-readers">
            As readers get it
          </h2>
        </header>
        <AsReaders
          of={here}
          targets={targets}
          target={target}
          wish={wishes[targetId] ?? null}
          onTarget={setTargetId}
          isAsked={!look.isPending}
          poster={look.data?.poster ?? null}
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
