import type { PreviewRow } from '#api/runs.ts';
import { AS_IT_CAME } from '#core/media/recipe.ts';

const state = { stem: 'heron', folder: 'hides', title: 'Heron', prep: AS_IT_CAME };

/** A row of a run in which nothing changes yet. */
export function exampleRow(change: Partial<PreviewRow> = {}): PreviewRow {
  return {
    assetId: 'heron',
    before: state,
    after: state,
    files: [],
    warnings: [],
    leftOut: null,
    thumb: '',
    originalName: 'IMG_0612.JPG',
    width: 6000,
    height: 4000,
    bytes: 9_000_000,
    ...change,
  };
}
