import type { Palette } from './palette.ts';
import type { Random } from './random.ts';

/** A painting's canvas in its own units: 1000 wide, as high as its shape asks. `horizon` is a y in them. */
export interface Canvas {
  readonly width: number;
  readonly height: number;
  readonly horizon: number;
  readonly palette: Palette;
  readonly random: Random;
}

const n = (value: number) => value.toFixed(1);

export function sky({ width, horizon, palette }: Canvas): string {
  const [top, middle, low] = palette.sky;
  return `<defs><linearGradient id="sky" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="${top}"/><stop offset=".6" stop-color="${middle}"/><stop offset="1" stop-color="${low}"/></linearGradient></defs>
<rect width="${width}" height="${n(horizon + 2)}" fill="url(#sky)"/>`;
}

export function sun({ palette }: Canvas, x: number, y: number, radius: number): string {
  return `<defs><radialGradient id="glow"><stop offset="0" stop-color="${palette.glow}" stop-opacity=".95"/><stop offset=".35" stop-color="${palette.glow}" stop-opacity=".45"/><stop offset="1" stop-color="${palette.glow}" stop-opacity="0"/></radialGradient></defs>
<circle cx="${n(x)}" cy="${n(y)}" r="${n(radius * 6)}" fill="url(#glow)"/><circle cx="${n(x)}" cy="${n(y)}" r="${n(radius)}" fill="${palette.sun}"/>`;
}

export function clouds({ width, horizon, palette, random }: Canvas, count: number): string {
  return Array.from({ length: count }, () => {
    const [x, y] = [random.between(-50, width), random.between(horizon * 0.05, horizon * 0.6)];
    const long = random.between(80, 240);
    const puffs = Array.from({ length: 7 }, () => {
      const at = random.next();
      return `<ellipse cx="${n(x + at * long)}" cy="${n(y + random.between(-6, 6))}" rx="${n(random.between(0.16, 0.34) * long)}" ry="${n(random.between(4, 13) * (1 - Math.abs(at - 0.5)))}"/>`;
    });
    return `<g fill="${palette.cloud}" opacity="${random.between(0.14, 0.34).toFixed(2)}">${puffs.join('')}</g>`;
  }).join('');
}

/** Three ranges, paler with distance; each is a walk of small steps between a few tops. */
export function hills({ width, horizon, palette, random }: Canvas): string {
  return palette.hills
    .map((colour, depth) => {
      const tall = [70, 48, 24][depth] ?? 24;
      const points: string[] = [];
      let y = random.between(0.4, 0.8) * tall;
      for (let x = -10; x <= width + 10; x += 9) {
        y = Math.min(tall, Math.max(tall * 0.18, y + random.between(-tall, tall) * 0.13));
        points.push(`${n(x)} ${n(horizon - y)}`);
      }
      return `<path d="M-10 ${n(horizon + 3)}L${points.join('L')}L${width + 10} ${n(horizon + 3)}Z" fill="${colour}"/>`;
    })
    .join('');
}

export function water({ width, height, horizon, palette, random }: Canvas, sunX: number): string {
  const [far, near] = palette.water;
  const glints = Array.from({ length: 260 }, () => {
    const depth = random.next() ** 1.7;
    const y = horizon + 4 + depth * (height - horizon);
    const spread = 30 + depth * 260;
    const nearSun = random.next() < 0.6;
    const x = nearSun ? sunX + random.between(-spread, spread) * 0.5 : random.between(0, width);
    return `<rect x="${n(x)}" y="${n(y)}" width="${n(random.between(5, 16) * (0.5 + depth * 2))}" height="${n(0.6 + depth * 1.7)}" rx=".6" opacity="${(random.between(0.1, 0.5) * (nearSun ? 1.2 : 0.7)).toFixed(2)}"/>`;
  });
  return `<defs><linearGradient id="water" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="${far}"/><stop offset="1" stop-color="${near}"/></linearGradient></defs>
<rect y="${n(horizon)}" width="${width}" height="${n(height - horizon)}" fill="url(#water)"/><g fill="${palette.glint}">${glints.join('')}</g>`;
}

/** A stand of reeds, back row first; some carry a head. `gap` keeps a stretch of the width free. */
export function reeds(
  canvas: Canvas,
  count: number,
  gap?: { readonly from: number; readonly to: number },
): string {
  const { width, height, horizon, palette, random } = canvas;
  const rows = 3;
  return Array.from({ length: rows }, (_, row) => {
    const colour = palette.reeds[row] ?? palette.reeds[0];
    const foot = horizon + (height - horizon) * (0.4 + row * 0.36);
    const tall = (height - horizon) * (0.34 + row * 0.2);
    const stems: string[] = [];
    const heads: string[] = [];
    for (let at = 0; at < count / rows; at += 1) {
      const x = random.between(-20, width + 20);
      if (gap && x > gap.from && x < gap.to) continue;
      const long = tall * random.between(0.55, 1.15);
      const lean = random.between(-0.16, 0.16) * long;
      const [top, y] = [x + lean, foot - long];
      stems.push(
        `M${n(x)} ${n(foot + random.between(-8, 8))}Q${n(x + lean * 0.2)} ${n(foot - long * 0.6)} ${n(top)} ${n(y)}`,
      );
      if (random.next() < 0.16) {
        const size = 3 + row * 1.4;
        heads.push(
          `<ellipse cx="${n(top)}" cy="${n(y + size * 2)}" rx="${n(size * 0.62)}" ry="${n(size * 2.6)}" transform="rotate(${n((lean / long) * 40)} ${n(top)} ${n(y)})"/>`,
        );
      }
    }
    return `<path d="${stems.join('')}" fill="none" stroke="${colour}" stroke-width="${n(1 + row * 0.75)}" stroke-linecap="round"/><g fill="${palette.head}">${heads.join('')}</g>`;
  }).join('');
}

/** Planks running away to the horizon. */
export function boardwalk({ height, horizon, palette, random }: Canvas, farX: number, nearX: number): string {
  const [light, dark] = palette.plank;
  const [farHalf, nearHalf] = [14, 190];
  const end = horizon + 12;
  const edge = (t: number, side: -1 | 1) =>
    farX + (nearX - farX) * t + side * (farHalf + (nearHalf - farHalf) * t);
  const planks: string[] = [];
  for (let step = 0; step < 46; step += 1) {
    const [t, u] = [(step / 46) ** 2, ((step + 0.86) / 46) ** 2];
    const [y, z] = [end + (height - end) * t, end + (height - end) * u];
    const shade = random.between(0.75, 1).toFixed(2);
    planks.push(
      `<path d="M${n(edge(t, -1))} ${n(y)}H${n(edge(t, 1))}L${n(edge(u, 1))} ${n(z)}H${n(edge(u, -1))}Z" fill="${light}" opacity="${shade}"/>`,
    );
  }
  const bed = `<path d="M${n(edge(0, -1))} ${n(end)}H${n(edge(0, 1))}L${n(edge(1, 1))} ${height}H${n(edge(1, -1))}Z" fill="${dark}"/>`;
  return bed + planks.join('');
}
