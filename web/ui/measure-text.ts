let canvas: CanvasRenderingContext2D | null = null;

/** How wide a text is in px in a font, as CSS writes it ("600 16px Arial"). */
export function measureText(text: string, font: string): number {
  canvas ??= document.createElement('canvas').getContext('2d');
  if (!canvas) return text.length * 8;
  canvas.font = font;
  return canvas.measureText(text).width;
}
