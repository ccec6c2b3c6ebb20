/** Pages that are being saved right now, each with the end of that. */
const underWay = new Map<string, Promise<void>>();

/** Says that a page is being saved until a promise is settled. */
export function noteSaving(pageId: string, saving: Promise<void>): void {
  const ended = saving
    .catch(() => undefined)
    .finally(() => {
      if (underWay.get(pageId) === ended) underWay.delete(pageId);
    });
  underWay.set(pageId, ended);
}

/**
 * Waits until a page is not being saved any more. Who asks for it on leaving one screen for another would be answered with the
 * state before, and what is then kept as saved would be gone from the screen.
 */
export async function whenSaved(pageId: string): Promise<void> {
  await underWay.get(pageId);
}

/** Pages that are open, each with the way to save what stands on it now. */
const open = new Set<() => Promise<void>>();

/** Says that a page is open; what is answered says that it is open no more. */
export function noteOpen(save: () => Promise<void>): () => void {
  open.add(save);
  return () => void open.delete(save);
}

/**
 * Saves what stands on the open pages. Whoever lets the server change pages does it first: what was written a moment ago is part
 * of what changes, and does not meet it from behind.
 */
export async function saveOpenPages(): Promise<void> {
  await Promise.all([...open].map((save) => save()));
}
