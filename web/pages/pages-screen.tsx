import './pages.css';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { may } from '#api/people.ts';
import { sayFailure } from '../api/client.ts';
import { meQuery, pagesQuery } from '../api/queries.ts';
import { sayDue, sayTime } from '../ui/dates.ts';
import { PageStations } from './page-stations.tsx';
import { sayPageTitle } from './say-title.ts';

export function PagesScreen() {
  const pages = useQuery(pagesQuery);
  const me = useQuery(meQuery);
  if (pages.error) return <p className="empty">{sayFailure(pages.error)}</p>;
  if (!pages.data) return null;
  return (
    <div className="pages">
      <div className="pages-inner">
        <header>
          <h1>Pages</h1>
          {me.data && may(me.data.role, 'edit-pages') ? (
            <Link className="button" data-kind="action" to="/pages/new">
              Begin a page
            </Link>
          ) : null}
        </header>
        {pages.data.length === 0 ? (
          <div className="empty">
            <h2>No page yet</h2>
            <p>A page begins with a title and with what it needs.</p>
          </div>
        ) : null}
        <ul>
          {pages.data.map((page) => (
            <li key={page.id} className="page-row">
              {page.thumb ? (
                <img src={page.thumb} alt="" loading="lazy" />
              ) : (
                <span className="page-row-blank" />
              )}
              <div>
                <h2>{sayPageTitle(page.title)}</h2>
                <p className="soft">
                  {page.targetName}, {sayDue(page.due)} · {page.updatedBy}, {sayTime(page.updatedAt)}
                </p>
                {page.stops > 0 ? (
                  <p className="due">
                    {page.stops === 1 ? 'One thing stops sending.' : `${page.stops} things stop sending.`}
                  </p>
                ) : (
                  <p>May go out.</p>
                )}
              </div>
              <PageStations page={page} />
              <Link
                className="button"
                to={`/pages/${page.id}`}
                aria-label={`Open ${sayPageTitle(page.title)}`}
              >
                Open
              </Link>
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}
