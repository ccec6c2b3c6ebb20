import './clip.css';
import { useEffect, useState } from 'react';
import * as v from 'valibot';
import { ask, sayFailure } from '../api/client.ts';

const HandedSchema = v.object({ id: v.string() });

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
    ask(HandedSchema, '/clips', {
      method: 'POST',
      body: { token, address, selection: said.get('s') ?? '' },
    }).then(
      ({ id }) =>
        setState({ kind: 'handed', id, host: URL.canParse(address) ? new URL(address).hostname : '' }),
      (error: unknown) => setState({ kind: 'failed', why: sayFailure(error) }),
    );
  }, []);
  return (
    <main className="clip">
      <div className="card">
        {state.kind === 'nothing' ? (
          <>
            <h1>There is no page to hand in</h1>
            <p>
              The clipper opens this, from the page that you are on. It is made under{' '}
              <a href="/gather">Gather</a>.
            </p>
          </>
        ) : null}
        {state.kind === 'handing' ? <p>The page is handed in.</p> : null}
        {state.kind === 'failed' ? (
          <>
            <h1>It was not handed in</h1>
            <p role="alert">{state.why}</p>
          </>
        ) : null}
        {state.kind === 'handed' ? (
          <>
            <h1>Handed in from {state.host}</h1>
            <p>
              {isSignedIn
                ? 'Placard reads it for its pictures.'
                : 'It waits under Gather until you sign in to Placard.'}
            </p>
            <div className="dialog-actions">
              <a
                className="button"
                data-kind="action"
                href={isSignedIn ? `/gather?clip=${state.id}` : '/gather'}
              >
                See its pictures
              </a>
              <button type="button" className="button" onClick={() => window.close()}>
                Back to the page
              </button>
            </div>
          </>
        ) : null}
      </div>
    </main>
  );
}
