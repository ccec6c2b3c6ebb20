import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CORPUS } from './corpus.ts';
import { EMBED_FORMS, type EmbedForm } from './forms.ts';
import { readMarkup } from './markup.ts';
import type { Embed } from './model.ts';
import { readPasted } from './reading.ts';
import { HOSTS, mutations, TARGET } from './testing.ts';
import { writeEmbed } from './write.ts';

const POSTER = { address: 'eel-pass.jpg', width: 1280, height: 720 };
const write = (form: EmbedForm, embed: Embed) =>
  writeEmbed(form, { embed, target: TARGET, hosts: HOSTS, poster: POSTER });

/** What may stand in the code that goes out. */
const WRITTEN: Readonly<Record<string, readonly string[]>> = {
  iframe: [
    'title',
    'src',
    'srcdoc',
    'width',
    'height',
    'style',
    'loading',
    'allow',
    'sandbox',
    'referrerpolicy',
    'data-height',
  ],
  a: ['href', 'class'],
  img: ['src', 'width', 'height', 'alt', 'loading', 'decoding'],
  video: ['controls', 'preload', 'src', 'aria-label', 'poster', 'width', 'height', 'style'],
  audio: ['controls', 'preload', 'src', 'aria-label', 'style'],
  div: ['class', 'style'],
  p: ['class'],
  span: [],
  template: [],
};

function expectSafe(embed: Embed): void {
  for (const form of EMBED_FORMS) {
    for (const piece of readMarkup(write(form, embed))) {
      if (piece.kind !== 'start') continue;
      const named = WRITTEN[piece.name];
      expect(named, piece.name).toBeDefined();
      for (const { name, value } of piece.attributes) {
        expect(named).toContain(name);
        if (name === 'src' || name === 'href') expect(value).toMatch(/^(https:\/\/|eel-pass\.jpg$)/);
      }
    }
  }
}

describe('whatever was pasted', () => {
  const embeds = Object.values(CORPUS)
    .flat()
    .flatMap(({ name, text }) => readPasted(text, HOSTS).embeds.map(({ embed }) => ({ name, embed })));

  it.each(embeds)('of $name only named elements with safe addresses go out', ({ embed }) => {
    expectSafe(embed);
  });

  it('however it was cut and mixed, nothing else goes out', () => {
    fc.assert(
      fc.property(mutations(), (text) => {
        for (const { embed } of readPasted(text, HOSTS).embeds) expectSafe(embed);
      }),
      { numRuns: 800, seed: 17 },
    );
  });

  it('is marked in order inside the text, and never ends the reading', () => {
    fc.assert(
      fc.property(mutations(), (text) => {
        let end = 0;
        for (const mark of readPasted(text, HOSTS).marks) {
          expect(mark.from).toBeGreaterThanOrEqual(end);
          expect(mark.to).toBeLessThanOrEqual(text.length);
          end = mark.to;
        }
      }),
      { numRuns: 1500, seed: 71 },
    );
  });
});
