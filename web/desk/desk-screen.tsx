import './desk.css';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Errand } from '#api/desk.ts';
import { may } from '#api/people.ts';
import { sayFailure } from '../api/client.ts';
import { deskQuery, meQuery } from '../api/queries.ts';
import { PageLine } from '../pages/page-line.tsx';
import { Button } from '../ui/button.tsx';
import { isPressing, sayDue } from '../ui/dates.ts';

const SMALL_NUMBERS = [
  'Nothing',
  'One thing',
  'Two things',
  'Three things',
  'Four things',
  'Five things',
  'Six things',
  'Seven things',
  'Eight things',
  'Nine things',
];

/** How many errands stand open at first, so that the pages under way stay in sight. */
const FIRST = 4;

const sentence = (words: string) => `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;

export function DeskScreen() {
  const { data: me } = useQuery(meQuery);
  const desk = useQuery(deskQuery);
  const [showsAll, setShowsAll] = useState(false);
  if (desk.error) return <p className="empty">{sayFailure(desk.error)}</p>;
  if (!desk.data || !me) return null;
  const { errands, pages, recent } = desk.data;
  const isNew = pages.length === 0 && recent.length === 0;
  const stopped = pages.filter((page) => page.stops > 0).length;
  return (
    <div className="desk">
      <div>
        <h1>{headline(errands.length, me.name.split(' ')[0] ?? '')}</h1>
        <p className="desk-lead">{leadSentence(stopped, pages.length)}</p>
        {errands.length > 0 ? (
          <section aria-labelledby="waiting">
            <h2 id="waiting">
              Waiting <span className="mono soft">{errands.length}</span>
            </h2>
            <ul>
              {(showsAll ? errands : errands.slice(0, FIRST)).map((errand) => (
                <ErrandLine key={errand.id} errand={errand} />
              ))}
            </ul>
            {errands.length > FIRST ? (
              <Button kind="link" aria-expanded={showsAll} onClick={() => setShowsAll(!showsAll)}>
                {showsAll ? 'Only the first' : `${errands.length - FIRST} more`}
              </Button>
            ) : null}
          </section>
        ) : null}
        {may(me.role, 'edit-pages') ? (
          <section aria-labelledby="under-way">
            <h2 id="under-way">
              Under way <span className="mono soft">Wanted · Cleared · Prepared · Worded · Placed</span>
            </h2>
            {pages.length === 0 ? (
              <p className="empty">
                No page is under way. <Link to="/pages/new">Begin one</Link>
              </p>
            ) : (
              <ul>
                {pages.map((page) => (
                  <PageLine key={page.id} page={page} />
                ))}
              </ul>
            )}
          </section>
        ) : null}
      </div>
      <aside>
        <section className="card" aria-labelledby="came-in">
          <h2 id="came-in">Came in last</h2>
          {recent.length === 0 ? (
            <p className="soft">Nothing yet. Pictures, films and frames come in from anywhere.</p>
          ) : null}
          <div className="recent">
            {recent.map((asset) => (
              <Link key={asset.id} to={`/shelf?piece=${asset.id}`}>
                <img src={asset.thumb} alt={asset.label.title || asset.stem} loading="lazy" />
              </Link>
            ))}
          </div>
        </section>
        <section className="card" aria-labelledby="begin">
          <h2 id="begin">Begin</h2>
          <p className="soft">
            A page begins with what it needs: then pictures are looked for in the right shape.
          </p>
          <div className="dialog-actions">
            {may(me.role, 'edit-pages') ? (
              <Link className="button" data-kind="action" to="/pages/new">
                Begin a page
              </Link>
            ) : null}
            <Link className="button" to="/shelf">
              Hand pieces in
            </Link>
          </div>
          {isNew && may(me.role, 'set-rules') ? (
            <p className="desk-house">
              Who else works here, and whose frames may stand on pages, is said in the{' '}
              <Link to="/rules#rules-people">House rules</Link>.
            </p>
          ) : null}
        </section>
      </aside>
    </div>
  );
}

function headline(count: number, firstName: string): string {
  const words = SMALL_NUMBERS[count] ?? `${count} things`;
  return `${words} ${count === 1 || count === 0 ? 'waits' : 'wait'} for you, ${firstName}`;
}

function leadSentence(stopped: number, all: number): string {
  if (all === 0) return 'The shelf is open.';
  if (stopped === 0) return 'Every page under way could go out as it is.';
  return `${stopped} of ${all} pages cannot go out yet.`;
}

function ErrandLine({ errand }: { readonly errand: Errand }) {
  return (
    <li className="errand">
      {errand.thumb ? (
        <img src={errand.thumb} alt="" />
      ) : (
        <span className="errand-count">{errand.count ?? ''}</span>
      )}
      <div>
        <p>
          {errand.before} <strong>{errand.subject}</strong> {errand.after}
        </p>
        <p className="soft">
          {errand.detail}{' '}
          {errand.due ? (
            <span className={isPressing(errand.due) ? 'due' : ''}>{sentence(sayDue(errand.due))}</span>
          ) : null}
        </p>
      </div>
      <Link className="button" to={errand.address} aria-label={`${errand.action}: ${errand.subject}`}>
        {errand.action}
      </Link>
    </li>
  );
}
