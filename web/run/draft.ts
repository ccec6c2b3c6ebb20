import * as v from 'valibot';
import type { Target } from '#api/targets.ts';
import { plainOrder, type RunOrder, RunOrderSchema } from '#core/run/order.ts';
import { Store, useStore } from '../ui/store.ts';

/** The run that is being put together, kept for this tab: a reload loses nothing of it. */
const draft = new Store<RunOrder | null>(kept());

const KEY = 'placard-run';

function kept(): RunOrder | null {
  try {
    const read = v.safeParse(RunOrderSchema, JSON.parse(sessionStorage.getItem('placard-run') ?? 'null'));
    return read.success ? read.output : null;
  } catch {
    return null;
  }
}

export function useDraft(): RunOrder | null {
  return useStore(draft);
}

export function putDraft(order: RunOrder | null): void {
  draft.update(() => order);
  try {
    if (order) sessionStorage.setItem(KEY, JSON.stringify(order));
    else sessionStorage.removeItem(KEY);
  } catch {
    // A browser that keeps nothing only loses the draft at a reload.
  }
}

/** Begins a run over the chosen pieces; the choices of a run that was not begun yet are kept. */
export function draftRunOver(pieces: readonly string[], target: Target): void {
  const before = draft.state;
  putDraft({ ...(before ?? plainRun(target)), targetId: target.id, pieces: [...pieces], rows: {} });
}

/** Begins a run that gives the chosen pieces names by the house pattern, and makes no files of them. */
export function draftNamesOver(pieces: readonly string[], { id, rules }: Target): void {
  const naming = { by: 'pattern', pattern: rules.namePattern, which: 'all' } as const;
  putDraft({ ...plainOrder(id, pieces), naming });
}

/** Adds pieces that came in after the run was begun. */
export function addToDraft(pieces: readonly string[], target: Target): void {
  const before = draft.state ?? plainRun(target);
  putDraft({ ...before, pieces: [...new Set([...before.pieces, ...pieces])] });
}

function plainRun(target: Target): RunOrder {
  const [first] = target.rules.cutPresets;
  const column = target.rules.cutPresets.find(({ ratio }) => ratio === null) ?? first;
  return {
    ...plainOrder(target.id, []),
    sizes: column ? [{ by: 'preset', preset: column.id }] : [],
    sharp: true,
  };
}
