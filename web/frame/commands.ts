import { useEffect, useRef } from 'react';
import { Store, useStore } from '../ui/store.ts';

/** Something that the screen on which one is can do, as "Find or do" offers it. */
export interface Command {
  readonly words: string;
  readonly act: () => void;
}

const offered = new Store<readonly (readonly Command[])[]>([]);

/** What the screen that is open can do, for as long as it is open. */
export function useOffer(commands: readonly Command[]): void {
  const now = useRef(commands);
  useEffect(() => {
    now.current = commands;
  });
  const names = commands.map(({ words }) => words).join('\n');
  useEffect(() => {
    const words = names === '' ? [] : names.split('\n');
    // Offered by their words: what each does is asked when it is done.
    const own = words.map((word, at): Command => ({ words: word, act: () => now.current[at]?.act() }));
    offered.update((all) => [...all, own]);
    return () => offered.update((all) => all.filter((one) => one !== own));
  }, [names]);
}

export const useOffered = (): readonly Command[] => useStore(offered).flat();
