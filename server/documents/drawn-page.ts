import { DOCUMENT_FORMATS, type DocumentFormat } from '#core/document/formats.ts';
import { outlinedText } from '../imaging/over-words.ts';

/** A page of paper upright, in px. */
const [WIDTH, HEIGHT] = [1000, 1414];
const MARGIN = 90;
const LINE_PX = 25;
const TEXT_PX = 16;

/** A first page for what has no picture of its own: what is written at its beginning, and what it is. */
export function drawnPage(format: DocumentFormat, lines: readonly string[]): Buffer {
  const top = MARGIN + 70;
  const written = lines
    .slice(0, Math.floor((HEIGHT - top - MARGIN) / LINE_PX))
    .map((line, at) => outlinedText(line, { x: MARGIN, baseline: top + at * LINE_PX, em: TEXT_PX }))
    .join('');
  const name = outlinedText(DOCUMENT_FORMATS[format].says, { x: MARGIN, baseline: MARGIN, em: 22 });
  return Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" viewBox="0 0 ${WIDTH} ${HEIGHT}"><rect width="${WIDTH}" height="${HEIGHT}" fill="#ffffff"/><g fill="#0f5c4d">${name}</g><rect x="${MARGIN}" y="${MARGIN + 18}" width="${WIDTH - 2 * MARGIN}" height="2" fill="#c9d2d6"/><clipPath id="c"><rect x="${MARGIN}" y="0" width="${WIDTH - 2 * MARGIN}" height="${HEIGHT}"/></clipPath><g fill="#172126" clip-path="url(#c)">${written}</g></svg>`,
  );
}
