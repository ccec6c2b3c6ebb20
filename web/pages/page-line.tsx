import { Link } from 'react-router';
import type { PageSummary } from '#api/pages.ts';
import { sayDue } from '../ui/dates.ts';
import { PageStations } from './page-stations.tsx';
import { sayPageTitle } from './say-title.ts';

/** A page under way in one line: what it is, how far it is at each station, and the way to it. */
export function PageLine({ page }: { readonly page: PageSummary }) {
  return (
    <li className="page-line">
      <div>
        <h3>{sayPageTitle(page.title)}</h3>
        <p className="soft">{[page.targetName, sayDue(page.due)].filter(Boolean).join(', ')}</p>
      </div>
      {page.fault ? <p className="due page-fault">{page.fault}</p> : <PageStations page={page} />}
      {page.fault ? null : (
        <Link className="button" to={`/pages/${page.id}`} aria-label={`Open ${sayPageTitle(page.title)}`}>
          Open
        </Link>
      )}
    </li>
  );
}
