import './frame.css';
import { Suspense, useEffect, useState } from 'react';
import { Outlet, useLocation } from 'react-router';
import { bringIn, goOn } from '../arrivals/arrivals.ts';
import { carriedText } from '../arrivals/carried-text.ts';
import { findGatherings } from '../arrivals/gatherings.ts';
import { ONTO_THE_SHELF } from '../arrivals/kept-files.ts';
import { usePasteLeftOver } from '../arrivals/use-paste.ts';
import { useWhereItBelongs } from '../arrivals/where-it-belongs.ts';
import { useUndoKeys } from '../undo/undo-keys.tsx';
import { FindOrDo } from './find-or-do.tsx';
import { KeysHelp } from './keys-help.tsx';
import { Toasts } from './toasts.tsx';
import { TopBar } from './top-bar.tsx';

/** Whether keys typed now go into text. */
function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof Element && target.closest('input, textarea, select, [contenteditable="true"]') !== null
  );
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
  const [showsKeys, setShowsKeys] = useState(false);
  const { pathname } = useLocation();
  useUndoKeys();
  useLeftOver();
  useEffect(() => {
    void goOn();
    void findGatherings();
  }, []);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        setFinding((open) => !open);
      } else if (event.key === '?' && !isTyping(event.target)) setShowsKeys(true);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
  return (
    <div className="frame">
      <TopBar onFind={() => setFinding(true)} onKeys={() => setShowsKeys(true)} />
      <main className="screen" key={pathname.split('/')[1]}>
        <Suspense>
          <Outlet />
        </Suspense>
      </main>
      <FindOrDo isOpen={isFinding} onClose={() => setFinding(false)} onKeys={() => setShowsKeys(true)} />
      <KeysHelp isOpen={showsKeys} onClose={() => setShowsKeys(false)} />
      <Toasts />
    </div>
  );
}
