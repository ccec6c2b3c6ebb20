import type { PageSummary } from '#api/pages.ts';
import { LinkButton } from '../ui/button.tsx';
import { sayDue } from '../ui/dates.ts';
import { PageStations } from './page-stations.tsx';
import { sayFor, sayPageTitle } from './say-title.ts';

/** A page under way in one line: what it is, how far it is at each station, and the way to it. */
export function PageLine({ page }: { readonly page: PageSummary }) {
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto_auto] items-center gap-3.5 border-b border-line py-2.25 max-middle:grid-cols-[minmax(0,1fr)_auto]">
      <div>
        <h3 className="text-md">{sayPageTitle(page.title)}</h3>
        <p className="text-xs text-soft">{[sayFor(page), sayDue(page.due)].filter(Boolean).join(', ')}</p>
      </div>
      {page.fault ? (
        <p className="text-due">{page.fault}</p>
      ) : (
        <PageStations className="max-middle:col-span-full max-middle:row-start-2" page={page} />
      )}
      {page.fault ? null : (
        <LinkButton
          className="min-w-22"
          to={`/pages/${page.id}`}
          aria-label={`Open ${sayPageTitle(page.title)}`}
        >
          Open
        </LinkButton>
      )}
    </li>
  );
}
