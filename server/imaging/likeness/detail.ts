import sharp from 'sharp';
import { type CutOrder, makeCut } from '../cut.ts';

const WIDE_PX = 340;
const HIGH_PX = 230;

/** The part of a cut round a place, at the cut's own pixels, as PNG: nothing is lost on the way to the eye. */
export async function detailOf(
  path: string,
  cut: Omit<CutOrder, 'animated'>,
  at: { readonly x: number; readonly y: number },
): Promise<Buffer> {
  const bytes = await makeCut(path, { ...cut, animated: false });
  const { width, height } = await sharp(bytes).metadata();
  const [wide, high] = [Math.min(WIDE_PX, width), Math.min(HIGH_PX, height)];
  const start = (share: number, whole: number, part: number) =>
    Math.round(Math.min(Math.max(share * whole - part / 2, 0), whole - part));
  return sharp(bytes)
    .extract({ left: start(at.x, width, wide), top: start(at.y, height, high), width: wide, height: high })
    .png({ compressionLevel: 6 })
    .toBuffer();
}
