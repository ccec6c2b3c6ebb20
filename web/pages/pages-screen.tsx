import { useQuery } from '@tanstack/react-query';
import { may } from '#api/people.ts';
import { meQuery, pagesQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { LinkButton } from '../ui/button.tsx';
import { sayDue, sayTime } from '../ui/dates.ts';
import { Empty } from '../ui/empty.tsx';
import { PageStations } from './page-stations.tsx';
import { sayPageTitle } from './say-title.ts';

export function PagesScreen() {
  const pages = useQuery(pagesQuery);
  const me = useQuery(meQuery);
  if (!pages.data) return <Unanswered isScreen of={pages} />;
  return (
    <div className="h-full overflow-auto px-8.5 pt-5.5 pb-10 max-narrow:px-3.5 max-narrow:py-4">
      <div className="mx-auto max-w-275">
        <header className="flex items-center justify-between gap-4 border-b-2 border-ink pb-2.5">
          <h1 className="text-4xl">Pages</h1>
          {me.data && may(me.data.role, 'edit-pages') ? (
            <LinkButton kind="action" to="/pages/new">
              Begin a page
            </LinkButton>
          ) : null}
        </header>
        {pages.data.length === 0 ? (
          <Empty>
            <h2 className="mb-1 text-xl text-ink">No page yet</h2>
            <p>A page begins with a title and with what it needs.</p>
          </Empty>
        ) : null}
        <ul>
          {pages.data.map((page) => (
            <li
              key={page.id}
              className="grid grid-cols-[112px_minmax(0,1fr)_auto_auto] items-center gap-4 border-b border-line py-2.75 max-narrow:grid-cols-[72px_minmax(0,1fr)_auto]"
            >
              {page.thumb ? (
                <img
                  className="h-16.5 w-28 object-cover max-narrow:h-12 max-narrow:w-18"
                  src={page.thumb}
                  alt=""
                  loading="lazy"
                />
              ) : (
                <span className="h-16.5 w-28 border border-dashed border-control object-cover max-narrow:h-12 max-narrow:w-18" />
              )}
              <div>
                <h2 className="font-serif text-2xl leading-tight font-semibold">
                  {sayPageTitle(page.title)}
                </h2>
                <p className="text-soft">
                  {page.targetName}, {sayDue(page.due)} · {page.updatedBy}, {sayTime(page.updatedAt)}
                </p>
                {page.stops > 0 ? (
                  <p className="text-due">
                    {page.stops === 1 ? 'One thing stops sending.' : `${page.stops} things stop sending.`}
                  </p>
                ) : (
                  <p>May go out.</p>
                )}
              </div>
              <PageStations className="max-narrow:col-span-full max-narrow:row-start-2" page={page} />
              <LinkButton to={`/pages/${page.id}`} aria-label={`Open ${sayPageTitle(page.title)}`}>
                Open
              </LinkButton>
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}
