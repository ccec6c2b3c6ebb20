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
