import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readHeard } from './heard.ts';
import { filesShown, filmFault, filmFiles, filmSizes, filmWidths, type HeldFilm, plainFile } from './made.ts';
import {
  type FilmRecipe,
  filmRecipeKey,
  isWhole,
  keptSpans,
  madeAt,
  madeOf,
  madeSeconds,
  madeSize,
  sayFilmRecipe,
  WHOLE_FILM,
} from './recipe.ts';
import { USUAL_FILM_RULES } from './rules.ts';
import { A_FILM } from './testing.ts';
import { readWave, waveLetter } from './wave.ts';

const recipe = (change: Partial<FilmRecipe>): FilmRecipe => ({ ...WHOLE_FILM, ...change });

describe('what stays of a film', () => {
  it.each([
    ['all of it', {}, [[0, 72_000]]],
    ['without its first second', { from: 1000 }, [[1000, 72_000]]],
    ['without its end', { to: 60_000 }, [[0, 60_000]]],
    [
      'without a middle',
      { leftOut: [{ from: 10_000, to: 20_000 }] },
      [
        [0, 10_000],
        [20_000, 72_000],
      ],
    ],
    [
      'parts that overlap are left out once',
      {
        leftOut: [
          { from: 10_000, to: 20_000 },
          { from: 15_000, to: 30_000 },
        ],
      },
      [
        [0, 10_000],
        [30_000, 72_000],
      ],
    ],
    ['an end past its own', { to: 100_000 }, [[0, 72_000]]],
    ['where everything is left out, nothing is', { leftOut: [{ from: 0, to: 72_000 }] }, [[0, 72_000]]],
    ['a beginning behind its end is none', { from: 50_000, to: 40_000 }, [[0, 72_000]]],
  ])('%s', (_what, change, spans) => {
    expect(keptSpans(recipe(change), 72).map(({ from, to }) => [from, to])).toEqual(spans);
  });

  it('is whole only where nothing is left out', () => {
    expect(isWhole(keptSpans(WHOLE_FILM, 72), 72)).toBe(true);
    expect(isWhole(keptSpans(recipe({ from: 500 }), 72), 72)).toBe(false);
  });

  it('never overlaps, lies within the film, and has the length that is said', () => {
    const millis = fc.integer({ min: 0, max: 100_000 });
    const spans = fc.array(fc.record({ from: millis, to: millis }), { maxLength: 6 });
    fc.assert(
      fc.property(millis, fc.option(millis), spans, (from, to, leftOut) => {
        const made = recipe({ from, to, leftOut });
        const kept = keptSpans(made, 72);
        expect(kept.length).toBeGreaterThan(0);
        let last = -1;
        for (const span of kept) {
          expect(span.from).toBeGreaterThan(last);
          expect(span.to).toBeLessThanOrEqual(72_000);
          expect(span.to).toBeGreaterThan(span.from);
          last = span.to - 1;
        }
        const whole = madeOf(kept, [{ from: 0, to: 72_000 }]);
        expect(whole[0]?.to).toBe(Math.round(madeSeconds(made, 72) * 1000));
      }),
    );
  });

  it('has captions where what they say is seen', () => {
    const spans = keptSpans(recipe({ from: 1000, leftOut: [{ from: 10_000, to: 20_000 }] }), 72);
    const cues = [
      { from: 0, to: 900, text: 'gone with the first second' },
      { from: 500, to: 2000, text: 'begins with the film' },
      { from: 9000, to: 12_000, text: 'ends where it is cut' },
      { from: 12_000, to: 18_000, text: 'gone' },
      { from: 30_000, to: 32_000, text: 'later' },
    ];
    expect(madeOf(spans, cues)).toEqual([
      { from: 0, to: 1000, text: 'begins with the film' },
      { from: 8000, to: 9000, text: 'ends where it is cut' },
      { from: 19_000, to: 21_000, text: 'later' },
    ]);
    expect(madeAt(spans, 30_000)).toBe(19_000);
    expect(madeAt(spans, 15_000)).toBeNull();
  });
});

describe('what is made of a film', () => {
  it('is as wide as sharp screens show it, and no wider than it is', () => {
    expect(filmWidths(1920, [720])).toEqual([1440, 720]);
    expect(filmWidths(1920, [720, 640, 500])).toEqual([1440, 1000, 720]);
    expect(filmWidths(1920, [400])).toEqual([800, 720]);
    expect(filmWidths(1000, [720])).toEqual([1000, 720]);
    expect(filmWidths(333, [720])).toEqual([334]);
    expect(filmSizes({ film: A_FILM, recipe: WHOLE_FILM }, [720])).toEqual([
      { width: 1440, height: 810 },
      { width: 720, height: 406 },
    ]);
  });

  it('is turned, then cropped', () => {
    const crop = { left: 0, top: 0.25, width: 1, height: 0.5 };
    expect(madeSize({ turn: 90, crop }, { width: 1920, height: 1080 })).toEqual({ width: 1080, height: 960 });
  });

  it('has a key that says what is done, and not which still shows it', () => {
    expect(filmRecipeKey(recipe({ still: 4000 }))).toBe('plain');
    expect(filmRecipeKey(recipe({ from: 1000, turn: 90, isLevelled: true }))).toBe('t1000-_r90_l');
    expect(sayFilmRecipe(recipe({ from: 1000, turn: 90, isLevelled: true }))).toBe(
      'first 1.0 s left out, turned 90°, sound at −16 LUFS',
    );
    expect(sayFilmRecipe(WHOLE_FILM)).toBe('');
  });

  const made = (format: 'mp4' | 'webm', width: number, bytes: number) => ({
    ...{ format, width, bytes, height: width / 2 },
    codecs: format === 'mp4' ? 'avc1.640028, mp4a.40.2' : 'av01.0.08M.08, opus',
  });
  const held: HeldFilm = {
    film: A_FILM,
    recipe: WHOLE_FILM,
    made: [made('mp4', 720, 2), made('webm', 720, 1), made('mp4', 1440, 5), made('webm', 1440, 6)],
  };

  it('goes out with the smaller container first, and the narrower file for phones', () => {
    const files = filmFiles('eel-pass', 'mp4', held);
    expect(filesShown(files, 720, USUAL_FILM_RULES).map(({ fileName, media }) => [fileName, media])).toEqual([
      ['eel-pass--1440.mp4', '(min-width: 481px)'],
      ['eel-pass--1440.webm', '(min-width: 481px)'],
      ['eel-pass--720.webm', ''],
      ['eel-pass--720.mp4', ''],
    ]);
    expect(filesShown(files, 300, USUAL_FILM_RULES).map(({ fileName }) => fileName)).toEqual([
      'eel-pass--720.webm',
      'eel-pass--720.mp4',
    ]);
    expect(plainFile(files)?.fileName).toBe('eel-pass--1440.mp4');
    expect(files[0]?.type).toBe('video/mp4; codecs="avc1.640028, mp4a.40.2"');
  });

  it('goes out as it came while nothing is made, and not at all where something is left out', () => {
    expect(filmFiles('eel-pass', 'mov', { ...held, made: [] }).map(({ fileName }) => fileName)).toEqual([
      'eel-pass.mov',
    ]);
    expect(filmFiles('eel-pass', 'mov', { ...held, recipe: recipe({ from: 1 }), made: [] })).toEqual([]);
    expect(filmFault({ ...held, recipe: recipe({ from: 1 }), made: [] })).toBe('not-made');
    expect(filmFault({ ...held, film: { ...A_FILM, format: 'mkv' }, made: [] })).toBe('not-played');
    expect(filmFault({ ...held, made: [] })).toBeNull();
  });

  it('of sound alone is sound', () => {
    const sound = {
      ...held,
      film: { ...A_FILM, picture: null },
      made: [{ ...made('webm', 0, 1), codecs: 'opus' }],
    };
    expect(filmFiles('boom', 'mp3', sound)).toMatchObject([
      { fileName: 'boom--sound.webm', type: 'audio/webm; codecs="opus"' },
    ]);
  });
});

describe('what is heard in a film', () => {
  const SAID = `[silencedetect @ 0x1] silence_start: 3.2
[silencedetect @ 0x1] silence_end: 5.5 | silence_duration: 2.3
[silencedetect @ 0x1] silence_start: 70.25
  Integrated loudness:
    I:         -23.4 LUFS
    Threshold: -33.5 LUFS
  True peak:
    Peak:       -4.2 dBFS
`;
  it('is read from what ffmpeg says', () => {
    expect(readHeard(SAID, 72)).toEqual({
      lufs: -23.4,
      peak: -4.2,
      silences: [
        { from: 3200, to: 5500 },
        { from: 70_250, to: 72_000 },
      ],
    });
    expect(readHeard('', 72)).toEqual({ lufs: null, peak: null, silences: [] });
    expect(readHeard('    I:         -70.0 LUFS\n    Peak:       -inf dBFS', 72)).toMatchObject({
      lufs: null,
      peak: null,
    });
  });

  it('is drawn by letters, from silence to full loudness', () => {
    expect(
      readWave([0, 0.001, 0.5, 1, 2].map(waveLetter).join('')).map((one) => Math.round(one * 10) / 10),
    ).toEqual([0, 0, 0.9, 1, 1]);
    expect(readWave('A ?')).toEqual([0, 0, 0]);
  });
});
