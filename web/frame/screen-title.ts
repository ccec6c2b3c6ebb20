import { type RefObject, useEffect, useRef } from 'react';
import { useLocation } from 'react-router';
import { say } from '../ui/spoken.ts';

/** What kind of screen an address leads to; the first that fits. */
const KINDS: readonly (readonly [RegExp, string])[] = [
  [/^\/$/, 'Desk'],
  [/^\/pages\/new$/, 'Begin a page'],
  [/^\/pages\/[^/]+\/proof$/, 'Proof'],
  [/^\/pages\/[^/]+\/sent$/, 'Sent'],
  [/^\/pages\/[^/]+$/, 'Sheet'],
  [/^\/pages$/, 'Pages'],
  [/^\/shelf\/runs/, 'Runs'],
  [/^\/shelf\/[^/]+\/bench$/, 'Bench'],
  [/^\/shelf\/words$/, 'Words'],
  [/^\/shelf$/, 'Shelf'],
  [/^\/gather$/, 'Gather'],
  [/^\/embeds$/, 'Embeds'],
  [/^\/rights$/, 'Rights'],
  [/^\/rules$/, 'House rules'],
  [/^\/me$/, 'You'],
];

/** The title of a screen: what it is about, what kind of screen it is, and whose (WCAG 2.2, 2.4.2). */
export function screenTitle(pathname: string, heading: string): string {
  const kind = KINDS.find(([address]) => address.test(pathname))?.[1] ?? '';
  const parts = [heading.trim(), kind === heading.trim() ? '' : kind, 'Placard'];
  return parts.filter(Boolean).join(' - ');
}

let isEntered = false;

/** Says that somebody stood at the door in this window: the screen that they come to is told as any other is. */
export function noteSignIn(): void {
  isEntered = true;
}

/**
 * Each screen has its title, taken from its first heading, and is said when it opens. What had the focus on the screen
 * before may be gone: then the new one has it, and nobody begins at the top of the window again.
 */
export function useScreenTitle(main: RefObject<HTMLElement | null>): void {
  const { pathname } = useLocation();
  const isFirst = useRef(true);
  useEffect(() => {
    // What a browser loads it tells by itself.
    let isTold = isFirst.current && !isEntered;
    isFirst.current = false;
    const look = () => {
      const heading = main.current?.querySelector('h1')?.textContent ?? '';
      if (heading === '') return;
      document.title = screenTitle(pathname, heading);
      if (isTold) return;
      isTold = true;
      say(document.title.replace(/ - Placard$/u, ''));
      if (document.activeElement === null || document.activeElement === document.body) main.current?.focus();
    };
    const observer = new MutationObserver(look);
    observer.observe(document.body, { childList: true, subtree: true, characterData: true });
    look();
    return () => observer.disconnect();
  }, [main, pathname]);
}
