import { spoken } from '../ui/spoken.ts';
import { useStore } from '../ui/store.ts';
import { carrying, HOW } from './carry.ts';

/** What the keyboard carries and where it would go now, over the bar; and what is said of every move. */
export function Carrying() {
  const now = useStore(carrying);
  const words = useStore(spoken);
  return (
    <>
      <p className="sr-only" role="status" aria-live="assertive">
        {words}
      </p>
      {now ? (
        <div
          className="fixed inset-x-0 top-0 z-10 flex h-bar items-center gap-4.5 overflow-hidden bg-due px-4.5 whitespace-nowrap text-due-ink"
          aria-hidden="true"
        >
          <strong className="min-w-0 truncate">
            {now.words} <span className="font-normal">{now.where}</span>
          </strong>
          <span className="ml-auto max-middle:hidden">{HOW}</span>
        </div>
      ) : null}
    </>
  );
}
