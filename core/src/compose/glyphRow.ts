/** A glyph placed in its run. `x`, `dx`, `dy` in points from the run's origin; `offset` into the paragraph. */
export interface Glyph {
  gid: number;
  x: number;
  advance: number;
  dx: number;
  dy: number;
  offset: number;
  /** The characters this glyph stands for; empty for the later glyphs of a cluster. */
  text: string;
}

/** Numbers kept for each glyph: glyph id, advance, and where its characters begin in the run's text and how many they are. */
const STRIDE = 4;

/**
 * The glyphs of a run, in a few numbers each: a long book has millions of them, and as objects they would take
 * more memory than all else. Advances are single-precision floats: exact to 0.0001 pt on a line of any width.
 */
export class GlyphRow implements Iterable<Glyph> {
  constructor(
    private readonly text: string,
    private readonly block: Block,
    /** Where its glyphs are in the block. */
    private readonly first: number,
    readonly length: number,
    private readonly anyMoved: boolean,
    /** The paragraph's offset of each character of the text; a number where they follow one another from it. */
    private readonly offsets: number | Uint32Array,
  ) {}

  *[Symbol.iterator](): Iterator<Glyph> {
    const { text, offsets, first, length, anyMoved } = this;
    const { numbers, moves } = this.block;
    let x = 0;
    for (let i = first; i < first + length; i++) {
      const n = STRIDE * i;
      const [advance, from] = [numbers[n + 1]!, numbers[n + 2]!];
      yield {
        gid: numbers[n]!,
        x,
        advance,
        dx: anyMoved ? moves![2 * i]! : 0,
        dy: anyMoved ? moves![2 * i + 1]! : 0,
        offset: typeof offsets === 'number' ? offsets + from : offsets[from]!,
        text: text.slice(from, from + numbers[n + 3]!),
      };
      x += advance;
    }
  }

  /** The characters of the last glyph. */
  get lastText(): string {
    return this.textOf(this.length - 1);
  }
  get firstText(): string {
    return this.textOf(0);
  }

  private textOf(i: number): string {
    if (i < 0 || i >= this.length) return '';
    const { numbers } = this.block;
    const n = STRIDE * (this.first + i);
    return this.text.slice(numbers[n + 2]!, numbers[n + 2]! + numbers[n + 3]!);
  }
}

/** Numbers of many rows, one after another: an array for each row would take longer to make than to fill. */
interface Block {
  numbers: Float32Array;
  /** Pairs of `dx`, `dy`; null where no glyph of it is moved from its place. */
  moves: Float32Array | null;
}
/** Glyphs of a block: some dozen lines, so that few of them are kept only because a neighbour is. */
const BLOCK = 1024;
const blockOf = (glyphs: number): Block => ({ numbers: new Float32Array(STRIDE * glyphs), moves: null });

/** Collects the glyphs of one run after another. */
export class GlyphWriter {
  private block = blockOf(BLOCK);
  private first = 0;
  private end = 0;
  private anyMoved = false;
  /** Points from the run's origin to where the next glyph stands. */
  x = 0;

  /** Adds a glyph for `length` characters of the run's text from `from` on. */
  add(gid: number, advance: number, dx: number, dy: number, from: number, length: number): void {
    if (STRIDE * this.end === this.block.numbers.length) this.moveOn();
    const { numbers } = this.block;
    const n = STRIDE * this.end;
    numbers[n] = gid;
    numbers[n + 1] = advance;
    numbers[n + 2] = from;
    numbers[n + 3] = length;
    if (dx !== 0 || dy !== 0) this.move(dx, dy);
    this.end++;
    this.x += numbers[n + 1]!;
  }

  private move(dx: number, dy: number): void {
    const moves = (this.block.moves ??= new Float32Array((2 * this.block.numbers.length) / STRIDE));
    moves[2 * this.end] = dx;
    moves[2 * this.end + 1] = dy;
    this.anyMoved = true;
  }

  /** Goes on in a new block, with what has been added of the run that is open. */
  private moveOn(): void {
    const old = this.block;
    const count = this.end - this.first;
    this.block = blockOf(Math.max(BLOCK, 2 * count));
    this.block.numbers.set(old.numbers.subarray(STRIDE * this.first, STRIDE * this.end));
    if (this.anyMoved) {
      this.block.moves = new Float32Array((2 * this.block.numbers.length) / STRIDE);
      this.block.moves.set(old.moves!.subarray(2 * this.first, 2 * this.end));
    }
    [this.first, this.end] = [0, count];
  }

  /** The row of what was added, whose text is `text`; the writer is empty after it. */
  take(text: string, offsets: number | Uint32Array): GlyphRow {
    const row = new GlyphRow(text, this.block, this.first, this.end - this.first, this.anyMoved, offsets);
    this.first = this.end;
    this.x = 0;
    this.anyMoved = false;
    return row;
  }
}
