/** A perceptual hash: 64 bits as 16 hexadecimal digits, most significant first. */
export type LookHash = string;

/** Edge in px of the grey picture that a hash is computed from. */
export const LOOK_EDGE_PX = 32;

/** Two pictures at most this many bits apart look alike. */
export const ALIKE_BITS = 6;

/** Edge of the block of low frequencies that is kept: 8 x 8 = 64 bits. */
const KEPT = 8;

/** cos((2x + 1) u pi / 2N) for each kept frequency u and place x. */
const COSINES = Array.from({ length: KEPT + 1 }, (_, u) =>
  Float64Array.from({ length: LOOK_EDGE_PX }, (_, x) =>
    Math.cos(((2 * x + 1) * u * Math.PI) / (2 * LOOK_EDGE_PX)),
  ),
);

/**
 * The perceptual hash of a grey picture squeezed to 32 x 32 px (row by row, 0 to 255): each bit says whether one of
 * the 64 lowest frequencies of its discrete cosine transform (DCT-II, the constant part left out) lies over their
 * median. Survives changes of size, format and light. Throws RangeError for any other number of pixels.
 */
export function lookHash(grey: Uint8Array): LookHash {
  if (grey.length !== LOOK_EDGE_PX * LOOK_EDGE_PX)
    throw new RangeError(`A look is read from 32 x 32 px; there are ${grey.length}.`);
  const frequencies = lowFrequencies(grey);
  const median = medianOf(frequencies);
  let hash = 0n;
  for (const value of frequencies) hash = (hash << 1n) | (value > median ? 1n : 0n);
  return hash.toString(16).padStart(16, '0');
}

/** Frequencies 1 to 8 in both directions, row by row. */
function lowFrequencies(grey: Uint8Array): readonly number[] {
  const rows = Array.from({ length: LOOK_EDGE_PX }, (_, y) =>
    Array.from({ length: KEPT }, (_, u) => {
      const cosines = COSINES[u + 1] ?? [];
      let sum = 0;
      for (let x = 0; x < LOOK_EDGE_PX; x += 1) sum += (grey[y * LOOK_EDGE_PX + x] ?? 0) * (cosines[x] ?? 0);
      return sum;
    }),
  );
  return Array.from({ length: KEPT * KEPT }, (_, at) => {
    const cosines = COSINES[Math.floor(at / KEPT) + 1] ?? [];
    return rows.reduce((sum, row, y) => sum + (row[at % KEPT] ?? 0) * (cosines[y] ?? 0), 0);
  });
}

function medianOf(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length / 2;
  return ((sorted[middle - 1] ?? 0) + (sorted[middle] ?? 0)) / 2;
}

/** How many of 64 bits differ (Hamming distance). */
export function bitsApart(one: LookHash, other: LookHash): number {
  let different = BigInt(`0x${one}`) ^ BigInt(`0x${other}`);
  let bits = 0;
  for (; different > 0n; different &= different - 1n) bits += 1;
  return bits;
}

/** The four 16-bit quarters of a hash, as numbers from 0 to 65535. */
export function quartersOf(hash: LookHash): readonly [number, number, number, number] {
  const quarter = (at: number) => Number.parseInt(hash.slice(at * 4, at * 4 + 4), 16);
  return [quarter(0), quarter(1), quarter(2), quarter(3)];
}

/**
 * A quarter and all that differ from it in one bit: 17 numbers. Two hashes at most 6 bits apart agree in one of
 * their quarters to within one bit (6 bits cannot put two into each of four quarters), so that looking these up
 * finds every lookalike without reading all hashes.
 */
export function nearQuarters(quarter: number): readonly number[] {
  return [quarter, ...Array.from({ length: 16 }, (_, bit) => quarter ^ (1 << bit))];
}
