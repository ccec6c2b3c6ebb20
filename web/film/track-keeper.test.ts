import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { CaptionTrack } from '#api/captions.ts';
import { withText } from '#core/film/edit-cues.ts';
import { ApiProblem } from '../api/client.ts';
import { ledger } from '../undo/ledger.ts';
import { readTyped, shortTime } from './say-time.ts';
import { TrackKeeper } from './track-keeper.ts';

const keepTrack = vi.fn<(id: string, track: CaptionTrack) => Promise<CaptionTrack>>();
const removeTrack = vi.fn<(id: string, track: Pick<CaptionTrack, 'kind' | 'language'>) => Promise<void>>();
const lookAgain = vi.fn<() => Promise<void>>(() => Promise.resolve());
vi.mock('./tracks.ts', () => ({
  keepTrack: (id: string, track: CaptionTrack) => keepTrack(id, track),
  removeTrack: (id: string, track: CaptionTrack) => removeTrack(id, track),
  lookAgain: () => lookAgain(),
}));

const TRACK: CaptionTrack = {
  kind: 'captions',
  language: 'en',
  version: 3,
  cues: [{ from: 0, to: 1000, text: 'Eels cannot jump.' }],
};

beforeEach(() => {
  vi.useFakeTimers();
  keepTrack.mockReset();
  removeTrack.mockReset();
  keepTrack.mockImplementation((_id, track) => Promise.resolve({ ...track, version: track.version + 1 }));
});
afterEach(() => vi.useRealTimers());

const keeperOf = () => new TrackKeeper('film', TRACK);
const write = (keeper: TrackKeeper, text: string) =>
  keeper.edit(withText(keeper.store.state.cues, 0, text), 'writing a caption');

describe('captions that are worked on', () => {
  it('are kept once for changes made in one go, each on the version before', async () => {
    const keeper = keeperOf();
    write(keeper, 'One');
    write(keeper, 'Two');
    expect(keeper.store.state.keeping).toBe('keeping');
    await vi.advanceTimersByTimeAsync(1000);
    expect(keepTrack.mock.calls.map(([, { version, cues }]) => [version, cues[0]?.text])).toEqual([
      [3, 'Two'],
    ]);
    expect(keeper.store.state.keeping).toBe('kept');
    write(keeper, 'Three');
    await keeper.flush();
    expect(keepTrack.mock.calls[1]?.[1].version).toBe(4);
  });

  it('come back by an undo, which is kept too', async () => {
    const keeper = keeperOf();
    write(keeper, 'One');
    await keeper.flush();
    await ledger.undo();
    expect(keeper.store.state.cues[0]?.text).toBe('Eels cannot jump.');
    await keeper.flush();
    expect(keepTrack.mock.calls.at(-1)?.[1].cues[0]?.text).toBe('Eels cannot jump.');
    await ledger.redo();
    expect(keeper.store.state.cues[0]?.text).toBe('One');
  });

  it('that somebody else changed meanwhile are shown as a clash: nothing goes over theirs unless it is wished', async () => {
    keepTrack.mockRejectedValueOnce(new ApiProblem(412, 'Somebody has changed these captions.', null));
    const keeper = keeperOf();
    write(keeper, 'Mine');
    await keeper.flush();
    expect(keeper.store.state).toMatchObject({ keeping: 'clash', cues: [{ text: 'Mine' }] });
    expect(lookAgain).toHaveBeenCalledOnce();
    keeper.keepMine({ ...TRACK, version: 9 });
    await keeper.flush();
    expect(keepTrack.mock.calls.at(-1)?.[1]).toMatchObject({ version: 9, cues: [{ text: 'Mine' }] });
    const other = keeperOf();
    other.takeTheirs({ ...TRACK, version: 7, cues: [{ from: 0, to: 500, text: 'Theirs' }] });
    expect(other.store.state).toMatchObject({ keeping: 'kept', cues: [{ text: 'Theirs' }] });
  });

  it('that cannot be kept say why, and are kept when it is tried again', async () => {
    keepTrack.mockRejectedValueOnce(new ApiProblem(503, 'The house does not answer.', null));
    const keeper = keeperOf();
    write(keeper, 'One');
    await keeper.flush();
    expect(keeper.store.state.keeping).toEqual({ failed: 'The house does not answer.' });
    keeper.keepMine(TRACK);
    await keeper.flush();
    expect(keeper.store.state.keeping).toBe('kept');
  });

  it('of which none is left are removed', async () => {
    const keeper = keeperOf();
    keeper.edit({ cues: [], at: null }, 'removing a caption');
    await keeper.flush();
    expect(keepTrack).not.toHaveBeenCalled();
    expect(removeTrack).toHaveBeenCalledOnce();
    // The next one begins a track anew.
    keeper.edit({ cues: [{ from: 0, to: 1000, text: 'Again' }], at: 0 }, 'beginning a caption');
    await keeper.flush();
    expect(keepTrack.mock.calls[0]?.[1].version).toBe(0);
  });
});

it.each([
  ['1:12.4', 72_400],
  ['0:06,25', 6250],
  ['72', 72_000],
  ['1:01:00', 3_660_000],
  ['a minute', null],
  ['', null],
])('a moment typed as %j is %s', (typed, millis) => {
  expect(readTyped(typed)).toBe(millis);
});

it('a moment is said as the list has it', () => {
  expect([0, 6249, 72_400, 3_660_000].map(shortTime)).toEqual(['0:00.0', '0:06.2', '1:12.4', '1:01:00.0']);
});
