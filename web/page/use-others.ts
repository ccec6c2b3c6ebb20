import { useEffect, useRef, useState } from 'react';
import { type AtPage, AtPageSchema } from '#api/pages.ts';
import { requestJson } from '../api/client.ts';
import { showOthers } from '../sheet/block-marks.ts';
import type { PageSession } from './use-page-session.ts';

export type Other = AtPage['others'][number];

/** Often enough to see another person's words soon after they were saved; the server takes who was silent for 20 s to be gone. */
const EVERY_MILLIS = 5000;

/**
 * Who else has the page open, and where they are; named on the sheet. Whenever somebody saved it meanwhile, what they did is
 * put together with what is open here.
 */
export function useOthers(session: PageSession): readonly Other[] {
  const [others, setOthers] = useState<readonly Other[]>([]);
  const sitting = useRef(crypto.randomUUID());
  useEffect(() => {
    const { pageId, editor, saver, view } = session;
    const say = (left: boolean) => {
      const { selected, block } = view.state;
      return requestJson('post /pages/{id}/sittings', AtPageSchema, {
        path: { id: pageId },
        body: { id: sitting.current, block: selected?.id ?? block, left },
      });
    };
    let isOver = false;
    const look = async () => {
      if (document.visibilityState === 'hidden') return;
      const there = await say(false);
      if (isOver) return;
      setOthers((before) => (isSame(before, there.others) ? before : there.others));
      showOthers(editor, namesByBlock(there.others));
      if (there.version > saver.version) await saver.catchUp();
    };
    // Who cannot be reached is said by the saver, when there is something to save.
    const quietly = () => void look().catch(() => undefined);
    quietly();
    const timer = setInterval(quietly, EVERY_MILLIS);
    document.addEventListener('visibilitychange', quietly);
    return () => {
      isOver = true;
      clearInterval(timer);
      document.removeEventListener('visibilitychange', quietly);
      say(true).catch(() => undefined);
    };
  }, [session]);
  return others;
}

const isSame = (one: readonly Other[], other: readonly Other[]): boolean =>
  JSON.stringify(one) === JSON.stringify(other);

/** Two people in one block are named together. */
function namesByBlock(others: readonly Other[]): ReadonlyMap<string, string> {
  const names = new Map<string, string>();
  for (const { name, block } of others)
    if (block !== null) names.set(block, names.has(block) ? `${names.get(block)}, ${name}` : name);
  return names;
}

/** "Piet Hallam is here", "Piet Hallam and Joss Beck are here"; nothing for nobody. */
export function sayOthers(others: readonly Other[]): string {
  const names = [...new Set(others.map(({ name }) => name))];
  if (names.length === 0) return '';
  const list = new Intl.ListFormat('en-GB').format(names);
  return `${list} ${names.length === 1 ? 'is' : 'are'} here`;
}
