import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Cue } from './cue.ts';
import {
  begunAt,
  joinedWithNext,
  movedTo,
  parted,
  readTranscript,
  remedyOf,
  sayRemedyOf,
  transcriptOf,
  transcriptText,
  withEdge,
  without,
  withText,
} from './edit-cues.ts';
import { judgeCue, USUAL_CAPTIONS } from './judge-cues.ts';

const CUES: readonly Cue[] = [
  { from: 6200, to: 8900, text: 'Eels cannot jump.' },
  { from: 9400, to: 12_700, text: 'What they can do is climb,\nif there is something wet and rough.' },
  { from: 17_500, to: 19_000, text: '[water over stones]' },
];

describe('captions that are worked on', () => {
  it('move an edge, never past the other one', () => {
    expect(withEdge(CUES, 0, 'to', 9300).cues[0]?.to).toBe(9300);
    expect(withEdge(CUES, 0, 'from', 20_000).cues[0]).toMatchObject({ from: 8800, to: 8900 });
    expect(withEdge(CUES, 0, 'to', 0).cues[0]).toMatchObject({ from: 6200, to: 6300 });
    expect(withEdge(CUES, 0, 'from', -50).cues[0]?.from).toBe(0);
  });

  it('come in the order of time wherever one is moved to, and keep it in sight', () => {
    const moved = movedTo(CUES, 0, 13_000);
    expect(moved.cues.map(({ from }) => from)).toEqual([9400, 13_000, 17_500]);
    expect(moved.at).toBe(1);
    expect(moved.cues[1]?.to).toBe(15_700);
  });

  it('begin where it plays, and end before the next', () => {
    expect(begunAt(CUES, 13_000, 72_000)).toMatchObject({ at: 2 });
    expect(begunAt(CUES, 13_000, 72_000).cues[2]).toEqual({ from: 13_000, to: 15_000, text: '' });
    expect(begunAt(CUES, 16_800, 72_000).cues[2]).toEqual({ from: 16_800, to: 17_500, text: '' });
    expect(begunAt([], 72_000, 72_000).cues).toEqual([{ from: 71_900, to: 72_000, text: '' }]);
  });

  it('are parted, joined and removed', () => {
    expect(parted(CUES, 1).cues).toHaveLength(4);
    expect(parted([{ from: 0, to: 1, text: 'Eels' }], 0).cues).toHaveLength(1);
    expect(joinedWithNext(CUES, 0, USUAL_CAPTIONS).cues[0]).toMatchObject({ from: 6200, to: 12_700 });
    expect(joinedWithNext(CUES, 2, USUAL_CAPTIONS).cues).toEqual(CUES);
    expect(without(CUES, 2)).toMatchObject({ at: 1 });
    expect(without([CUES[0] ?? never()], 0)).toEqual({ cues: [], at: null });
  });

  it.each<[string, readonly Cue[], string]>([
    [
      'too fast, with room behind it',
      [{ from: 0, to: 1000, text: 'So we built them a ramp of brushes here' }],
      'Give it until 1950',
    ],
    [
      'lines too long',
      [{ from: 0, to: 6000, text: 'So we built them a ramp of brushes out of what was in the shed' }],
      'Set its lines anew',
    ],
    ['too short', [{ from: 0, to: 300, text: 'Eels' }], 'Give it a second'],
    ['too long', [{ from: 0, to: 9000, text: 'Eels' }], 'End it earlier'],
    [
      'overlapping',
      [
        { from: 0, to: 2000, text: 'Eels' },
        { from: 1500, to: 3000, text: 'climb' },
      ],
      'End it before the next',
    ],
    ['saying nothing', [{ from: 0, to: 2000, text: ' ' }], 'Remove it'],
  ])('are mended where one is %s', (_what, cues, says) => {
    const [fault] = judgeCue(cues, 0);
    if (!fault) throw new Error('Nothing is wrong with it.');
    expect(sayRemedyOf(fault, String)).toBe(says);
    const mended = remedyOf(cues, 0, fault, USUAL_CAPTIONS)?.();
    expect(mended && judgeCue(mended.cues, 0).some(({ code }) => code === fault.code)).toBe(false);
  });

  it('stay in order and whole whatever is done to them', () => {
    const cue = fc.record({
      from: fc.nat(50_000),
      length: fc.integer({ min: 100, max: 5000 }),
      text: fc.string(),
    });
    const deed = fc.tuple(fc.integer({ min: 0, max: 6 }), fc.nat(10), fc.nat(60_000));
    fc.assert(
      fc.property(fc.array(cue, { maxLength: 8 }), fc.array(deed, { maxLength: 12 }), (made, deeds) => {
        let cues: readonly Cue[] = made
          .map(({ from, length, text }) => ({ from, to: from + length, text }))
          .sort((one, other) => one.from - other.from);
        for (const [kind, at, moment] of deeds) {
          const place = cues.length === 0 ? 0 : at % cues.length;
          cues =
            [
              () => withText(cues, place, 'words'),
              () => withEdge(cues, place, 'from', moment),
              () => withEdge(cues, place, 'to', moment),
              () => movedTo(cues, place, moment),
              () => begunAt(cues, moment, 60_000),
              () => parted(cues, place),
              () => joinedWithNext(cues, place, USUAL_CAPTIONS),
            ][kind]?.().cues ?? cues;
        }
        expect(cues.every(({ from, to }) => from >= 0 && to > from)).toBe(true);
        expect(cues.every(({ from }, at) => at === 0 || from >= (cues[at - 1]?.from ?? 0))).toBe(true);
      }),
    );
  });
});

describe('a transcript', () => {
  it('is made of captions, a paragraph wherever nothing is said for a while', () => {
    expect(transcriptOf(CUES).map(({ text }) => text)).toEqual([
      'Eels cannot jump. What they can do is climb, if there is something wet and rough.',
      '[water over stones]',
    ]);
  });

  it('is written in as text, and keeps its times', () => {
    const made = transcriptOf(CUES);
    expect(readTranscript(transcriptText(made), made)).toEqual(made);
    expect(readTranscript('One.\n\nTwo,\nand more.\n\n\nThree.', made).map(({ text }) => text)).toEqual([
      'One.',
      'Two, and more.',
      'Three.',
    ]);
  });
});

function never(): never {
  throw new Error('It is not there.');
}
