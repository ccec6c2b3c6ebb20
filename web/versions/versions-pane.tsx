import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useRef } from 'react';
import { type KeptState, NameVersionSchema, type PageVersion, PageVersionSchema } from '#api/pages.ts';
import { withAllBroughtBack, withBroughtBack } from '#core/page/bring-back.ts';
import type { Difference } from '#core/page/compare.ts';
import type { PageDoc } from '#core/page/model.ts';
import { ApiProblem, requestJson } from '../api/client.ts';
import { versionsQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { SidePane } from '../frame/panes.tsx';
import type { PageSession } from '../page/use-page-session.ts';
import { Button } from '../ui/button.tsx';
import { Card } from '../ui/card.tsx';
import { sayTime } from '../ui/dates.ts';
import { toast } from '../ui/toast.ts';
import { DifferenceRow } from './difference-row.tsx';

interface VersionsPaneProps {
  readonly session: PageSession;
  readonly now: PageDoc;
  readonly kept: KeptState | null;
  readonly fault: ReactNode;
  readonly differences: readonly Difference[];
  readonly looked: string | null;
  readonly onLook: (blockId: string | null) => void;
  readonly onVersion: (versionId: string | null) => void;
  readonly isEditable: boolean;
}

/** The kept states of a page, and what differs from the one that is looked at. */
export function VersionsPane({
  session,
  now,
  kept,
  fault,
  differences,
  looked,
  onLook,
  onVersion,
  isEditable,
}: VersionsPaneProps) {
  const list = useQuery(versionsQuery(session.pageId));
  const head = useRef<HTMLHeadingElement>(null);
  // What was pressed is gone with what it brought back.
  const goOn = () => head.current?.focus();
  return (
    <SidePane data-pane="versions" aria-label="Versions">
      <Card className="px-3.75 py-3">
        <h2 className="font-serif text-3xl leading-tight font-normal italic">Versions</h2>
        <p className="mt-0.75 text-soft">
          A version is kept whenever the page goes out, and whenever you name one.
        </p>
        {isEditable ? <NameForm session={session} /> : null}
        {list.data ? (
          <VersionList
            versions={list.data.versions}
            count={list.data.count}
            chosen={kept?.version.id ?? null}
            onVersion={onVersion}
          />
        ) : (
          <Unanswered of={[list]} />
        )}
        {fault ? <p role="alert">{fault}</p> : null}
      </Card>
      {kept ? (
        <Card className="mt-3.5 px-3.75 pt-3 pb-2" aria-label="What differs">
          <h2 ref={head} tabIndex={-1} className="text-xl wrap-anywhere">
            Since {saySince(kept.version)}
          </h2>
          <p className="mt-0.5 text-soft" role="status">
            {differences.length === 0
              ? 'Nothing differs: the page is as it was.'
              : differences.length === 1
                ? 'One thing differs.'
                : `${differences.length} things differ.`}
          </p>
          {isEditable && differences.length > 0 ? (
            <p className="mt-1.5">
              <Button
                onClick={() => {
                  session.show(
                    withAllBroughtBack(now, kept.doc),
                    `bringing back ${saySince(kept.version).replace(/^it/, 'what')}`,
                  );
                  goOn();
                }}
              >
                Bring back the whole page
              </Button>
            </p>
          ) : null}
          <ol className="mt-2">
            {differences.slice(0, MOST_LISTED).map((one) => (
              <DifferenceRow
                key={`${one.kind} ${one.id}`}
                difference={one}
                isLooked={one.id === looked}
                onLook={() => onLook(one.kind === 'fact' || one.id === looked ? null : one.id)}
                deed={
                  isEditable
                    ? {
                        words: 'Bring back',
                        act: () => {
                          bringBack(session, kept.doc, one);
                          goOn();
                        },
                      }
                    : null
                }
              />
            ))}
          </ol>
          {differences.length > MOST_LISTED ? (
            <p className="border-t border-hairline py-1.5 text-soft">
              And {differences.length - MOST_LISTED} more; they are marked on the sheets.
            </p>
          ) : null}
        </Card>
      ) : null}
    </SidePane>
  );
}

/** More differences are no longer read one by one. */
const MOST_LISTED = 100;

function bringBack(session: PageSession, then: PageDoc, difference: Difference): void {
  session.flush();
  const back = withBroughtBack(session.view.state.doc, then, difference);
  if (back) session.show(back, 'bringing back a part');
  else
    toast.error('It cannot stand where it stood: what it stood in is gone. Bring that back first.', {
      duration: 8000,
    });
}

interface VersionListProps {
  readonly versions: readonly PageVersion[];
  readonly count: number;
  readonly chosen: string | null;
  readonly onVersion: (versionId: string | null) => void;
}

function VersionList({ versions, count, chosen, onVersion }: VersionListProps) {
  if (versions.length === 0) return <p className="mt-2 border-t border-hairline pt-2">None is kept yet.</p>;
  return (
    <>
      <ol className="mt-2 border-b border-hairline">
        {versions.map((version) => (
          <li key={version.id} className="border-t border-hairline">
            <button
              type="button"
              className="block w-full cursor-pointer border-l-3 border-transparent py-1.5 pl-2 text-left hover:bg-action-soft aria-pressed:border-action aria-pressed:bg-action-soft"
              aria-pressed={version.id === chosen}
              onClick={() => onVersion(version.id === chosen ? null : version.id)}
            >
              <b className="block font-semibold wrap-anywhere">{sayVersion(version)}</b>
              <span className="block text-sm text-soft">{sayKept(version)}</span>
            </button>
          </li>
        ))}
      </ol>
      {count > versions.length ? (
        <p className="mt-1 text-soft">And {count - versions.length} older ones.</p>
      ) : null}
    </>
  );
}

/** What a version is called: by its name, else by how it went out. */
export const sayVersion = ({ name, sent }: PageVersion): string =>
  name !== '' ? name : `Went out ${sent ?? ''}`.trim();

const saySince = ({ name, sent }: PageVersion): string =>
  name !== '' ? `“${name}”` : `it went out ${sent ?? ''}`.trim();

function sayKept({ name, sent, sentAt, keptAt, keptBy }: PageVersion): string {
  const kept = `${sayTime(keptAt)}, ${keptBy}`;
  return name !== '' && sent && sentAt ? `${kept} · went out ${sent} at ${sayTime(sentAt)}` : kept;
}

function NameForm({ session }: { readonly session: PageSession }) {
  const client = useQueryClient();
  const form = useSaveForm({
    schema: NameVersionSchema,
    defaults: { name: '' },
    save: async ({ name }) => {
      session.flush();
      await session.saver.save();
      const { state } = session.saver.store;
      // What is not on the server cannot be named there.
      if (state.kind !== 'saved')
        throw new ApiProblem(0, 'The page is not saved yet. Nothing was named.', null);
      await requestJson('post /pages/{id}/versions', PageVersionSchema, {
        path: { id: session.pageId },
        body: { name },
        version: session.saver.version,
      });
      await client.invalidateQueries({ queryKey: versionsQuery(session.pageId).queryKey });
      form.form.reset({ name: '' });
    },
    refusedAt: 'name',
  });
  return (
    <Form of={form} className="mt-2.5 flex flex-wrap items-end gap-x-2 gap-y-1">
      <Line
        of={form}
        className="min-w-0 flex-1"
        name="name"
        label="Name what stands now"
        placeholder="Before the second walk"
        maxLength={200}
      />
      <Button type="submit">Keep</Button>
    </Form>
  );
}
