/** A seeded source of numbers from 0 to below 1 (mulberry32): the same seed paints the same picture. */
export interface Random {
  readonly next: () => number;
  readonly between: (low: number, high: number) => number;
  readonly pick: <T>(items: readonly [T, ...T[]]) => T;
}

export function seeded(seed: number): Random {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
  return {
    next,
    between: (low, high) => low + next() * (high - low),
    pick: (items) => items[Math.floor(next() * items.length)] ?? items[0],
  };
}
