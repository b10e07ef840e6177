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
    private readonly numbers: Float32Array,
    /** Pairs of `dx`, `dy`; null where no glyph is moved from its place. */
    private readonly moved: Float32Array | null,
    /** The paragraph's offset of each character of the text; a number where they follow one another from it. */
    private readonly offsets: number | Uint32Array,
  ) {}

  get length(): number {
    return this.numbers.length / STRIDE;
  }

  *[Symbol.iterator](): Iterator<Glyph> {
    const { text, numbers, moved, offsets } = this;
    let x = 0;
    for (let i = 0, n = 0; n < numbers.length; i++, n += STRIDE) {
      const [advance, from] = [numbers[n + 1]!, numbers[n + 2]!];
      yield {
        gid: numbers[n]!,
        x,
        advance,
        dx: moved ? moved[2 * i]! : 0,
        dy: moved ? moved[2 * i + 1]! : 0,
        offset: typeof offsets === 'number' ? offsets + from : offsets[from]!,
        text: text.slice(from, from + numbers[n + 3]!),
      };
      x += advance;
    }
  }

  /** The characters of the last glyph. */
  get lastText(): string {
    const { numbers, text } = this;
    const n = numbers.length - STRIDE;
    return n < 0 ? '' : text.slice(numbers[n + 2]!, numbers[n + 2]! + numbers[n + 3]!);
  }
  get firstText(): string {
    return this.numbers.length ? this.text.slice(this.numbers[2]!, this.numbers[2]! + this.numbers[3]!) : '';
  }
}

/** Collects the glyphs of one run after another. */
export class GlyphWriter {
  private numbers = new Float32Array(STRIDE * 64);
  private moves = new Float32Array(2 * 64);
  private count = 0;
  private anyMoved = false;
  /** Points from the run's origin to where the next glyph stands. */
  x = 0;

  /** Adds a glyph for `length` characters of the run's text from `from` on. */
  add(gid: number, advance: number, dx: number, dy: number, from: number, length: number): void {
    if (STRIDE * this.count === this.numbers.length) this.grow();
    const n = STRIDE * this.count;
    this.numbers[n] = gid;
    this.numbers[n + 1] = advance;
    this.numbers[n + 2] = from;
    this.numbers[n + 3] = length;
    this.moves[2 * this.count] = dx;
    this.moves[2 * this.count + 1] = dy;
    this.anyMoved ||= dx !== 0 || dy !== 0;
    this.count++;
    this.x += this.numbers[n + 1]!;
  }

  private grow(): void {
    const larger = (old: Float32Array): Float32Array<ArrayBuffer> => {
      const out = new Float32Array(2 * old.length);
      out.set(old);
      return out;
    };
    this.numbers = larger(this.numbers);
    this.moves = larger(this.moves);
  }

  /** The row of what was added, whose text is `text`; the writer is empty after it. */
  take(text: string, offsets: number | Uint32Array): GlyphRow {
    const row = new GlyphRow(
      text,
      this.numbers.slice(0, STRIDE * this.count),
      this.anyMoved ? this.moves.slice(0, 2 * this.count) : null,
      offsets,
    );
    this.count = 0;
    this.x = 0;
    this.anyMoved = false;
    return row;
  }
}
