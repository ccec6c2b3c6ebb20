import { lazy, type ReactNode, Suspense } from 'react';
import type { HouseRules } from '#core/page/target.ts';
import { Split } from '../frame/split.tsx';
import { useIsNarrow } from '../frame/use-is-narrow.ts';
import type { PageSession, PageView } from '../page/use-page-session.ts';

/** CodeMirror and the parser come when they are asked for. */
const SourcePane = lazy(() => import('./source-pane.tsx'));
const SOURCE_PX = 660;

interface SourceBesideProps {
  readonly sheet: ReactNode;
  readonly session: PageSession;
  readonly view: PageView;
  readonly rules: HouseRules;
  readonly isEditable: boolean;
}

/** The sheet and its source beside it; on a narrow screen the source alone. */
export function SourceBeside({ sheet, session, view, rules, isEditable }: SourceBesideProps) {
  const isNarrow = useIsNarrow();
  return (
    <Split
      id="source"
      className="row-start-3"
      panes={[
        ...(isNarrow ? [] : [{ id: 'sheet', name: 'the sheet', content: sheet }]),
        {
          id: 'source',
          name: 'the source',
          ...(isNarrow ? {} : { width: { usual: SOURCE_PX, least: 360 } }),
          content: (
            <Suspense>
              <SourcePane
                session={session}
                doc={view.doc}
                block={view.selected?.id ?? view.block}
                rules={rules}
                isEditable={isEditable}
              />
            </Suspense>
          ),
        },
      ]}
    />
  );
}
