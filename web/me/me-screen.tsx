import './me.css';
import { useQuery } from '@tanstack/react-query';
import { ROLE_WORDS } from '#api/people.ts';
import { meQuery } from '../api/queries.ts';
import { PasswordForm } from './password-form.tsx';
import { SessionsCard } from './sessions-card.tsx';

/** What one may settle for oneself. */
export function MeScreen() {
  const { data: me } = useQuery(meQuery);
  if (!me) return null;
  return (
    <div className="me">
      <section className="card">
        <h1>{me.name}</h1>
        <p className="soft">
          {ROLE_WORDS[me.role]}, {me.email}
        </p>
        <PasswordForm />
      </section>
      <SessionsCard />
    </div>
  );
}
