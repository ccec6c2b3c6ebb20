const KILO = 1000;

/** A file size for people: "41 kB", "9.4 MB" (SI steps of 1000, as browsers' tools count). */
export function sayBytes(bytes: number): string {
  if (bytes < KILO) return `${bytes} B`;
  if (bytes < KILO * KILO) return `${Math.round(bytes / KILO)} kB`;
  const megabytes = bytes / KILO / KILO;
  return `${megabytes < 100 ? megabytes.toFixed(1) : Math.round(megabytes)} MB`;
}

/**
 * Bits per pixel of a picture at the default likeness: the middle of what was found on the demo's painted originals, which
 * is 0.4 to 2.3 for AVIF by their grain.
 */
const BITS_PER_PIXEL = { avif: 1.3, webp: 1.7, jpeg: 2.1, png: 8 } as const;

/** A guess at a cut's size in bytes before it is made; what is made is always measured instead. */
export function guessBytes(width: number, height: number, format: keyof typeof BITS_PER_PIXEL): number {
  return Math.round((width * height * BITS_PER_PIXEL[format]) / 8);
}
