import { useQuery } from '@tanstack/react-query';
import { type ChangeEvent, useState } from 'react';
import type { HostsAnswer } from '#api/embeds.ts';
import { HostsSchema } from '#api/embeds.ts';
import { type HostEntry, readHostEntries } from '#core/embed/host.ts';
import { sayKind } from '#core/embed/model.ts';
import { requestJson, requestVoid, sayFailure } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { hostsQuery } from '../embeds/embed-queries.ts';
import { WhereUsedButton } from '../rights/where-used.tsx';
import { Table } from '../table/table.tsx';
import { Button, buttonLook } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { sayDate } from '../ui/dates.ts';
import { Fault } from '../ui/fault.tsx';
import { Line, Lines } from '../ui/lines.tsx';
import { toast } from '../ui/toast.ts';
import { ledger } from '../undo/ledger.ts';
import { EntryForm } from './entry-form.tsx';
import { EXAMPLE_ENTRY } from './example-entry.ts';
import { RulesCard } from './rules-card.tsx';

/** The hosts that are trusted everywhere: open entries, and what the site owner decided. They hold for all targets. */
export function HostsCard({ isEditable }: { readonly isEditable: boolean }) {
  const hosts = useQuery(hostsQuery);
  const [opened, setOpened] = useState<string | null>(null);
  const [isWriting, setWriting] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  if (!hosts.data) return <Unanswered of={hosts} />;
  const { entries, decisions } = hosts.data;
  const save = async (next: readonly HostEntry[], name: string) => {
    setFault(null);
    try {
      await sendEntries(next);
      ledger.add({ name, scope: 'rules', undo: () => sendEntries(entries), redo: () => sendEntries(next) });
      setOpened(null);
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  /** Whether the text describes hosts; what is wrong with it is said otherwise. */
  const take = (text: string): boolean => {
    const read = readHostEntries(text);
    if (read.kind === 'fault') setFault(read.sentence);
    else void save(withEntries(entries, read.entries), 'taking in hosts');
    return read.kind === 'entries';
  };
  const importFile = async (event: ChangeEvent<HTMLInputElement>) => {
    const [file] = event.target.files ?? [];
    event.target.value = '';
    if (file) take(await file.text());
  };
  return (
    <RulesCard
      id="rules-hosts"
      title="Trusted hosts"
      about="Whose frames may stand on pages, on every target. An entry is open JSON: it can be edited, taken out and taken in."
      className="mt-5"
    >
      <Fault says={fault} />
      <Table
        className="mt-2.5 mb-3.5"
        about="Trusted hosts"
        isSmall
        rows={entries}
        keyOf={({ id }) => id}
        columns={[
          { id: 'name', heading: 'Host', sortBy: ({ name }) => name, cell: ({ name }) => <b>{name}</b> },
          {
            id: 'kind',
            heading: 'Shows',
            folds: true,
            sortBy: ({ kind }) => sayKind(kind),
            className: 'text-soft',
            cell: ({ kind }) => sayKind(kind),
          },
          {
            id: 'address',
            heading: 'Its address',
            folds: true,
            sortBy: ({ origin }) => new URL(origin).host,
            className: 'wrap-anywhere font-mono text-mono text-soft',
            cell: ({ origin }) => new URL(origin).host,
          },
          {
            id: 'open',
            heading: 'Entry',
            isHeadingHidden: true,
            className: 'w-38 text-right whitespace-nowrap',
            cell: ({ id, name }) => (
              <span className="inline-flex gap-3">
                <WhereUsedButton of="host" value={id} name={name} />
                <Button
                  kind="link"
                  aria-expanded={opened === id}
                  aria-label={`${opened === id ? 'Close' : 'Open'} the entry of ${name}`}
                  onClick={() => setOpened(opened === id ? null : id)}
                >
                  {opened === id ? 'Close' : 'Open'}
                </Button>
              </span>
            ),
          },
        ]}
        below={(entry) =>
          opened === entry.id ? (
            <EntryForm
              entry={entry}
              isEditable={isEditable}
              away={`Trust ${entry.name} no more`}
              onSave={take}
              onAway={() =>
                void save(
                  entries.filter(({ id }) => id !== entry.id),
                  `removing ${entry.name}`,
                )
              }
            />
          ) : null
        }
      />
      {entries.length === 0 ? (
        <p>
          No host is trusted yet, so that everything embedded comes as a link. Import entries, or write one.
        </p>
      ) : null}
      {isWriting ? (
        <EntryForm
          entry={EXAMPLE_ENTRY}
          isEditable={isEditable}
          away="Leave it"
          onSave={(text) => take(text) && setWriting(false)}
          onAway={() => setWriting(false)}
        />
      ) : null}
      <Decisions decisions={decisions} isEditable={isEditable} />
      <div className="mt-2 flex flex-wrap items-center gap-2">
        {isEditable ? (
          <Button aria-expanded={isWriting} onClick={() => setWriting(!isWriting)}>
            Write an entry...
          </Button>
        ) : null}
        {isEditable ? (
          <label
            className={cx(
              buttonLook(),
              'focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-ink',
            )}
          >
            Import entries...
            <input
              className="sr-only"
              type="file"
              accept=".json,application/json"
              onChange={(event) => void importFile(event)}
            />
          </label>
        ) : null}
        <a
          className={buttonLook()}
          download="hosts.json"
          href={`data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(entries, null, 2))}`}
        >
          Export as JSON
        </a>
      </div>
    </RulesCard>
  );
}

interface DecisionsProps {
  readonly decisions: HostsAnswer['decisions'];
  readonly isEditable: boolean;
}

function Decisions({ decisions, isEditable }: DecisionsProps) {
  if (decisions.length === 0) return null;
  const takeBack = async ({ scope, value }: HostsAnswer['decisions'][number]) => {
    try {
      await requestVoid('delete /embeds/decisions', { body: { scope, value } });
      await queryClient.invalidateQueries({ queryKey: hostsQuery.queryKey });
    } catch (error) {
      toast.error(sayFailure(error));
    }
  };
  return (
    <>
      <h3 className="text-lg">Decided</h3>
      <Lines>
        {decisions.map((decision) => (
          <Line
            key={`${decision.scope} ${decision.value}`}
            says={
              <>
                <b className="font-mono text-mono">{decision.value}</b>
                <span className="text-soft">
                  {' '}
                  {decision.by}, {sayDate(decision.at)}: {decision.reason}
                </span>
              </>
            }
          >
            {isEditable ? (
              <Button
                kind="link"
                aria-label={`Take back the trust in ${decision.value}`}
                onClick={() => void takeBack(decision)}
              >
                Take back
              </Button>
            ) : null}
          </Line>
        ))}
      </Lines>
    </>
  );
}

/** Entries with others put in: one of the same id takes the place of the former. */
function withEntries(entries: readonly HostEntry[], others: readonly HostEntry[]): readonly HostEntry[] {
  const changed = entries.map((entry) => others.find(({ id }) => id === entry.id) ?? entry);
  return [...changed, ...others.filter(({ id }) => !entries.some((entry) => entry.id === id))];
}

async function sendEntries(entries: readonly HostEntry[]): Promise<void> {
  const known = queryClient.getQueryData(hostsQuery.queryKey);
  const hosts = await requestJson('put /embeds/hosts', HostsSchema, {
    body: { entries },
    version: known?.version ?? 0,
  });
  queryClient.setQueryData(hostsQuery.queryKey, hosts);
}
