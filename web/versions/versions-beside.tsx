import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useEffect, useMemo, useState } from 'react';
import type { Page } from '#api/pages.ts';
import { comparePages } from '#core/page/compare.ts';
import { keptStateQuery } from '../api/queries.ts';
import { LABEL_PX, Split } from '../frame/split.tsx';
import type { PageSession, PageView } from '../page/use-page-session.ts';
import { putOwnViews } from '../pieces/own-views.ts';
import { putPieces } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { sayTime } from '../ui/dates.ts';
import { NamedSheet } from './named-sheet.tsx';
import { ThenSheet } from './then-sheet.tsx';
import { useCompared } from './use-compared.ts';
import { sayVersion, VersionsPane } from './versions-pane.tsx';

interface VersionsBesideProps {
  readonly sheet: ReactNode;
  readonly page: Page;
  readonly session: PageSession;
  readonly view: PageView;
  readonly versionId: string | null;
  readonly onVersion: (versionId: string | null) => void;
  readonly isEditable: boolean;
}

const NOTHING: ReadonlyMap<string, string> = new Map();

/** The page, a kept state of it beside it, and in words what differs. */
export default function VersionsBeside({
  sheet,
  page,
  session,
  view,
  versionId,
  onVersion,
  isEditable,
}: VersionsBesideProps) {
  const {
    data: state,
    error,
    refetch,
  } = useQuery({
    ...keptStateQuery(page.id, versionId ?? ''),
    enabled: versionId !== null,
  });
  const kept = versionId === null ? undefined : state;
  const [looked, setLooked] = useState<string | null>(null);
  const differences = useMemo(() => (kept ? comparePages(kept.doc, view.doc) : []), [kept, view.doc]);
  const differing = useMemo(
    () => (kept ? new Map(differences.map(({ id, kind }) => [id, kind])) : NOTHING),
    [kept, differences],
  );
  useEffect(() => {
    if (!kept) return;
    putPieces(kept.pieces);
    putOwnViews(kept.ownViews);
  }, [kept]);
  useCompared(session.editor, differing, looked);
  return (
    <Split
      id={kept ? 'compared' : 'versions'}
      className="row-start-3"
      firstPlace="versions"
      panes={[
        {
          id: 'sheet',
          name: 'the sheet',
          says: 'as it is now',
          content: kept ? <NamedSheet as="Now">{sheet}</NamedSheet> : sheet,
        },
        ...(kept
          ? [
              {
                id: 'then',
                name: 'the version',
                says: 'as it was',
                content: (
                  <NamedSheet as={`${sayVersion(kept.version)}, ${sayTime(kept.version.keptAt)}`}>
                    <ThenSheet
                      name="The version"
                      doc={kept.doc}
                      target={page.target}
                      differing={differing}
                      looked={looked}
                    />
                  </NamedSheet>
                ),
              },
            ]
          : []),
        {
          id: 'versions',
          name: 'the versions',
          says: kept ? 'what differs' : '',
          width: { usual: LABEL_PX, least: 280 },
          content: (
            <VersionsPane
              session={session}
              now={view.doc}
              kept={kept ?? null}
              fault={
                versionId !== null && error ? (
                  <>
                    {error.message}{' '}
                    <Button kind="link" onClick={() => void refetch()}>
                      Try again
                    </Button>
                  </>
                ) : null
              }
              differences={differences}
              looked={looked}
              onLook={setLooked}
              onVersion={(id) => {
                setLooked(null);
                onVersion(id);
              }}
              isEditable={isEditable}
            />
          ),
        },
      ]}
    />
  );
}
