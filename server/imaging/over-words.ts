import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { create, type Font } from 'fontkit';
import type { Size } from '#core/media/dimensions.ts';
import { type OverWords, type SetLine, type SetWords, setWords } from '#core/media/over-words.ts';

/** The very files that the browser sets words with: as they stand, they are at weight 600 and width 100. */
const FILES = ['latin', 'latin-ext'].map(
  (part) => `@fontsource-variable/archivo/files/archivo-${part}-wdth-normal.woff2`,
);

let faces: readonly Font[] | null = null;

function loadedFaces(): readonly Font[] {
  const { resolve } = createRequire(import.meta.url);
  faces ??= FILES.map((file) => create(readFileSync(resolve(file)))).filter(
    (face): face is Font => face.type !== 'TTC' && face.type !== 'DFont',
  );
  return faces;
}

/** Words over a picture of a size in px, as a drawing: outlines only, so that no machine sets them otherwise. */
export function drawnWords(words: OverWords, size: Size): Buffer {
  const set = setWords(words, size);
  const plates = words.plate ? set.lines.map(({ box }) => plate(box, words.plate ?? '')) : [];
  const lines = set.lines.map((line) => outlined(line, set));
  const { width, height } = size;
  return Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${plates.join('')}<g fill="${words.ink}">${lines.join('')}</g></svg>`,
  );
}

function plate({ left, top, width, height }: SetLine['box'], colour: string): string {
  return `<rect x="${left}" y="${top}" width="${width}" height="${height}" fill="${colour}"/>`;
}

/** A line of text as outlines, beginning at a place, at a size in px. */
export function outlinedText(
  text: string,
  { x, baseline, em }: { readonly x: number; readonly baseline: number; readonly em: number },
): string {
  return outlined({ text, x, baseline }, { em, anchor: 'start' });
}

function outlined(
  { text, x, baseline }: Pick<SetLine, 'text' | 'x' | 'baseline'>,
  { em, anchor }: Pick<SetWords, 'em' | 'anchor'>,
): string {
  let at = 0;
  const glyphs: string[] = [];
  for (const { face, part } of inFaces(text)) {
    const scale = em / face.unitsPerEm;
    const run = face.layout(part);
    for (const [index, glyph] of run.glyphs.entries()) {
      const position = run.positions[index];
      const left = at + (position?.xOffset ?? 0) * scale;
      glyphs.push(
        `<path transform="translate(${left} 0) scale(${scale} ${-scale})" d="${glyph.path.toSVG()}"/>`,
      );
      at += (position?.xAdvance ?? glyph.advanceWidth) * scale;
    }
  }
  const start = anchor === 'start' ? x : anchor === 'end' ? x - at : x - at / 2;
  return `<g transform="translate(${start} ${baseline})">${glyphs.join('')}</g>`;
}

/** A line in stretches of letters that one file has. */
function inFaces(text: string): readonly { readonly face: Font; readonly part: string }[] {
  const parts: { face: Font; part: string }[] = [];
  for (const letter of text) {
    const face = faceFor(letter.codePointAt(0) ?? 0);
    const last = parts.at(-1);
    if (last?.face === face) last.part += letter;
    else parts.push({ face, part: letter });
  }
  return parts;
}

function faceFor(codePoint: number): Font {
  const known = loadedFaces();
  const face = known.find((one) => one.hasGlyphForCodePoint(codePoint)) ?? known[0];
  if (!face) throw new Error('the face for words over pictures is not installed');
  return face;
}
