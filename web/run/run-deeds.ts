import { requestVoid } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { ledger } from '../undo/ledger.ts';
import { pictures } from './run-words.ts';

/** By run, how many pieces the ledger's deed speaks of. */
const remembered = new Map<string, number>();

/** Puts a run that has ended into the ledger, so that one step back takes all of it back. */
export function rememberRun(id: string, pieces: number): void {
  if (remembered.get(id) === pieces) return;
  // A run that was stopped and went on is one deed, and speaks of all it did.
  ledger.forget(`run ${id}`);
  remembered.set(id, pieces);
  ledger.add({
    name: `a run over ${pictures(pieces)}`,
    scope: `run ${id}`,
    undo: () => act(id, 'take-back'),
    redo: () => act(id, 'go-on'),
  });
}

/** It was taken back by its own button: there is nothing left to undo. */
export function forgetRun(id: string): void {
  remembered.delete(id);
  ledger.forget(`run ${id}`);
}

async function act(id: string, deed: 'take-back' | 'go-on'): Promise<void> {
  await requestVoid(`post /runs/{id}/${deed}`, { path: { id } });
  void queryClient.invalidateQueries({ queryKey: ['run', id] });
  refreshAfterRun();
}

/** Every screen that shows pieces asks again. */
export function refreshAfterRun(): void {
  for (const key of ['shelf', 'folders', 'desk', 'pages', 'runs', 'made-cuts', 'asset'])
    void queryClient.invalidateQueries({ queryKey: [key] });
}
