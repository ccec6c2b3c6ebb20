import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { Outlet, useLocation } from 'react-router';
import { bringIn, goOn } from '../arrivals/arrivals.ts';
import { carriedText } from '../arrivals/carried-text.ts';
import { findGatherings } from '../arrivals/gatherings.ts';
import { ONTO_THE_SHELF } from '../arrivals/kept-files.ts';
import { usePasteLeftOver } from '../arrivals/use-paste.ts';
import { useWhereItBelongs } from '../arrivals/where-it-belongs.ts';
import { Carrying } from '../drag/carrying.tsx';
import { offeredOriginal } from '../replace/offered-original.ts';
import { cx } from '../ui/cx.ts';
import { deedOf } from '../ui/single-keys.ts';
import { useStore } from '../ui/store.ts';
import { useUndoKeys } from '../undo/undo-keys.tsx';
import { alone } from './alone.ts';
import { useScreenTitle } from './screen-title.ts';
import { TopBar } from './top-bar.tsx';
import { useTypedAhead } from './typed-ahead.ts';

const FindOrDo = lazy(async () => ({ default: (await import('./find-or-do.tsx')).FindOrDo }));
const Toasts = lazy(async () => ({ default: (await import('./toasts.tsx')).Toasts }));
const OfferedOriginalPanel = lazy(async () => ({
  default: (await import('../replace/offered-original-panel.tsx')).OfferedOriginalPanel,
}));
const KeysHelp = lazy(async () => ({ default: (await import('./keys-help.tsx')).KeysHelp }));

/** Whether keys typed now go into text. */
function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof Element && target.closest('input, textarea, select, [contenteditable="true"]') !== null
  );
}

/** Whether a piece on the sheet is selected there, which text is not typed into. */
function isOnPiece(target: EventTarget | null): boolean {
  return target instanceof Element && target.querySelector('figure[aria-current="true"]') !== null;
}

/** What is pasted where the screen itself takes nothing goes where it belongs. */
function useLeftOver(): void {
  const takeText = useWhereItBelongs();
  usePasteLeftOver((data) => {
    if (data.files.length === 0) return takeText(carriedText(data));
    const files = [...data.files].map((file) => ({ file, folder: '' }));
    bringIn(files, '', ONTO_THE_SHELF);
    return true;
  });
}

export function Frame() {
  const [isFinding, setFinding] = useState(false);
  const ahead = useTypedAhead();
  const [isDrawn, setDrawn] = useState(false);
  const [showsKeys, setShowsKeys] = useState(false);
  const isAlone = useStore(alone);
  const isOffered = useStore(offeredOriginal) !== null;
  const { pathname } = useLocation();
  const main = useRef<HTMLElement>(null);
  useScreenTitle(main);
  useUndoKeys();
  useLeftOver();
  useEffect(() => {
    void goOn();
    void findGatherings();
    // Not part of the first screen, and there right after it: whoever presses its keys types on at once.
    const drawn = setTimeout(() => setDrawn(true), 0);
    return () => clearTimeout(drawn);
  }, []);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        ahead.begin();
        setFinding((open) => !open);
      } else if (deedOf(event.key) === 'help' && (!isTyping(event.target) || isOnPiece(event.target)))
        setShowsKeys(true);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [ahead]);
  const stopFinding = () => {
    ahead.take();
    setFinding(false);
  };
  useEffect(() => {
    // Closed by the keys that opened it, nothing is awaited any more.
    if (!isFinding) ahead.take();
  }, [isFinding, ahead]);
  return (
    <div
      className={cx(
        'grid h-dvh',
        isAlone ? 'grid-rows-[minmax(0,1fr)]' : 'grid-rows-[var(--spacing-bar)_minmax(0,1fr)]',
      )}
    >
      {isAlone ? null : (
        <TopBar
          onFind={() => {
            ahead.begin();
            setFinding(true);
          }}
          onKeys={() => setShowsKeys(true)}
        />
      )}
      <main
        ref={main}
        tabIndex={-1}
        className="min-h-0 min-w-0 overflow-hidden outline-none"
        key={pathname.split('/')[1]}
      >
        <Suspense>
          <Outlet />
        </Suspense>
      </main>
      <Suspense>
        {isDrawn || isFinding ? (
          <FindOrDo
            typedAhead={ahead.take}
            isOpen={isFinding}
            onClose={stopFinding}
            onKeys={() => setShowsKeys(true)}
          />
        ) : null}
        {showsKeys ? <KeysHelp onClose={() => setShowsKeys(false)} /> : null}
      </Suspense>
      <Carrying />
      <Suspense>{isOffered ? <OfferedOriginalPanel /> : null}</Suspense>
      <Suspense>
        <Toasts />
      </Suspense>
    </div>
  );
}
