import type { BrokenLine, Stretch } from './breakLines.ts';
import type { BuiltLine } from './setLine.ts';

/** How a paragraph's lines are found and set: from a unit on, where `before` of them are known; one by one. */
export interface LineMaker {
  breakFrom(unit: number, before: number): Stretch;
  build(line: BrokenLine, index: number): BuiltLine;
}

/**
 * A paragraph's lines in one room, from one place of it on, found and set as far as they are asked for: a column asks for
 * those it holds, and a paragraph over many columns is not set to its end for each of them.
 */
export class ParagraphLines {
  private readonly broken: BrokenLine[] = [];
  private readonly built: BuiltLine[] = [];
  private whole = false;

  constructor(
    private readonly start: number,
    private readonly maker: LineMaker,
  ) {}

  /** Whether there is a line of this index. */
  has(index: number): boolean {
    while (index >= this.broken.length && !this.whole) {
      const { lines, whole } = this.maker.breakFrom(this.broken[this.broken.length - 1]?.next ?? this.start, this.broken.length);
      for (const line of lines) this.broken.push(line);
      this.whole = whole;
    }
    return index < this.broken.length;
  }

  /** A line that there is, as broken: units of set text. */
  range(index: number): BrokenLine {
    if (!this.has(index)) throw new RangeError(`A paragraph has no line ${index + 1}.`);
    return this.broken[index]!;
  }

  /** A line, set; undefined after the last. */
  line(index: number): BuiltLine | undefined {
    if (!this.has(index)) return undefined;
    return (this.built[index] ??= this.maker.build(this.broken[index]!, index));
  }

  /** How many lines there are from one on, counted no further than `most`. */
  countFrom(index: number, most: number): number {
    let n = 0;
    while (n < most && this.has(index + n)) n++;
    return n;
  }

  all(): BuiltLine[] {
    const out: BuiltLine[] = [];
    for (let line = this.line(0); line; line = this.line(out.length)) out.push(line);
    return out;
  }
}
