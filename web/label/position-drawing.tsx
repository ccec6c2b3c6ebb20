import type { Position } from '#core/page/blocks/placement/schema.ts';

/** Each position as a small drawing of its result: lines of text, and the piece among them. */
const DRAWINGS: Readonly<
  Record<Position, { readonly piece: readonly [number, number, number, number]; readonly lines: string }>
> = {
  'beside-left': { piece: [3, 3, 8, 7], lines: 'M13 4h8M13 7h8M13 10h8M3 14h18M3 17h18' },
  'beside-right': { piece: [13, 3, 8, 7], lines: 'M3 4h8M3 7h8M3 10h8M3 14h18M3 17h18' },
  centred: { piece: [7, 5, 10, 7], lines: 'M4 2.500h16M4 15h16M4 18h16' },
  column: { piece: [4, 5, 16, 7], lines: 'M4 2.500h16M4 15h16M4 18h16' },
  breakout: { piece: [1.5, 5, 21, 7], lines: 'M5 2.500h14M5 15h14M5 18h14' },
  bleed: { piece: [0, 5, 24, 9], lines: 'M6 2.500h12M6 17h12' },
};

export function PositionDrawing({ position }: { readonly position: Position }) {
  const { piece, lines } = DRAWINGS[position];
  const [x, y, width, height] = piece;
  return (
    <svg
      className="h-5 w-5.5 fill-current stroke-current stroke-[1.6]"
      viewBox="0 0 24 20"
      aria-hidden="true"
    >
      <path d={lines} fill="none" />
      <rect x={x} y={y} width={width} height={height} stroke="none" />
    </svg>
  );
}
