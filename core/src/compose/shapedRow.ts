import { firstIndex } from './bisect.ts';

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

/** Rows stand one after another in blocks of this many numbers: an array for each would take longer to make than to fill. */
const BLOCK = 16_384;
let block = new Int32Array(BLOCK);
let used = 0;

/**
 * Glyphs as shaped, in a few numbers each: lengths in font units, `cluster` an index into the shaped text. As objects
 * they would cost as much as the shaping.
 */
export class ShapedRow {
  protected constructor(
    protected numbers: Int32Array,
    /** Where in the numbers it begins. */
    protected readonly start: number,
    public count: number,
  ) {}

  /** What HarfBuzz gives out, clusters counted from `offset` on; glyphs with a flag of `unsafe` may not begin a line. */
  static from(infos: readonly ShaperInfo[], positions: readonly ShaperPosition[], unsafe: number, offset: number): ShapedRow {
    const { length } = infos;
    if (used + STRIDE * length > block.length) {
      block = new Int32Array(Math.max(BLOCK, STRIDE * length));
      used = 0;
    }
    const numbers = block;
    const start = used;
    let n = start;
    for (let i = 0; i < length; i++, n += STRIDE) {
      const info = infos[i]!;
      const position = positions[i]!;
      numbers[n] = info.codepoint;
      numbers[n + 1] = info.cluster + offset;
      numbers[n + 2] = position.xAdvance;
      numbers[n + 3] = position.xOffset;
      numbers[n + 4] = position.yOffset;
      numbers[n + 5] = info.flags & unsafe;
    }
    used = n;
    return new ShapedRow(numbers, start, length);
  }

  static readonly EMPTY = new ShapedRow(new Int32Array(0), 0, 0);

  /** The row with numbers of its own, for keeping: in a block it would keep its neighbours. */
  alone(): ShapedRow {
    return new ShapedRow(this.numbers.slice(this.start, this.start + STRIDE * this.count), 0, this.count);
  }

  gid(i: number): number {
    return this.numbers[this.start + STRIDE * i]!;
  }
  cluster(i: number): number {
    return this.numbers[this.start + STRIDE * i + 1]!;
  }
  advance(i: number): number {
    return this.numbers[this.start + STRIDE * i + 2]!;
  }
  dx(i: number): number {
    return this.numbers[this.start + STRIDE * i + 3]!;
  }
  dy(i: number): number {
    return this.numbers[this.start + STRIDE * i + 4]!;
  }
  /** Whether a line that began with this glyph would have to be shaped again. */
  unsafeToBreak(i: number): boolean {
    return this.numbers[this.start + STRIDE * i + 5] !== 0;
  }

  /** How far the whole row advances. */
  get width(): number {
    let width = 0;
    for (let i = 0; i < this.count; i++) width += this.advance(i);
    return width;
  }

  /** The first glyph of a left-to-right row that stands for `at` or what follows it. */
  indexOf(at: number): number {
    return firstIndex(this.count, (i) => this.cluster(i) >= at);
  }

  /** Copies glyphs `[from, to)` to a place of another row's numbers, their clusters moved on by `shift`. */
  copy(from: number, to: number, into: Int32Array, at: number, shift: number): void {
    const end = this.start + STRIDE * to;
    let n = STRIDE * at;
    for (let m = this.start + STRIDE * from; m < end; m++, n++) into[n] = this.numbers[m]!;
    if (shift) for (let i = at; i < at + to - from; i++) into[STRIDE * i + 1]! += shift;
  }
}

/** The glyphs of a line, put together from rows: one is filled again and again. */
export class LineRow extends ShapedRow {
  constructor() {
    super(new Int32Array(STRIDE * 256), 0, 0);
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
