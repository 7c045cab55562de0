// Seeded chance: what is drawn comes again with the same seed.

export interface Chance {
  /** 0 ≤ value < 1. */
  next: () => number;
  /** Whole number, both ends included. */
  whole: (from: number, to: number) => number;
  pick: <T>(list: readonly T[]) => T;
}

/** Mulberry32 (T. Ettinger, public domain): 32 bits of state are plenty for tests. */
export function chance(seed: number): Chance {
  let state = seed >>> 0;
  const next = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
  const whole = (from: number, to: number): number => from + Math.floor(next() * (to - from + 1));
  return { next, whole, pick: (list) => list[whole(0, list.length - 1)]! };
}
