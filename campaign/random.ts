/** Numbers that look random and are the same for a seed (mulberry32), and choices made with them. */
export class Random {
  private a: number;

  constructor(seed: number) {
    this.a = seed | 0;
  }

  /** From 0 to below 1. */
  next(): number {
    this.a = (this.a + 0x6d2b79f5) | 0;
    let t = Math.imul(this.a ^ (this.a >>> 15), 1 | this.a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  }

  /** A whole number from 0 to below a limit. */
  below(limit: number): number {
    return Math.floor(this.next() * limit);
  }

  of<T>(list: readonly T[]): T {
    return list[this.below(list.length)]!;
  }
}
