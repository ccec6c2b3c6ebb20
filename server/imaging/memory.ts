import sharp from 'sharp';

/** No picture is decoded twice the same way, so what sharp would keep of each for the next is only held in memory. */
export function keepMemoryFlat(): void {
  sharp.cache(false);
}
