import type { ReactNode } from 'react';
import { SidePane } from '../frame/panes.tsx';
import { Split } from '../frame/split.tsx';

interface RunPanesProps {
  /** The table of its pieces. */
  readonly rows: ReactNode;
  /** What stands beside it, and what that is. */
  readonly about: string;
  readonly side: ReactNode;
}

/** A run's pieces, and beside them what is done or what became of it. */
export function RunPanes({ rows, about, side }: RunPanesProps) {
  return (
    <Split
      id="run"
      firstPlace="rows"
      panes={[
        { id: 'rows', name: 'the pictures', content: <div className="min-h-0 min-w-0">{rows}</div> },
        {
          id: 'side',
          name: about.toLowerCase(),
          width: { usual: 318, least: 240 },
          content: (
            <SidePane className="grid content-start gap-3.5" aria-label={about}>
              {side}
            </SidePane>
          ),
        },
      ]}
    />
  );
}
