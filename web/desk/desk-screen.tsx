import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { may } from '#api/people.ts';
import { deskQuery, meQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { PageLine } from '../pages/page-line.tsx';
import { Button, LinkButton } from '../ui/button.tsx';
import { Card } from '../ui/card.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Empty } from '../ui/empty.tsx';
import { Progress } from '../ui/progress.tsx';
import { ErrandLine } from './errand-line.tsx';

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

export function DeskScreen() {
  const asked = useQuery(meQuery);
  const me = asked.data;
  const desk = useQuery(deskQuery);
  const [showsAll, setShowsAll] = useState(false);
  if (!desk.data || !me) return <Unanswered isScreen of={[desk, asked]} />;
  const { errands, colleagues, pages, recent, hanging } = desk.data;
  const mine = errands.filter(({ given }) => given === null || given.to.id === me.id).length;
  const isNew = pages.length === 0 && recent.length === 0;
  const stopped = pages.filter((page) => page.stops > 0).length;
  return (
    <div className="mx-auto grid h-full max-w-425 grid-cols-[minmax(0,1fr)_372px] content-start gap-8.5 overflow-auto px-8.5 py-6.5 max-middle:grid-cols-1 max-middle:px-3.5 max-middle:py-4.5">
      <div>
        <h1 className="text-5xl">{headline(mine, me.name.split(' ')[0] ?? '')}</h1>
        <p className="mt-1 text-md text-soft">{leadSentence(stopped, pages.length)}</p>
        {hanging ? (
          <div className="mt-3.5 max-w-105 bg-panel px-3.5 py-2.5" role="status">
            <p className="mb-1.5">
              The Saltmere demo is being painted: {hanging.done} of {hanging.of} pieces hang. Work with what
              is there.
            </p>
            <Progress name="Pieces of the demo" value={(100 * hanging.done) / hanging.of} />
          </div>
        ) : null}
        {errands.length > 0 ? (
          <section aria-labelledby="waiting">
            <h2
              className="mt-6.5 flex items-baseline justify-between border-b-2 border-ink pb-1.75 text-lg"
              id="waiting"
            >
              Waiting <span className="font-mono text-sm font-normal text-soft">{errands.length}</span>
            </h2>
            <ul>
              {(showsAll ? errands : errands.slice(0, FIRST)).map((errand) => (
                <ErrandLine key={errand.id} errand={errand} me={me.id} colleagues={colleagues} />
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
            <h2
              className="mt-6.5 flex items-baseline justify-between border-b-2 border-ink pb-1.75 text-lg"
              id="under-way"
            >
              Under way{' '}
              <span className="font-mono text-sm font-normal text-soft max-middle:hidden">
                Wanted · Cleared · Prepared · Worded · Placed
              </span>
            </h2>
            {pages.length === 0 ? (
              <Empty>
                No page is under way. <Link to="/pages/new">Begin one</Link>
              </Empty>
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
      <aside className="grid content-start gap-4.5">
        <Card className="px-4 pt-3.25 pb-4" aria-labelledby="came-in">
          <h2 className="mb-2.5 flex items-baseline justify-between border-ink text-lg" id="came-in">
            Newest
          </h2>
          {recent.length === 0 ? (
            <p className="text-soft">Nothing yet. Pictures, films and frames come in from anywhere.</p>
          ) : null}
          <div className="flex flex-wrap gap-2">
            {recent.map((asset) => (
              <Link key={asset.id} to={`/shelf?piece=${asset.id}`}>
                <img
                  className="h-16 max-w-30"
                  src={asset.thumb}
                  alt={asset.label.title || asset.stem}
                  loading="lazy"
                />
              </Link>
            ))}
          </div>
        </Card>
        <Card className="px-4 pt-3.25 pb-4" aria-labelledby="begin">
          <h2 className="mb-2.5 flex items-baseline justify-between border-ink text-lg" id="begin">
            Begin
          </h2>
          <p className="text-soft">
            A page begins with what it needs: then pictures are looked for in the right shape.
          </p>
          <Deeds>
            {may(me.role, 'edit-pages') ? (
              <LinkButton kind="action" to="/pages/new">
                Begin a page
              </LinkButton>
            ) : null}
            <LinkButton to="/shelf">Hand pieces in</LinkButton>
          </Deeds>
          {isNew && may(me.role, 'set-rules') ? (
            <p className="mt-3.5 text-soft">
              Who else works here, and whose frames may stand on pages, is said in the{' '}
              <Link to="/rules#rules-people">House rules</Link>.
            </p>
          ) : null}
        </Card>
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
