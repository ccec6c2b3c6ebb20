import { describe, expect, it } from 'vitest';
import type { PreviewRow, RunPreview, RunSummary } from '#api/runs.ts';
import { countToLookAt, listed, sayNaming, sayProgress, saySizes, sayTotals } from './run-words.ts';
import { exampleRow } from './testing.ts';

const file = {
  name: 'heron-720.avif',
  recipe: 'whole',
  width: 720,
  height: 480,
  format: 'avif',
  quality: 55,
  bytes: 40_000,
} as const;

const row = exampleRow;
const { before: state } = exampleRow();

const preview = (rows: PreviewRow[]): RunPreview => ({ rows, gone: 0, subjects: [], seen: '' });
const onShelf = { into: 'shelf' } as const;

const run: RunSummary = {
  id: 'one',
  title: 'A run over 40 pieces',
  state: 'running',
  words: 'Under way',
  into: 'shelf',
  createdAt: '2026-11-25T08:00:00.000Z',
  done: 10,
  refused: 2,
  undone: 0,
  of: 40,
  perMinute: 30,
  secondsLeft: 56,
  file: null,
  fileBytes: null,
};

describe('what a run is said to do', () => {
  it('counts files, names and folders, and leaves out what takes no part', () => {
    const rows = [
      row({ files: [file, file], after: { ...state, stem: 'heron-at-dawn' } }),
      row({ after: { ...state, folder: 'events' } }),
      row({ files: [file], leftOut: 'person' }),
    ];
    expect(sayTotals(preview(rows), onShelf)).toBe(
      '2 files to make, about 80 kB from 18.0 MB, 1 to rename, 1 to move',
    );
    expect(sayTotals(preview(rows), { into: 'zip' })).toBe('2 files to make, about 80 kB from 18.0 MB');
    expect(sayTotals(preview([row()]), onShelf)).toBe('Nothing would change yet');
  });

  it('says how many somebody should look at: comps, and what is not merely worth knowing', () => {
    const rows = [
      row({ leftOut: 'comp' }),
      row({ warnings: [{ code: 'stills' }] }),
      row({ warnings: [{ code: 'too-small', wanted: [720] }] }),
    ];
    expect(countToLookAt(preview(rows))).toBe(2);
  });

  it('puts sizes and names into words', () => {
    const presets = [{ id: 'card', name: 'Card', ratio: null, width: 400 }];
    expect(
      saySizes(
        [
          { by: 'preset', preset: 'card' },
          { by: 'long', px: 1200 },
          { by: 'share', percent: 50 },
        ],
        presets,
      ),
    ).toBe('Card 400, 1200 on the long edge and 50%');
    expect(listed([])).toBe('');
    expect(sayNaming(null)).toBe('as they are');
    expect(sayNaming({ by: 'replace', search: 'gull', replace: 'tern', titles: true })).toBe(
      'with “tern” for “gull”',
    );
    expect(
      sayNaming({ by: 'pattern', pattern: [{ part: 'subject' }, { part: 'number' }], which: 'unnamed' }),
    ).toBe('subject-number where they have no name');
  });
});

describe('how far a run is', () => {
  it.each<[Partial<RunSummary>, string]>([
    [{}, '12 of 40, 30 a minute, about 56 s left.'],
    [{ perMinute: null, secondsLeft: null }, '12 of 40.'],
    [{ secondsLeft: 600 }, '12 of 40, 30 a minute, about 10 min left.'],
    [{ state: 'waiting' }, 'Waits for a worker.'],
    [{ state: 'done', words: '40 of 40 done.' }, '40 of 40 done.'],
    [{ state: 'done', done: 0, undone: 40 }, 'Taken back: 40 pictures as they were.'],
  ])('%j: %s', (part, sentence) => {
    expect(sayProgress({ ...run, ...part })).toBe(sentence);
  });
});
