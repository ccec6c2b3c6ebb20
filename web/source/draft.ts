import * as v from 'valibot';
import { type PageDoc, PageDocSchema } from '#core/page/model.ts';
import { fromStored, STORED, toStored } from '#core/stored.ts';
import { keepHere } from '../ui/keep-here.ts';

/** What was typed in the source of a page and not kept yet, with the page that it was typed on. */
export interface SourceDraft {
  readonly base: PageDoc;
  readonly text: string;
}

const DraftSchema = v.object({
  base: v.pipe(
    v.unknown(),
    v.transform((stored) => fromStored(STORED.page, stored)),
    PageDocSchema,
  ),
  text: v.string(),
});

const keyOf = (pageId: string) => `placard-source-${pageId}`;

/** What lies on this machine for a page; null for nothing, and for what cannot be read any more. */
export function keptDraft(pageId: string): SourceDraft | null {
  const text = localStorage.getItem(keyOf(pageId));
  if (text === null) return null;
  try {
    const read = v.safeParse(DraftSchema, JSON.parse(text));
    return read.success ? read.output : null;
  } catch (error) {
    if (error instanceof SyntaxError) return null;
    throw error;
  }
}

/** Keeps what was typed on this machine, so that no closed screen loses it; null forgets it. */
export function keepDraft(pageId: string, draft: SourceDraft | null): void {
  if (draft)
    keepHere(keyOf(pageId), JSON.stringify({ base: toStored(STORED.page, draft.base), text: draft.text }));
  else localStorage.removeItem(keyOf(pageId));
}
