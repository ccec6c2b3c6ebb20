import type { EmbedShape } from './host.ts';
import { HEIGHT_LIMITS } from './limits.ts';

/** A shape as a person types it: "16:9", "4 x 3" or "4/3" keeps its shape, "520" or "520 px" is a height. Undefined for anything else. */
export function readShape(text: string): EmbedShape | undefined {
  const ratio = /^\s*(\d{1,4})\s*[:/x×]\s*(\d{1,4})\s*$/i.exec(text);
  if (ratio) {
    const [across, down] = [Number(ratio[1]), Number(ratio[2])];
    return across > 0 && down > 0 ? { kind: 'ratio', across, down } : undefined;
  }
  const px = Number(/^\s*(\d{2,4})\s*(px)?\s*$/i.exec(text)?.[1]);
  return px >= HEIGHT_LIMITS.least && px <= HEIGHT_LIMITS.most ? { kind: 'height', px } : undefined;
}

/** "16 : 9", "520 px". */
export function sayShape(shape: EmbedShape): string {
  return shape.kind === 'ratio' ? `${shape.across} : ${shape.down}` : `${shape.px} px`;
}
