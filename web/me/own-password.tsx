import type { Person } from '#api/people.ts';
import { meQuery, queryClient } from '../api/queries.ts';
import { Mark } from '../frame/mark.tsx';
import { Card } from '../ui/card.tsx';
import { PasswordForm } from './password-form.tsx';

/** The first sign-in with a password that was handed over: nothing else is open until one's own is taken. */
export function OwnPassword({ me }: { readonly me: Person }) {
  return (
    <main className="grid min-h-dvh place-content-center p-5">
      <Card as="div" className="w-[min(400px,calc(100vw-40px))] px-6 pt-5.5 pb-6">
        <div className="mb-4.5 flex items-center gap-2.5 text-4xl font-bold font-stretch-112%">
          <Mark className="h-7.25 w-6" /> Placard
        </div>
        <h1 className="mb-3 font-serif text-4xl leading-tight font-normal italic">
          Choose your own password
        </h1>
        <p className="text-soft">
          {me.name}, the one you signed in with was made for you and handed over. From now on only you know
          yours.
        </p>
        <PasswordForm onDone={() => void queryClient.invalidateQueries({ queryKey: meQuery.queryKey })} />
      </Card>
    </main>
  );
}
