import './over.css';
import type { Size } from '#core/media/dimensions.ts';
import { type OverWords, setWords } from '#core/media/over-words.ts';

const SVG = 'http://www.w3.org/2000/svg';

/** Words over a picture of a size in px, drawn by the account from which the server draws them into a cut. */
export function drawOver(words: OverWords, size: Size): SVGSVGElement {
  const { em, anchor, lines } = setWords(words, size);
  const drawing = element('svg', { viewBox: `0 0 ${size.width} ${size.height}`, 'aria-hidden': 'true' });
  drawing.classList.add('over-drawing', 'block', 'size-full');
  if (words.plate)
    for (const { box } of lines) {
      const { left: x, top: y, width, height } = box;
      drawing.append(element('rect', { x, y, width, height, fill: words.plate }));
    }
  for (const { text, x, baseline } of lines) {
    const line = element('text', {
      x,
      y: baseline,
      'font-size': em,
      'text-anchor': anchor,
      fill: words.ink,
    });
    line.textContent = text;
    drawing.append(line);
  }
  return drawing;
}

function element<Name extends keyof SVGElementTagNameMap>(
  name: Name,
  attributes: Readonly<Record<string, string | number>>,
): SVGElementTagNameMap[Name] {
  const made = document.createElementNS(SVG, name);
  for (const [attribute, value] of Object.entries(attributes)) made.setAttribute(attribute, String(value));
  return made;
}
