import { useEffect } from 'react';
import * as v from 'valibot';
import { isLabelRowName, type LabelRowName } from './row.tsx';

/** Which row of which label is open, kept by the browser until this tab is closed, as what is typed there is. */
const KeptSchema = v.object({
  /** What the label is of: a piece, or a use on a page. */
  of: v.object({ use: v.nullable(v.string()), piece: v.nullable(v.string()) }),
  row: v.custom<LabelRowName>(isLabelRowName),
});
export type KeptRow = v.InferOutput<typeof KeptSchema>;

const keyOf = (screen: string) => `placard-row ${screen}`;

/** The row that was open on a screen when it was left by a reload, or null. */
export function keptRow(screen: string): KeptRow | null {
  if (!('sessionStorage' in globalThis)) return null;
  try {
    const read = v.safeParse(KeptSchema, JSON.parse(sessionStorage.getItem(keyOf(screen)) ?? 'null'));
    return read.success ? read.output : null;
  } catch {
    return null;
  }
}

/** Keeps which row is open on a screen, so that a label that is being edited is so again after a reload. */
export function useKeepRow(screen: string, of: KeptRow['of'], row: LabelRowName | null): void {
  const { use, piece } = of;
  useEffect(() => {
    const isOpen = row !== null && (use !== null || piece !== null);
    if (isOpen) sessionStorage.setItem(keyOf(screen), JSON.stringify({ of: { use, piece }, row }));
    else sessionStorage.removeItem(keyOf(screen));
  }, [screen, use, piece, row]);
}
