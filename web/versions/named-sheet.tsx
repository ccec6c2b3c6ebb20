import type { ReactNode } from 'react';

/** A sheet with what it is over it, where two stand side by side. */
export function NamedSheet({ as, children }: { readonly as: string; readonly children: ReactNode }) {
  return (
    <div className="grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]">
      <p className="truncate px-6 pt-2 font-semibold max-narrow:px-3.5">{as}</p>
      {children}
    </div>
  );
}
