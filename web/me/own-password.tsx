import '../sign-in/sign-in.css';
import './me.css';
import type { Person } from '#api/people.ts';
import { meQuery, queryClient } from '../api/queries.ts';
import { Mark } from '../frame/mark.tsx';
import { PasswordForm } from './password-form.tsx';

/** The first sign-in with a password that was handed over: nothing else is open until one's own is taken. */
export function OwnPassword({ me }: { readonly me: Person }) {
  return (
    <main className="sign-in">
      <div className="card own-password">
        <div className="sign-in-mark">
          <Mark /> Placard
        </div>
        <h1>Take a password of your own</h1>
        <p className="soft">
          {me.name}, the one you signed in with was made for you and handed over. From now on only you know
          yours.
        </p>
        <PasswordForm onDone={() => void queryClient.invalidateQueries({ queryKey: meQuery.queryKey })} />
      </div>
    </main>
  );
}
