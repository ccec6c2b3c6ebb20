import { describe, expect, it } from 'vitest';
import { type Cue, readTime, writeTime, writeVtt } from './cue.ts';
import { balanced, judgeCue, mendCues, partOf, sayCueFault, shifted, USUAL_CAPTIONS } from './judge-cues.ts';
import { readCaptions, sayCaptionFault } from './read-captions.ts';

const cue = (from: number, to: number, text: string): Cue => ({ from, to, text });
const VTT = `WEBVTT - Eels

NOTE made by hand

STYLE
::cue { color: yellow }

1
00:00:06.200 --> 00:00:08.900 align:start position:10%
<v Mara>Eels <i>cannot</i> jump &amp; know it.

00:09.400 --> 00:12.700
What they can do is climb,
if there is something wet and rough.
`;

describe('captions that come in', () => {
  it('are read as WebVTT, without what only says how they look', () => {
    const { cues, faults } = readCaptions(VTT);
    expect(cues).toEqual([
      cue(6200, 8900, 'Mara: Eels cannot jump & know it.'),
      cue(9400, 12_700, 'What they can do is climb,\nif there is something wet and rough.'),
    ]);
    expect(faults.map(sayCaptionFault)).toEqual([
      'Line 5: How captions look is the player’s and the reader’s to say. This was left out.',
    ]);
  });

  it('are read as SRT, with the line breaks of any system', () => {
    const srt =
      '\uFEFF1\r\n00:00:01,500 --> 00:00:03,000\r\n{\\an8}<font color="red">One</font>\r\n\r\n2\r\n00:00:03,5 --> 00:00:05,000\r\nTwo\r\n';
    expect(readCaptions(srt)).toEqual({ cues: [cue(1500, 3000, 'One'), cue(3500, 5000, 'Two')], faults: [] });
  });

  it.each([
    ['no header', '00:01.000 --> 00:02.000\na\n', ['header-missing 1'], 1],
    [
      'a time that is none',
      'WEBVTT\n\n00:01.000 --> 00:99.000\na\n\n00:03.000 --> 00:04.000\nb\n',
      ['time-unreadable 3'],
      1,
    ],
    ['an end before its beginning', 'WEBVTT\n\n00:05.000 --> 00:04.000\na\n', ['ends-before-it-begins 3'], 1],
    [
      'an order of its own',
      'WEBVTT\n\n00:05.000 --> 00:06.000\nb\n\n00:01.000 --> 00:02.000\na\n',
      ['out-of-order 6'],
      2,
    ],
    ['nothing said', 'WEBVTT\n\n00:05.000 --> 00:06.000\n<i></i>\n', ['says-nothing 3'], 0],
    [
      'words without a time',
      'WEBVTT\n\n00:01.000 --> 00:02.000\na\n\nlost words\n',
      ['time-unreadable 6'],
      1,
    ],
  ])('name their fault by its line: %s', (_what, text, faults, count) => {
    const read = readCaptions(text);
    expect(read.faults.map(({ code, line }) => `${code} ${line}`)).toEqual(faults);
    expect(read.cues).toHaveLength(count);
  });

  it('come back from WebVTT as they went out, whatever they say', () => {
    let seed = 7;
    const next = (most: number) => {
      seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648;
      return seed % most;
    };
    const signs = ['a', 'Ä', '&', '<', '>', '-->', '&amp;', '“', '漢', '{\\an8}', '1', ':', '<v x>'];
    for (let run = 0; run < 500; run += 1) {
      let at = 0;
      const cues = Array.from({ length: next(6) }, () => {
        const from = at + next(5000);
        at = from + 1 + next(5000);
        const words = Array.from({ length: 1 + next(5) }, () => signs[next(signs.length)] ?? '');
        return cue(from, at, next(2) === 0 ? words.join(' ') : words.join('\n'));
      });
      // What looks like a place of old subtitles is one, also in words.
      const plain = cues.map((one) => ({ ...one, text: one.text.replaceAll('{\\an8}', 'x') }));
      expect(readCaptions(writeVtt(plain)).cues).toEqual(plain);
    }
  });

  it.each([
    ['01:02:03.004', 3_723_004],
    ['02:03,04', 123_040],
    ['1:2:3.4', 3_723_400],
    ['00:60.000', null],
    ['7', null],
  ])('a time is read: %s', (text, at) => {
    expect(readTime(text)).toBe(at);
    if (at !== null) expect(readTime(writeTime(at))).toBe(at);
  });
});

describe('what is wrong with a caption', () => {
  const codes = (cues: readonly Cue[], at = 0) => judgeCue(cues, at).map(({ code }) => code);
  const LONG = 'So we built them a ramp of brushes, in two thousand and four, out of what was in the shed.';

  it.each<readonly [what: string, cues: readonly Cue[], codes: readonly string[]]>([
    ['nothing', [cue(0, 2700, 'Eels cannot jump.')], []],
    ['nobody reads so fast', [cue(0, 1200, LONG)], ['too-fast', 'line-too-long']],
    ['three lines', [cue(0, 5000, 'a\nb\nc')], ['too-many-lines']],
    ['it is gone at once', [cue(0, 400, 'Oh.')], ['too-short']],
    ['it stays and stays', [cue(0, 9000, 'Eels cannot jump.')], ['too-long']],
    ['the next begins before', [cue(0, 3000, 'One of them.'), cue(2000, 4000, 'b')], ['overlaps']],
    ['it flickers', [cue(0, 2000, 'One of them.'), cue(2040, 4000, 'b')], ['gap-too-small']],
    ['one follows the other at once', [cue(0, 2000, 'One of them.'), cue(2000, 4000, 'b')], []],
  ])('%s', (_what, cues, expected) => {
    expect(codes(cues)).toEqual(expected);
    for (const fault of judgeCue(cues, 0)) expect(sayCueFault(fault)).toMatch(/\.$/);
  });

  it('comes with until when it would have to be seen, where there is room', () => {
    expect(judgeCue([cue(0, 1200, LONG)], 0)[0]).toMatchObject({ until: 4500, canPart: true });
    expect(judgeCue([cue(0, 1200, LONG), cue(3000, 4000, 'b')], 0)[0]).toMatchObject({ until: null });
  });

  it('is mended by parting it, its time with it', () => {
    const parted = partOf(cue(1000, 5000, LONG));
    expect(parted?.map(({ text }) => text)).toEqual(
      ['So we built them a ramp of brushes,\nin two', 'thousand and four, out of what was in\nthe shed.'].map(
        (text) => expect.stringContaining(text.split('\n')[0]?.slice(0, 8) ?? ''),
      ),
    );
    expect(parted?.[0]?.to).toBe(parted?.[1]?.from);
    expect(partOf(cue(0, 1, 'Eels'))).toBeNull();
  });

  it('is mended where that is safe, and says the same words', () => {
    const cues = [
      cue(0, 400, LONG),
      cue(390, 500, 'Oh.'),
      cue(4000, 4500, 'By May the box is full every morning.'),
    ];
    const mended = mendCues(cues);
    expect(mended.map(({ text }) => text.replaceAll('\n', ' '))).toEqual(cues.map(({ text }) => text));
    for (const [at, one] of mended.entries()) {
      expect(one.to).toBeGreaterThan(one.from);
      const next = mended[at + 1];
      if (next) expect(one.to).toBeLessThanOrEqual(next.from);
      for (const line of one.text.split('\n'))
        expect(line.length).toBeLessThanOrEqual(USUAL_CAPTIONS.lineLetters);
    }
    expect(mendCues(mended)).toEqual(mended);
  });

  it.each(['a', LONG, 'Donaudampfschifffahrtsgesellschaft '.repeat(4).trim(), 'x'.repeat(200)])(
    'lines are set anew without losing a letter: %s',
    (text) => expect(balanced(text).replaceAll('\n', ' ')).toBe(text),
  );

  it('all are moved and drawn out together', () => {
    expect(shifted([cue(1000, 2000, 'a')], 500, 2)).toEqual([cue(2500, 4500, 'a')]);
    expect(shifted([cue(1000, 2000, 'a')], -5000)[0]).toMatchObject({ from: 0, to: 1 });
  });
});
