import type { Canvas } from './landscape.ts';

const n = (value: number) => value.toFixed(1);

/** A drawing in units of its own height (100), put with its feet at (x, y). */
function put(x: number, y: number, tall: number, drawing: string, mirrored = false): string {
  const scale = tall / 100;
  return `<g transform="translate(${n(x)} ${n(y)}) scale(${n(mirrored ? -scale * 100 : scale * 100)} ${n(scale * 100)}) scale(.01)">${drawing}</g>`;
}

export function heron({ palette }: Canvas, x: number, y: number, tall: number, mirrored = false): string {
  return put(
    x,
    y,
    tall,
    `<g fill="${palette.figure}" stroke="${palette.figure}" stroke-linecap="round"><path d="M-3 0V-36M4 0V-34" stroke-width="1.8" fill="none"/><path d="M-14 -30C-20 -46 -8 -58 4 -60C15 -61 22 -52 17 -42C13 -33 2 -29 -14 -30Z" stroke="none"/><path d="M8 -58C16 -66 4 -74 6 -84C7 -90 12 -93 16 -91" fill="none" stroke-width="4.6"/><path d="M13 -94C17 -96 21 -93 22 -90L38 -88L22 -87C18 -86 13 -88 13 -94Z" stroke="none"/><path d="M14 -93L2 -96" stroke-width="1.2"/></g>`,
    mirrored,
  );
}

export function bittern({ palette }: Canvas, x: number, y: number, tall: number, mirrored = false): string {
  const streaks = Array.from({ length: 9 }, (_, at) => `M${-12 + at * 2.6} ${-30 - at * 4}l2 13`).join('');
  return put(
    x,
    y,
    tall,
    `<path d="M-4 0V-22M6 0V-22" stroke="${palette.figure}" stroke-width="2.6"/><path d="M-18 -18C-20 -38 -8 -52 0 -62C4 -68 3 -78 6 -84L9 -99L14 -84C19 -76 16 -66 17 -56C20 -40 16 -24 6 -19Z" fill="${palette.head}"/><path d="${streaks}" stroke="${palette.figure}" stroke-width="1.4" opacity=".7" fill="none"/><circle cx="11" cy="-80" r="1.3" fill="${palette.sun}"/>`,
    mirrored,
  );
}

export function person(
  { palette }: Canvas,
  x: number,
  y: number,
  tall: number,
  carries: 'nothing' | 'reeds' | 'glass' = 'nothing',
  mirrored = false,
): string {
  const extra = {
    nothing: '',
    reeds: `<path d="M-30 -70L28 -92M-30 -66L30 -88M-29 -74L26 -96" stroke="${palette.reeds[0]}" stroke-width="4"/>`,
    glass: `<path d="M6 -88L18 -90" stroke="${palette.figure}" stroke-width="5"/>`,
  }[carries];
  return put(
    x,
    y,
    tall,
    `<g fill="${palette.figure}" stroke="${palette.figure}" stroke-linecap="round" stroke-linejoin="round"><circle cx="0" cy="-92" r="8" stroke="none"/><path d="M-9 -80H9L12 -46H-12Z" stroke-width="4"/><path d="M-6 -46L-8 -2M6 -46L9 -2" stroke-width="8" fill="none"/><path d="M-10 -77L-16 -52M10 -77L${carries === 'glass' ? '10 -88' : '17 -54'}" stroke-width="5" fill="none"/></g>${extra}`,
    mirrored,
  );
}

/** A bird hide on stilts, with its long window. */
export function hide({ palette }: Canvas, x: number, y: number, tall: number): string {
  const [light, dark] = palette.plank;
  const boards = Array.from({ length: 13 }, (_, at) => `M${-50 + at * 8} -70V-24`).join('');
  return put(
    x,
    y,
    tall,
    `<path d="M-44 0V-26M-15 0V-26M15 0V-26M44 0V-26" stroke="${dark}" stroke-width="5"/><path d="M-52 -24H52V-72H-52Z" fill="${light}"/><path d="${boards}" stroke="${dark}" stroke-width=".9" opacity=".6"/><path d="M-42 -60H42V-49H-42Z" fill="${palette.figure}"/><path d="M-60 -70L0 -100L60 -70Z" fill="${dark}"/><path d="M52 -24L84 0" stroke="${light}" stroke-width="5"/>`,
  );
}

export function flock(
  { palette, random }: Canvas,
  x: number,
  y: number,
  count: number,
  spread: number,
): string {
  const birds = Array.from({ length: count }, () => {
    const [bx, by, s] = [
      x + random.between(-spread, spread),
      y + random.between(-spread, spread) * 0.4,
      random.between(4, 10),
    ];
    return `M${n(bx - s)} ${n(by - s * 0.3)}Q${n(bx - s * 0.4)} ${n(by - s * 0.6)} ${n(bx)} ${n(by)}Q${n(bx + s * 0.4)} ${n(by - s * 0.6)} ${n(bx + s)} ${n(by - s * 0.2)}`;
  });
  return `<path d="${birds.join('')}" fill="none" stroke="${palette.figure}" stroke-width="1.7" stroke-linecap="round"/>`;
}

/** The sluice with the eel pass: a wall, a gate, and a brush-lined ramp beside it. */
export function sluice({ palette, width, height, horizon }: Canvas): string {
  const [light, dark] = palette.plank;
  const top = horizon + 20;
  const brushes = Array.from({ length: 60 }, (_, at) => {
    const t = at / 60;
    return `M${n(600 + t * 190)} ${n(top + 40 + t * (height - top - 90))}l9 -14`;
  }).join('');
  return `<path d="M180 ${n(top)}H${width - 160}V${height}H180Z" fill="#8d9290"/><path d="M180 ${n(top)}H${width - 160}v16H180Z" fill="#b4b9b5"/><path d="M330 ${n(top + 16)}H520V${height}H330Z" fill="${dark}"/><path d="M345 ${n(top - 70)}V${n(top + 130)}M505 ${n(top - 70)}V${n(top + 130)}M340 ${n(top - 66)}H510" stroke="${palette.figure}" stroke-width="9" fill="none"/><path d="M348 ${n(top + 30)}H502V${n(top + 130)}H348Z" fill="${light}"/><path d="M590 ${n(top + 30)}L800 ${height - 40}H860L650 ${n(top + 30)}Z" fill="#5b625f"/><path d="${brushes}" stroke="${palette.reeds[1]}" stroke-width="4"/>`;
}
