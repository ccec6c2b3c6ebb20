import { useRouteError } from 'react-router';
import { Button } from '../ui/button.tsx';
import { Empty } from '../ui/empty.tsx';

/** Screens are fetched when they are opened; after a renewal of Placard the old ones are not there any more. */
const isRenewed = (error: unknown) =>
  error instanceof Error &&
  /dynamically imported module|Importing a module script|error loading/i.test(error.message);

/** In the place of a screen that failed. The rest of Placard stays, and so does what was typed. */
export function ScreenFault() {
  const error = useRouteError();
  return <Failed error={error} />;
}

export function Failed({ error }: { readonly error: unknown }) {
  return (
    <Empty className="max-w-115" role="alert">
      <h1 className="mb-1 text-xl text-ink">
        {isRenewed(error) ? 'Placard was renewed' : 'This screen failed'}
      </h1>
      <p>
        {isRenewed(error)
          ? 'This window still has the one before. What you wrote is kept; load it again and go on.'
          : 'What is saved is safe, and what you typed on a page lies on this machine. Load the screen again; if it fails again, tell whoever runs Placard what you did.'}
      </p>
      <Button className="my-3" kind="action" onClick={() => window.location.reload()}>
        Load it again
      </Button>
      {error instanceof Error && !isRenewed(error) ? (
        <p className="font-mono text-mono text-soft">{error.message.slice(0, 300)}</p>
      ) : null}
    </Empty>
  );
}
