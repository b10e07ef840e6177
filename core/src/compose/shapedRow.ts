/** Numbers kept for each glyph: its id, the unit it begins to stand for, advance, displacement, and 1 where no line may begin. */
const STRIDE = 6;

interface ShaperInfo {
  codepoint: number;
  cluster: number;
  flags: number;
}
interface ShaperPosition {
  xAdvance: number;
  xOffset: number;
  yOffset: number;
}

/**
 * Glyphs as shaped, in a few numbers each: lengths in font units, `cluster` an index into the shaped text. As objects
 * they would cost as much as the shaping.
 */
export class ShapedRow {
  protected constructor(
    protected numbers: Int32Array,
    public count: number,
  ) {}

  /** What HarfBuzz gives out; glyphs with a flag of `unsafe` may not begin a line. */
  static from(infos: readonly ShaperInfo[], positions: readonly ShaperPosition[], unsafe: number): ShapedRow {
    const numbers = new Int32Array(STRIDE * infos.length);
    for (let i = 0, n = 0; i < infos.length; i++, n += STRIDE) {
      const info = infos[i]!;
      const position = positions[i]!;
      numbers[n] = info.codepoint;
      numbers[n + 1] = info.cluster;
      numbers[n + 2] = position.xAdvance;
      numbers[n + 3] = position.xOffset;
      numbers[n + 4] = position.yOffset;
      numbers[n + 5] = info.flags & unsafe;
    }
    return new ShapedRow(numbers, infos.length);
  }

  static readonly EMPTY = new ShapedRow(new Int32Array(0), 0);

  gid(i: number): number {
    return this.numbers[STRIDE * i]!;
  }
  cluster(i: number): number {
    return this.numbers[STRIDE * i + 1]!;
  }
  advance(i: number): number {
    return this.numbers[STRIDE * i + 2]!;
  }
  dx(i: number): number {
    return this.numbers[STRIDE * i + 3]!;
  }
  dy(i: number): number {
    return this.numbers[STRIDE * i + 4]!;
  }
  /** Whether a line that began with this glyph would have to be shaped again. */
  unsafeToBreak(i: number): boolean {
    return this.numbers[STRIDE * i + 5] !== 0;
  }

  /** How far the whole row advances. */
  get width(): number {
    let width = 0;
    for (let i = 0; i < this.count; i++) width += this.advance(i);
    return width;
  }

  /** The first glyph of a left-to-right row that stands for `at` or what follows it. */
  indexOf(at: number): number {
    let [low, high] = [0, this.count];
    while (low < high) {
      const mid = (low + high) >> 1;
      if (this.cluster(mid) < at) low = mid + 1;
      else high = mid;
    }
    return low;
  }

  /** Copies glyphs `[from, to)` to a place of another row's numbers, their clusters moved on by `shift`. */
  copy(from: number, to: number, into: Int32Array, at: number, shift: number): void {
    const end = STRIDE * to;
    let n = STRIDE * at;
    for (let m = STRIDE * from; m < end; m++, n++) into[n] = this.numbers[m]!;
    if (shift) for (let i = at; i < at + to - from; i++) into[STRIDE * i + 1]! += shift;
  }
}

/** The glyphs of a line, put together from rows: one is filled again and again. */
export class LineRow extends ShapedRow {
  constructor() {
    super(new Int32Array(STRIDE * 256), 0);
  }

  clear(): void {
    this.count = 0;
  }

  /** Takes glyphs `[from, to)` of a row over, their clusters moved on by `shift`. */
  append(row: ShapedRow, from: number, to: number, shift: number): void {
    const count = this.count + to - from;
    if (STRIDE * count > this.numbers.length) {
      const larger = new Int32Array(STRIDE * Math.max(count, 2 * this.count));
      larger.set(this.numbers.subarray(0, STRIDE * this.count));
      this.numbers = larger;
    }
    row.copy(from, to, this.numbers, this.count, shift);
    this.count = count;
  }
}
