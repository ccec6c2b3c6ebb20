/**
 * Tells the process that started this one. To a parent that is gone nothing is told, and nothing is thrown: that it is
 * gone ends this process by itself.
 */
export function tellParent(what: unknown): void {
  process.send?.(what, () => undefined);
}
