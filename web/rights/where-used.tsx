import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { type WhereUsedQuery, WhereUsedSchema } from '#api/rights.ts';
import { requestJson } from '../api/client.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { sayPageTitle } from '../pages/say-title.ts';
import { Button } from '../ui/button.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Panel } from '../ui/panel.tsx';

type WhereUsedProps = WhereUsedQuery & {
  /** What it is called. */
  readonly name: string;
};

/** The way to where something is used: a licence, a host, what somebody brought in. */
export function WhereUsedButton(props: WhereUsedProps) {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <Button kind="link" aria-label={`Where used: ${props.name}`} onClick={() => setOpen(true)}>
        Where used
      </Button>
      {isOpen ? <WhereUsedPanel {...props} onClose={() => setOpen(false)} /> : null}
    </>
  );
}

function WhereUsedPanel({ of, value, name, onClose }: WhereUsedProps & { readonly onClose: () => void }) {
  const used = useQuery({
    queryKey: ['where-used', of, value],
    queryFn: () => requestJson('get /where-used', WhereUsedSchema, { query: { of, value } }),
    staleTime: 0,
  });
  const { data } = used;
  return (
    <Panel title={TITLES[of](name)} isOpen onClose={onClose}>
      <Unanswered of={used} />
      {data ? <p className="text-soft">{sayHowMany(data.pieces, data.pages.length)}</p> : null}
      {data && data.pages.length > 0 ? (
        <ul className="mt-2">
          {data.pages.map((page) => (
            <li
              key={page.id}
              className="flex flex-wrap items-baseline justify-between gap-x-3 border-t border-hairline py-1.75"
            >
              <Link to={`/pages/${page.id}`}>{sayPageTitle(page.title)}</Link>
              <span className="text-soft">
                {[
                  page.target,
                  page.isOut ? 'out' : 'not sent yet',
                  page.pieces === 1 ? '1 piece' : `${page.pieces} pieces`,
                ].join(', ')}
              </span>
            </li>
          ))}
        </ul>
      ) : null}
      <Deeds>
        <Button onClick={onClose}>Done</Button>
      </Deeds>
    </Panel>
  );
}

const TITLES: Readonly<Record<WhereUsedQuery['of'], (name: string) => string>> = {
  licence: (name) => `Where ${name} is used`,
  host: (name) => `Where ${name} is used`,
  person: (name) => `Where what ${name} brought in is used`,
};

function sayHowMany(pieces: number, pages: number): string {
  if (pieces === 0) return 'Nothing on the shelf has to do with it.';
  const held = pieces === 1 ? 'One piece on the shelf' : `${pieces} pieces on the shelf`;
  if (pages === 0) return `${held}, on no page.`;
  return `${held}, on ${pages === 1 ? 'one page' : `${pages} pages`}.`;
}
