/** Numbers kept for each unit: sums of width, stretch and shrink up to it, and 1 where a line may not begin as it is. */
const STRIDE = 4;
/** Paragraphs stand one after another in blocks of this many numbers: arrays for each would take longer to make than to fill. */
const BLOCK = 32_768;
let block = new Float64Array(BLOCK);
let used = 0;

/**
 * What is known of each unit of a paragraph's text, in points: `edge(i)` is the natural width of `text[0..i)`, tabs
 * counting nothing; `stretch(i)` and `shrink(i)` are how much justification may add to it and take from it.
 */
export class UnitSums {
  private readonly block: Float64Array;
  private readonly start: number;

  /** All zero, for a text of `length` units and its end. */
  constructor(length: number) {
    const size = STRIDE * (length + 1);
    if (used + size > block.length) {
      block = new Float64Array(Math.max(BLOCK, size));
      used = 0;
    }
    this.block = block;
    this.start = used;
    used += size;
  }

  edge(i: number): number {
    return this.block[this.start + STRIDE * i]!;
  }
  stretch(i: number): number {
    return this.block[this.start + STRIDE * i + 1]!;
  }
  shrink(i: number): number {
    return this.block[this.start + STRIDE * i + 2]!;
  }
  /** Whether a line that began with this unit would have to be shaped again. */
  unsafe(i: number): boolean {
    return this.block[this.start + STRIDE * i + 3] === 1;
  }

  /** Adds to the width of one unit, as long as widths have not been summed up: it is kept at the edge after it. */
  widen(unit: number, by: number): void {
    this.block[this.start + STRIDE * (unit + 1)]! += by;
  }
  widthOf(unit: number): number {
    return this.block[this.start + STRIDE * (unit + 1)]!;
  }
  /** Sums up one unit, after all before it. */
  sum(unit: number, width: number, stretch: number, shrink: number): void {
    const n = this.start + STRIDE * unit;
    this.block[n + STRIDE] = this.block[n]! + width;
    this.block[n + STRIDE + 1] = this.block[n + 1]! + stretch;
    this.block[n + STRIDE + 2] = this.block[n + 2]! + shrink;
  }
  setUnsafe(unit: number, unsafe: boolean): void {
    this.block[this.start + STRIDE * unit + 3] = unsafe ? 1 : 0;
  }
}
