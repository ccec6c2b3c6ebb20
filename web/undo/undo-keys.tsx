import { Redo2, Undo2 } from 'lucide-react';
import { useEffect } from 'react';
import { sayFailure } from '../api/client.ts';
import { useStore } from '../ui/store.ts';
import { Tip } from '../ui/tip.tsx';
import { toast } from '../ui/toast.ts';
import { ledger } from './ledger.ts';

/** Takes back, or does again, and says what. */
export async function stepBack(): Promise<void> {
  await step('Undone', () => ledger.undo());
}

export async function stepForward(): Promise<void> {
  await step('Redone', () => ledger.redo());
}

async function step(word: string, work: () => Promise<string | null>): Promise<void> {
  try {
    const name = await work();
    if (name) toast(`${word}: ${name}.`);
  } catch (error) {
    toast.error(sayFailure(error));
  }
}

/** A field of text has an undo of its own; a slider, a box to tick or a colour has none. */
const PLAIN_FIELD = 'textarea, input:not([type="color"], [type="file"])';

/** Ctrl or Cmd Z, and Shift with it or Ctrl Y, wherever a person is not typing into a plain field. */
export function useUndoKeys(): void {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
      const key = event.key.toLowerCase();
      if (key !== 'z' && key !== 'y') return;
      if (event.target instanceof Element && event.target.closest(PLAIN_FIELD)) return;
      event.preventDefault();
      event.stopPropagation();
      void (key === 'y' || event.shiftKey ? stepForward() : stepBack());
    };
    // Before the editor's own keys: one order of undo for text, placements and labels.
    window.addEventListener('keydown', listen, true);
    return () => window.removeEventListener('keydown', listen, true);
  }, []);
}

export function UndoButtons() {
  const { done, undone, isBusy } = useStore(ledger.store);
  const last = done.at(-1);
  const next = undone.at(-1);
  return (
    <span className="flex gap-0.5">
      <Tip words={last ? `Undo ${last.name} (Ctrl Z)` : 'Nothing to undo'}>
        <button
          type="button"
          className="grid size-7 place-items-center rounded-sm text-bar-ink enabled:hover:bg-white/12 disabled:cursor-default disabled:opacity-50"
          aria-label={last ? `Undo ${last.name}` : 'Undo'}
          disabled={!last || isBusy}
          onClick={() => void stepBack()}
        >
          <Undo2 size={16} aria-hidden="true" />
        </button>
      </Tip>
      <Tip words={next ? `Do again: ${next.name} (Ctrl Shift Z)` : 'Nothing to do again'}>
        <button
          type="button"
          className="grid size-7 place-items-center rounded-sm text-bar-ink enabled:hover:bg-white/12 disabled:cursor-default disabled:opacity-50"
          aria-label={next ? `Redo ${next.name}` : 'Redo'}
          disabled={!next || isBusy}
          onClick={() => void stepForward()}
        >
          <Redo2 size={16} aria-hidden="true" />
        </button>
      </Tip>
    </span>
  );
}
