import { useQuery } from '@tanstack/react-query';
import { ROLE_WORDS } from '#api/people.ts';
import { meQuery } from '../api/queries.ts';
import { Card } from '../ui/card.tsx';
import { MessagesCard } from './messages-card.tsx';
import { PasswordForm } from './password-form.tsx';
import { SessionsCard } from './sessions-card.tsx';

/** What one may settle for oneself. */
export function MeScreen() {
  const { data: me } = useQuery(meQuery);
  if (!me) return null;
  return (
    <div className="h-full overflow-auto px-8.5 pt-5.5 pb-15 max-middle:px-3 max-middle:pt-3.5 max-middle:pb-15">
      <Card className="mx-auto max-w-105 px-5.5 pt-4.5 pb-5">
        <h1 className="text-3xl">{me.name}</h1>
        <p className="text-soft">
          {ROLE_WORDS[me.role]}, {me.email}
        </p>
        <PasswordForm />
      </Card>
      <MessagesCard me={me} />
      <SessionsCard />
    </div>
  );
}
