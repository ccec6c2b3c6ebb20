import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useEffect, useMemo, useState } from 'react';
import type { Page } from '#api/pages.ts';
import { comparePages } from '#core/page/compare.ts';
import { keptStateQuery } from '../api/queries.ts';
import { LABEL_PX, Split } from '../frame/split.tsx';
import type { PageSession, PageView } from '../page/use-page-session.ts';
import { putOwnViews } from '../pieces/own-views.ts';
import { putPieces } from '../pieces/pieces.ts';
import { showCompared, showHere } from '../sheet/block-marks.ts';
import { Button } from '../ui/button.tsx';
import { sayTime } from '../ui/dates.ts';
import { ThenSheet } from './then-sheet.tsx';
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
  const { editor } = session;
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
  useEffect(() => {
    showCompared(editor, differing);
  }, [editor, differing]);
  useEffect(() => {
    showHere(editor, looked);
  }, [editor, looked]);
  useEffect(
    () => () => {
      if (editor.isDestroyed) return;
      showCompared(editor, NOTHING);
      showHere(editor, null);
    },
    [editor],
  );
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
          content: kept ? <Named as="Now">{sheet}</Named> : sheet,
        },
        ...(kept
          ? [
              {
                id: 'then',
                name: 'the version',
                says: 'as it was',
                content: (
                  <Named as={`${sayVersion(kept.version)}, ${sayTime(kept.version.keptAt)}`}>
                    <ThenSheet doc={kept.doc} target={page.target} differing={differing} looked={looked} />
                  </Named>
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

/** A sheet with what it is over it, where two stand side by side. */
function Named({ as, children }: { readonly as: string; readonly children: ReactNode }) {
  return (
    <div className="grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]">
      <p className="truncate px-6 pt-2 font-semibold max-narrow:px-3.5">{as}</p>
      {children}
    </div>
  );
}
