import type { ReactNode, RefObject } from 'react';
import type { Page } from '#api/pages.ts';
import type { PageDoc } from '#core/page/model.ts';
import { Places } from '../frame/places.tsx';
import { usePagePlaces, useWayToPlaces } from '../page/page-places.ts';
import { sayPageTitle } from '../pages/say-title.ts';
import { Chips } from '../ui/chips.tsx';

interface NarrowProofProps {
  readonly page: Page;
  readonly doc: PageDoc;
  /** Which of the target's proof widths is looked at. */
  readonly looked: number;
  readonly onLook: (at: number) => void;
  readonly frames: RefObject<HTMLElement | null>;
  readonly frame: ReactNode;
  readonly notices: ReactNode;
  readonly findings: ReactNode;
  readonly takeAway: ReactNode;
}

/** A proof on a narrow screen: one width at a time in a window of its own, and the findings under it, in one column. */
export function NarrowProof({
  page,
  doc,
  looked,
  onLook,
  frames,
  frame,
  notices,
  findings,
  takeAway,
}: NarrowProofProps) {
  const goTo = useWayToPlaces(page.id);
  const places = usePagePlaces({
    page,
    doc,
    here: 'proof',
    labelled: 'pieces',
    goTo,
    onProof: () => undefined,
  });
  return (
    <div className="grid h-full grid-cols-1 grid-rows-[auto_minmax(0,1fr)_auto]">
      <header className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line bg-panel px-3.5 py-1.5">
        <h1 className="min-w-0 flex-1 truncate text-2xl">{sayPageTitle(doc.title)}</h1>
        <Chips
          about="Width that is looked at"
          pressed={[String(looked)]}
          choices={page.target.rules.proofWidths.map((width, at) => [String(at), `${width} px`] as const)}
          onPress={(at) => onLook(Number(at))}
        />
      </header>
      <div className="min-h-0 overflow-y-auto">
        {notices}
        <section
          className="max-h-[52dvh] min-h-45 overflow-auto border-b-2 border-ink px-4.5 pt-2 pb-5"
          ref={frames}
          aria-label="The page at its widths"
          // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, also by keys (WCAG 2.1.1).
          tabIndex={0}
        >
          {frame}
        </section>
        {findings}
        {takeAway ? <div className="flex bg-panel px-4 pb-5">{takeAway}</div> : null}
      </div>
      <Places about="Places of the page" places={places} />
    </div>
  );
}
