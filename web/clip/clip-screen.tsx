import { useEffect, useState } from 'react';
import { MadeSchema } from '#api/problem.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { Card } from '../ui/card.tsx';
import { Deeds } from '../ui/deeds.tsx';

type State =
  | { readonly kind: 'nothing' }
  | { readonly kind: 'handing' }
  | { readonly kind: 'handed'; readonly id: string; readonly host: string }
  | { readonly kind: 'failed'; readonly why: string };

/** What the clipper wrote behind the address. */
const handed = () => new URLSearchParams(window.location.hash.slice(1));

/** What the clipper opens: it hands in the page that it was pressed on, and says so. */
export function ClipScreen({ isSignedIn }: { readonly isSignedIn: boolean }) {
  const [state, setState] = useState<State>(() => ({ kind: handed().has('t') ? 'handing' : 'nothing' }));
  useEffect(() => {
    const said = handed();
    // The token is not left standing in the address bar or the history.
    window.history.replaceState(null, '', '/clip');
    const address = said.get('a') ?? '';
    const token = said.get('t') ?? '';
    if (token === '') return;
    requestJson('post /clips', MadeSchema, { body: { token, address, selection: said.get('s') ?? '' } }).then(
      ({ id }) =>
        setState({ kind: 'handed', id, host: URL.canParse(address) ? new URL(address).hostname : '' }),
      (error: unknown) => setState({ kind: 'failed', why: sayFailure(error) }),
    );
  }, []);
  return (
    <main className="grid h-full place-items-center p-5">
      <Card as="div" className="w-[min(440px,100%)]">
        {state.kind === 'nothing' ? (
          <>
            <h1 className="text-3xl wrap-anywhere">There is no page to hand in</h1>
            <p className="mt-2.5 mb-3.5">
              The clipper opens this, from the page that you are on. It is made under{' '}
              <a href="/gather">Gather</a>.
            </p>
          </>
        ) : null}
        {state.kind === 'handing' ? <p className="mt-2.5 mb-3.5">The page is handed in.</p> : null}
        {state.kind === 'failed' ? (
          <>
            <h1 className="text-3xl wrap-anywhere">It was not handed in</h1>
            <p className="mt-2.5 mb-3.5" role="alert">
              {state.why}
            </p>
          </>
        ) : null}
        {state.kind === 'handed' ? (
          <>
            <h1 className="text-3xl wrap-anywhere">Handed in from {state.host}</h1>
            <p className="mt-2.5 mb-3.5">
              {isSignedIn
                ? 'Placard reads it for its pictures.'
                : 'It waits under Gather until you sign in to Placard.'}
            </p>
            <Deeds>
              <a
                className={buttonLook({ kind: 'action' })}
                href={isSignedIn ? `/gather?clip=${state.id}` : '/gather'}
              >
                See its pictures
              </a>
              <Button onClick={() => window.close()}>Back to the page</Button>
            </Deeds>
          </>
        ) : null}
      </Card>
    </main>
  );
}
