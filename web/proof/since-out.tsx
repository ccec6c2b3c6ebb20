import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useMemo } from 'react';
import { comparePages } from '#core/page/compare.ts';
import type { PageDoc } from '#core/page/model.ts';
import { keptStateQuery, versionsQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { LinkButton } from '../ui/button.tsx';
import { DifferenceRow } from '../versions/difference-row.tsx';

interface SinceOutProps {
  readonly pageId: string;
  readonly doc: PageDoc;
  /** The block that is looked at. */
  readonly looked: string | null;
  readonly onLook: (block: string | null) => void;
}

/** What has changed in a page since it was sent last, in words. */
export function SinceOut({ pageId, doc, looked, onLook }: SinceOutProps) {
  const versions = useQuery(versionsQuery(pageId));
  const sent = versions.data?.versions.find(({ sentAt }) => sentAt !== null);
  const state = useQuery({ ...keptStateQuery(pageId, sent?.id ?? ''), enabled: sent !== undefined });
  const differences = useMemo(
    () => (state.data ? comparePages(state.data.doc, doc) : null),
    [state.data, doc],
  );
  if (!versions.data || (sent && !state.data)) return <Unanswered of={[versions, state]} />;
  if (differences === null) return <Pane words="How it stood when it was sent is kept no more.">{null}</Pane>;
  return (
    <Pane words={sayChanged(differences.length)}>
      {differences.length === 0 ? null : (
        <ul className="mt-3">
          {differences.map((difference) => (
            <DifferenceRow
              key={`${difference.kind} ${difference.id}`}
              difference={difference}
              isLooked={difference.id === looked}
              onLook={() => onLook(difference.id === looked ? null : difference.id)}
              deed={null}
            />
          ))}
        </ul>
      )}
      <LinkButton className="mt-4" to={`/pages/${pageId}/sent`}>
        Where it stands
      </LinkButton>
    </Pane>
  );
}

function Pane({ words, children }: { readonly words: string; readonly children: ReactNode }) {
  return (
    <aside
      className="h-full overflow-y-auto bg-panel px-4 pt-3 pb-5"
      aria-label="What changed since it was sent"
    >
      <h2 className="text-2xl">{words}</h2>
      {children}
    </aside>
  );
}

function sayChanged(count: number): string {
  if (count === 0) return 'Nothing changed since it was sent';
  return count === 1 ? 'One thing changed since it was sent' : `${count} things changed since it was sent`;
}
