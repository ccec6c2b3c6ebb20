import './frame.css';
import { Suspense, useEffect, useState } from 'react';
import { Outlet, useLocation } from 'react-router';
import { Toaster } from 'sonner';
import { goOn } from '../arrivals/arrivals.ts';
import { findGatherings } from '../arrivals/gatherings.ts';
import { theme } from '../theme/theme.ts';
import { useStore } from '../ui/store.ts';
import { useUndoKeys } from '../undo/undo-keys.tsx';
import { FindOrDo } from './find-or-do.tsx';
import { KeysHelp } from './keys-help.tsx';
import { TopBar } from './top-bar.tsx';

/** Whether keys typed now go into text. */
function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof Element && target.closest('input, textarea, select, [contenteditable="true"]') !== null
  );
}

export function Frame() {
  const [isFinding, setFinding] = useState(false);
  const [showsKeys, setShowsKeys] = useState(false);
  const { pathname } = useLocation();
  useUndoKeys();
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
      <Toaster theme={useStore(theme)} position="bottom-center" duration={5000} />
    </div>
  );
}
