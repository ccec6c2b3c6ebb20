import sharp from 'sharp';
import { type Pixels, pixelsOf } from './pixels.ts';

/** Water, a sun and reeds with the grain of a photograph, the same each time: formats differ on it as they do on one. */
export async function grainyReeds(width: number, grain: number): Promise<Pixels> {
  const height = Math.round((width * 2) / 3);
  const reeds = Array.from(
    { length: 60 },
    (_, at) =>
      `<path d="M${at * 20} 800q${(at % 7) - 3} -200 ${(at % 5) * 6} -${220 + (at % 9) * 25}" stroke="#2d4a2f" stroke-width="4" fill="none"/>`,
  ).join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 1200 800"><defs><linearGradient id="sky" x2="0" y2="1"><stop stop-color="#27506e"/><stop offset="1" stop-color="#e8c18f"/></linearGradient></defs><rect width="1200" height="800" fill="url(#sky)"/><circle cx="800" cy="260" r="70" fill="#fff3c8"/>${reeds}</svg>`;
  const noise = sharp(evenNoise(width * height, grain), { raw: { width, height, channels: 1 } });
  return pixelsOf(
    sharp(Buffer.from(svg))
      .composite([{ input: await noise.toColourspace('srgb').png().toBuffer(), blend: 'soft-light' }])
      .removeAlpha()
      .toColourspace('srgb'),
  );
}

/** Grey noise round the middle, from a linear congruential generator (Numerical Recipes): the same at each run. */
function evenNoise(length: number, grain: number): Buffer {
  let state = 7;
  const next = () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
  // Four even draws make nearly a normal one, with a deviation of 0.577 of their range.
  return Buffer.from(
    Array.from({ length }, () =>
      Math.max(0, Math.min(255, 128 + ((next() + next() + next() + next() - 2) / 0.577) * grain)),
    ),
  );
}
