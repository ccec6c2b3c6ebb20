import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { Asset } from '#api/assets.ts';
import { usesQuery } from '../api/queries.ts';
import { LabelRow } from '../label/row.tsx';
import { sayPageTitle } from '../pages/say-title.ts';

/** Every page that a piece stands on, and whether it may stand there today. */
export function UsesRow({ asset }: { readonly asset: Asset }) {
  const { data: uses } = useQuery(usesQuery(asset.id, asset.version));
  if (!uses) return null;
  return (
    <LabelRow name="Used">
      {uses.length === 0 ? <p>On no page.</p> : null}
      {uses.map(({ pageId, title, target, isOut, verdict, says }) => (
        <p key={pageId}>
          <Link className="underline" to={`/pages/${pageId}?piece=${asset.id}`}>
            {sayPageTitle(title)}
          </Link>{' '}
          <span className="text-soft">
            for the {target}
            {isOut ? ', which is out' : ''}.
          </span>{' '}
          <span className={verdict === 'allowed' ? 'text-soft' : 'text-due'}>{says}</span>
        </p>
      ))}
    </LabelRow>
  );
}
