import { useQuery } from '@tanstack/react-query';
import { Link, Outlet } from 'react-router';
import { may, PERMISSION_WORDS, type Permission, ROLE_WORDS } from '#api/people.ts';
import { meQuery } from '../api/queries.ts';
import { Empty } from '../ui/empty.tsx';

/** Screens for those whose role allows the deed; the others are told so, before they begin anything. */
export function ForThoseWhoMay({ deed }: { readonly deed: Permission }) {
  const { data: me } = useQuery(meQuery);
  if (!me) return null;
  if (may(me.role, deed)) return <Outlet />;
  return (
    <Empty>
      <h1 className="mb-1 text-xl text-ink">This is for other roles</h1>
      <p>
        Yours, {ROLE_WORDS[me.role].toLowerCase()}, does not let you {PERMISSION_WORDS[deed]}. The site owner
        says who may. Pieces are handed in on the <Link to="/shelf">Shelf</Link>.
      </p>
    </Empty>
  );
}
