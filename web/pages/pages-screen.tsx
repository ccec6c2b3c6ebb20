import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { PageList, PageSummary } from '#api/pages.ts';
import { may } from '#api/people.ts';
import { meQuery, pagesQuery, pagesTitledQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { LinkButton } from '../ui/button.tsx';
import { sayDue, sayTime } from '../ui/dates.ts';
import { Empty } from '../ui/empty.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { PageStations } from './page-stations.tsx';
import { sayFor, sayPageTitle } from './say-title.ts';

/** So many pages are looked through by eye. */
const EASILY_SEEN = 12;

/** How many are shown, of how many; and how to come to those that are not. */
function sayHowMany({ pages, count }: PageList, all: number): string {
  if (count === 0) return 'No title holds these words.';
  if (pages.length < count)
    return `The ${pages.length} changed last, of ${count}. Those before are found by their titles.`;
  return count === all ? `${count} pages` : `${count} of ${all} pages`;
}

/** Whether a page may go out; one that cannot be read says why, and nothing of sending. */
function MayGoOut({ page: { fault, stops } }: { readonly page: PageSummary }) {
  if (fault !== null) return <p className="text-due">{fault}</p>;
  if (stops === 0) return <p>May go out.</p>;
  return (
    <p className="text-due">{stops === 1 ? 'One thing stops sending.' : `${stops} things stop sending.`}</p>
  );
}

export function PagesScreen() {
  const [words, setWords] = useState('');
  const all = useQuery(pagesQuery);
  const titled = useQuery({ ...pagesTitledQuery(words), enabled: words.trim() !== '' });
  const pages = words.trim() === '' ? all : titled;
  const me = useQuery(meQuery);
  if (!all.data) return <Unanswered isScreen of={all} />;
  const { count } = all.data;
  return (
    <div className="h-full overflow-auto px-8.5 pt-5.5 pb-10 max-narrow:px-3.5 max-narrow:py-4">
      <div className="mx-auto max-w-275">
        <header className="flex items-center justify-between gap-4 border-b-2 border-ink pb-2.5">
          <h1 className="text-4xl">Pages</h1>
          {me.data && may(me.data.role, 'edit-pages') ? (
            <div className="flex flex-wrap justify-end gap-2">
              {may(me.data.role, 'set-rules') ? <LinkButton to="/report">Report</LinkButton> : null}
              <LinkButton to="/pages/bring-in">Bring in</LinkButton>
              <LinkButton kind="action" to="/pages/new">
                Begin a page
              </LinkButton>
            </div>
          ) : null}
        </header>
        {count > EASILY_SEEN ? (
          <div className="flex flex-wrap items-end justify-between gap-x-4 gap-y-1 border-b border-line py-2.75">
            <Field name="Words of the title" className="w-90 max-w-full">
              {(control) => (
                <Input
                  {...control}
                  type="search"
                  maxLength={300}
                  value={words}
                  onChange={(event) => setWords(event.target.value)}
                />
              )}
            </Field>
            <p className="text-soft" role="status">
              {pages.data ? sayHowMany(pages.data, count) : null}
            </p>
          </div>
        ) : null}
        {count === 0 ? (
          <Empty>
            <h2 className="mb-1 text-xl text-ink">No page yet</h2>
            <p>A page begins with a title and with what it needs.</p>
          </Empty>
        ) : null}
        <ul>
          {pages.data?.pages.map((page) => (
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
                  {sayFor(page)}, {sayDue(page.due)} · {page.updatedBy}, {sayTime(page.updatedAt)}
                </p>
                <MayGoOut page={page} />
              </div>
              <PageStations className="max-narrow:col-span-full max-narrow:row-start-2" page={page} />
              {page.fault === null ? (
                <LinkButton to={`/pages/${page.id}`} aria-label={`Open ${sayPageTitle(page.title)}`}>
                  Open
                </LinkButton>
              ) : null}
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}
