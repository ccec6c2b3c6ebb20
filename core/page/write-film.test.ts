import { describe, expect, it } from 'vitest';
import { WHOLE_FILM } from '../film/recipe.ts';
import { A_FILM } from '../film/testing.ts';
import { newPlacement } from './blocks/placement/schema.ts';
import type { OfKind } from './piece.ts';
import { examplePage, examplePiece, PLAIN_RULES, placed } from './testing.ts';
import { cutsOfPage, writeFragment } from './write.ts';

function written(
  of: Partial<Extract<OfKind, { kind: 'film' }>> = {},
  rules: Partial<typeof PLAIN_RULES> = {},
) {
  const held = {
    ...{
      kind: 'film' as const,
      film: A_FILM,
      captions: ['en'],
      outOfStep: [],
      chapters: [],
      transcripts: [],
    },
    ...{ recipe: WHOLE_FILM, made: [] },
    ...of,
  };
  const piece = examplePiece({ extension: 'mp4' }, held);
  const page = examplePage(placed(newPlacement('one', piece.id)));
  const context = {
    rules: { ...PLAIN_RULES, ...rules },
    pieces: new Map([[piece.id, piece]]),
    addressOf: ({ fileName }: { readonly fileName: string }) => `media/${fileName}`,
    fileOf: (name: string) => `files/${name}`,
  };
  return { html: writeFragment(page, context), cuts: cutsOfPage(page, context) };
}

const without = (...dropped: string[]) => ({
  sending: { ...PLAIN_RULES.sending, filter: { dropped, unwrapped: [], attributes: [], styles: [] } },
});

describe('a film on a page', () => {
  it('has sources for sharp screens and for phones, the smaller container first, its captions and a link', () => {
    const made = (format: 'mp4' | 'webm', width: number, bytes: number) => ({
      ...{ format, width, bytes, height: (width * 9) / 16 },
      codecs: format === 'mp4' ? 'avc1.640028, mp4a.40.2' : 'av01.0.08M.08, opus',
    });
    const { html } = written({
      made: [made('mp4', 1440, 9), made('webm', 1440, 5), made('mp4', 720, 4), made('webm', 720, 2)],
    });
    const sources = [...html.matchAll(/<source src="([^"]+)" type="([^"]+)"(?: media="([^"]+)")?>/g)];
    expect(sources.map(([, src, , media]) => [src?.replace(/^.*--/, ''), media])).toEqual([
      ['1440.webm', '(min-width: 481px)'],
      ['1440.mp4', '(min-width: 481px)'],
      ['720.webm', undefined],
      ['720.mp4', undefined],
    ]);
    expect(sources[0]?.[2]).toBe('video/webm; codecs=&quot;av01.0.08M.08, opus&quot;');
    expect(html).toMatch(/<track kind="captions" src="files\/[^"]+\.en\.vtt" srclang="en"/);
    expect(html).toMatch(/<a href="files\/[^"]+--1440\.mp4">/);
  });

  it('takes no WebM where the target wants none', () => {
    const made = [
      { format: 'webm' as const, width: 720, height: 406, bytes: 2, codecs: 'opus' },
      { format: 'mp4' as const, width: 720, height: 406, bytes: 4, codecs: 'avc1.640028' },
    ];
    const { html } = written({ made }, { films: { ...PLAIN_RULES.films, takesWebm: false } });
    expect(html).not.toContain('webm');
  });

  it('is its still, which leads to its file, where the target keeps no player', () => {
    const { html, cuts } = written({}, without('video'));
    expect(html).not.toMatch(/<video|<track/);
    expect(html).toMatch(/<a href="files\/[^"]+\.mp4" type="video\/mp4"><span class="file-page"><picture>/);
    // In all its sizes, as any picture.
    expect(cuts.length).toBeGreaterThan(1);
    expect(written({}, without('audio')).html).toContain('<video');
    const sound = written({ film: { ...A_FILM, format: 'mp3', picture: null } }, without('audio'));
    expect(sound.html).toMatch(/<a href="files\/[^"]+\.mp4" type="audio\/mpeg"><span class="file">/);
    expect(sound.html).not.toContain('<picture');
  });

  it('names no file while it is to be another than it came and is not made yet', () => {
    const { html } = written({ recipe: { ...WHOLE_FILM, from: 1000 } });
    expect(html).not.toMatch(/<source|[.]mp4/);
  });

  it('says its transcript in the page’s language, else in its own', () => {
    const texts = (language: string) => [
      { kind: 'transcript' as const, language, cues: [{ from: 0, to: 1, text: 'Ni all llysywod neidio.' }] },
    ];
    expect(written({ texts: texts('cy') }).html).toContain(
      '<div lang="cy"><p>Ni all llysywod neidio.</p></div>',
    );
    expect(written({ texts: texts('en') }).html).toContain('<summary>Transcript</summary>\n<div><p>');
  });
});
