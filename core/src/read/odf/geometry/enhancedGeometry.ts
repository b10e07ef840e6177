import type { Path, Rect } from '../../../folio/geometry.ts';
import { evaluate, FormulaError } from './formula.ts';
import { isDrawable } from './pathData.ts';
import { angleTo, arcSteps, pointAt } from './arcs.ts';

/** `draw:enhanced-geometry` (OpenDocument 1.3 part 3, 10.6.2), as text. */
export interface EnhancedGeometry {
  viewBox: Rect;
  path: string;
  equations: ReadonlyMap<string, string>;
  modifiers: readonly number[];
  textAreas: string | undefined;
  mirror: { horizontal: boolean; vertical: boolean };
  stretch: { x: number; y: number } | undefined;
  hasStroke: boolean;
  hasFill: boolean;
}

/** One part of a shape: some sub-paths with the same fill and stroke. */
interface GeometryPart {
  path: Path;
  filled: boolean;
  stroked: boolean;
}
export interface DrawnGeometry {
  parts: GeometryPart[];
  /** Where text stands in the shape. */
  text: Rect | null;
  /** What could not be worked out, in words. */
  problems: string[];
}

/** Hundredths of a millimetre in a point: `logwidth` and `logheight` are in these. */
const LOGICAL = 2540 / 72;
const MOST_STEPS = 100_000;

/** Draws a custom shape in a box of the given size, in points, from its top left. */
export function drawGeometry(geometry: EnhancedGeometry, width: number, height: number): DrawnGeometry {
  const values = new Values(geometry, width, height);
  const { viewBox: box } = values;
  const parts = new Steps(values).read(geometry.path);
  const { horizontal, vertical } = geometry.mirror;
  const { stretch } = geometry;
  const across = scaled(width, box.width, box.x, stretch?.x ?? 0, height / box.height);
  const down = scaled(height, box.height, box.y, stretch?.y ?? 0, width / box.width);
  const x = (v: number): number => (horizontal ? width - across(v) : across(v));
  const y = (v: number): number => (vertical ? height - down(v) : down(v));
  const place = (path: Path): Path =>
    path.map((step) =>
      step[0] === 'Z' ? step : ([step[0], ...step.slice(1).map((n, i) => (i % 2 ? y : x)(n as number))] as Path[number]),
    );
  const placed = parts.map((p) => ({ ...p, path: place(p.path) }));
  const drawable = placed.filter((p) => isDrawable(p.path));
  if (drawable.length < placed.length) values.problems.add('a part of the shape lies beyond any page');
  return { parts: drawable, text: textArea(geometry, values, x, y), problems: [...values.problems] };
}

/**
 * Coordinates of the view box in the shape's size. A shape with a stretch point (19.221–19.222) that is longer than its view box
 * keeps the proportions of its parts: what lies beyond that point is moved, and only what crosses it grows.
 */
function scaled(length: number, box: number, from: number, stretch: number, other: number): (v: number) => number {
  const own = length / box;
  if (!stretch || own <= other) return (v) => (v - from) * own;
  const more = length - box * other;
  return (v) => (v - from) * other + (v > stretch ? more : 0);
}

function textArea(geometry: EnhancedGeometry, values: Values, x: (v: number) => number, y: (v: number) => number): Rect | null {
  const tokens = (geometry.textAreas ?? '').trim().split(/[\s,]+/);
  if (tokens.length < 4) return null;
  const [l, t, r, b] = tokens.slice(0, 4).map((token) => values.of(token)) as [number, number, number, number];
  const [x0, x1] = [x(l), x(r)].sort((a, c) => a - c) as [number, number];
  const [y0, y1] = [y(t), y(b)].sort((a, c) => a - c) as [number, number];
  return [x0, x1, y0, y1].every((n) => Math.abs(n) <= 1e6) ? { x: x0, y: y0, width: x1 - x0, height: y1 - y0 } : null;
}

/** Values of equations, modifiers and names, each worked out once. */
class Values {
  readonly problems = new Set<string>();
  readonly viewBox: Rect;
  private readonly known = new Map<string, number>();
  private readonly asked = new Set<string>();

  constructor(
    private readonly geometry: EnhancedGeometry,
    private readonly width: number,
    private readonly height: number,
  ) {
    const { viewBox } = geometry;
    // A view box of no size stands for the shape's own, in hundredths of a millimetre.
    this.viewBox = {
      x: viewBox.x,
      y: viewBox.y,
      width: viewBox.width || Math.max(1, width * LOGICAL),
      height: viewBox.height || Math.max(1, height * LOGICAL),
    };
  }

  /** A parameter of a command: a number, `?equation`, `$modifier` or a name. */
  of(token: string): number {
    if (/^[-+\d.]/.test(token)) return finite(Number(token));
    return this.formula(token);
  }

  private formula(text: string): number {
    try {
      const value = evaluate(text, {
        constant: (name) => this.constant(name),
        equation: (name) => this.equation(name),
        modifier: (i) => this.geometry.modifiers[i] ?? 0,
      });
      if (!Number.isFinite(value)) this.problems.add(`“${text}” has no value (it divides by nothing, say)`);
      return finite(value);
    } catch (error) {
      if (!(error instanceof FormulaError)) throw error;
      this.problems.add(error.message);
      return 0;
    }
  }

  private equation(name: string): number {
    const known = this.known.get(name);
    if (known !== undefined) return known;
    const text = this.geometry.equations.get(name);
    if (text === undefined) throw new FormulaError(`there is no equation “${name}”`);
    if (this.asked.has(name)) throw new FormulaError(`the equation “${name}” needs itself`);
    // A long row of equations that need one another would go too deep for the machine.
    if (this.asked.size > 400) throw new FormulaError('equations need one another too deeply');
    this.asked.add(name);
    const value = this.formula(text);
    this.asked.delete(name);
    this.known.set(name, value);
    return value;
  }

  private constant(name: string): number | undefined {
    const { x, y, width, height } = this.viewBox;
    const values: Record<string, number> = {
      pi: Math.PI,
      left: x,
      top: y,
      right: x + width,
      bottom: y + height,
      width,
      height,
      xstretch: this.geometry.stretch?.x ?? 0,
      ystretch: this.geometry.stretch?.y ?? 0,
      hasstroke: this.geometry.hasStroke ? 1 : 0,
      hasfill: this.geometry.hasFill ? 1 : 0,
      logwidth: this.width * LOGICAL,
      logheight: this.height * LOGICAL,
    };
    return values[name];
  }
}
const finite = (n: number): number => (Number.isFinite(n) ? n : 0);

/** Numbers that one round of a command takes (19.145, draw:enhanced-path). */
const TAKES: Record<string, number> = { M: 2, L: 2, C: 6, Z: 0, N: 0, F: 0, S: 0, T: 6, U: 6, A: 8, B: 8, W: 8, V: 8, X: 2, Y: 2, Q: 4 };

/** Follows the commands of an enhanced path, in the units of its view box. */
class Steps {
  private parts: GeometryPart[] = [];
  private path: Path = [];
  private filled = true;
  private stroked = true;
  private at: [number, number] = [0, 0];
  private start: [number, number] = [0, 0];
  private steps = 0;

  constructor(private readonly values: Values) {}

  read(text: string): GeometryPart[] {
    // Letters may stand directly beside numbers: “M0,0L10,10”.
    const tokens = text.match(/\?[A-Za-z0-9_]+|\$\d+|[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?|[a-z]{2,}|[A-Z]/g) ?? [];
    for (let i = 0; i < tokens.length;) {
      const command = tokens[i++]!;
      const takes = TAKES[command];
      if (takes === undefined) {
        this.values.problems.add(`the command “${command}” of a shape is unknown`);
        while (i < tokens.length && TAKES[tokens[i]!] === undefined) i++;
        continue;
      }
      if (takes === 0) {
        this.plain(command);
        continue;
      }
      for (let round = 0; i + takes <= tokens.length && TAKES[tokens[i]!] === undefined; round++, i += takes) {
        const numbers = tokens.slice(i, i + takes);
        if (numbers.some((t) => TAKES[t] !== undefined)) break;
        if (++this.steps > MOST_STEPS) {
          this.values.problems.add('the shape has more steps than can be drawn');
          return this.finish();
        }
        this.step(
          command,
          numbers.map((t) => this.values.of(t)),
          round,
        );
      }
      while (i < tokens.length && TAKES[tokens[i]!] === undefined) i++;
    }
    return this.finish();
  }

  private finish(): GeometryPart[] {
    this.endPart();
    return this.parts;
  }

  private plain(command: string): void {
    if (command === 'Z') {
      if (this.path.length) this.path.push(['Z']);
      this.at = this.start;
    } else if (command === 'N') this.endPart();
    else if (command === 'F') this.filled = false;
    else this.stroked = false;
  }

  private endPart(): void {
    if (this.path.length > 1) this.parts.push({ path: this.path, filled: this.filled, stroked: this.stroked });
    this.path = [];
    this.filled = this.stroked = true;
  }

  private step(command: string, n: number[], round: number): void {
    switch (command) {
      case 'M':
        return round ? this.lineTo(n[0]!, n[1]!) : this.moveTo(n[0]!, n[1]!);
      case 'L':
        return this.lineTo(n[0]!, n[1]!);
      case 'C':
        return this.curveTo(n[0]!, n[1]!, n[2]!, n[3]!, n[4]!, n[5]!);
      case 'Q':
        return this.quadraticTo(n[0]!, n[1]!, n[2]!, n[3]!);
      case 'T':
      case 'U':
        return this.ellipse(n[0]!, n[1]!, n[2]!, n[3]!, n[4]!, n[5]!, command === 'U');
      case 'A':
      case 'B':
        return this.arcInBox(n, false, command === 'B');
      case 'W':
      case 'V':
        return this.arcInBox(n, true, command === 'V');
      case 'X':
      case 'Y':
        return this.quadrant(n[0]!, n[1]!, (command === 'X') === (round % 2 === 0));
    }
  }

  private moveTo(x: number, y: number): void {
    this.path.push(['M', x, y]);
    this.at = this.start = [x, y];
  }
  private lineTo(x: number, y: number): void {
    if (!this.path.length) return this.moveTo(x, y);
    this.path.push(['L', x, y]);
    this.at = [x, y];
  }
  private curveTo(a: number, b: number, c: number, d: number, x: number, y: number): void {
    if (!this.path.length) this.moveTo(...this.at);
    this.path.push(['C', a, b, c, d, x, y]);
    this.at = [x, y];
  }
  private quadraticTo(a: number, b: number, x: number, y: number): void {
    const [x0, y0] = this.at;
    this.curveTo(x0 + (2 / 3) * (a - x0), y0 + (2 / 3) * (b - y0), x + (2 / 3) * (a - x), y + (2 / 3) * (b - y), x, y);
  }

  /** Part of an ellipse by centre, radii and angles; a line leads to its beginning unless it begins anew. */
  private ellipse(cx: number, cy: number, rx: number, ry: number, from: number, to: number, anew: boolean): void {
    const begin = pointAt(cx, cy, rx, ry, from);
    if (anew || !this.path.length) this.moveTo(...begin);
    else this.lineTo(...begin);
    for (const one of arcSteps(cx, cy, rx, ry, from, to)) this.path.push(one);
    this.at = pointAt(cx, cy, rx, ry, to);
  }

  /** An arc of the ellipse in a box, from the ray through one point to the ray through another. */
  private arcInBox(n: number[], clockwise: boolean, anew: boolean): void {
    const [x1, y1, x2, y2, x3, y3, x, y] = n as [number, number, number, number, number, number, number, number];
    const [cx, cy, rx, ry] = [(x1 + x2) / 2, (y1 + y2) / 2, Math.abs(x2 - x1) / 2, Math.abs(y2 - y1) / 2];
    const from = angleTo(cx, cy, rx, ry, x3, y3);
    let to = angleTo(cx, cy, rx, ry, x, y);
    if (clockwise) while (to <= from) to += 360;
    else while (to >= from) to -= 360;
    this.ellipse(cx, cy, rx, ry, from, to, anew);
  }

  /** A quarter of an ellipse that leaves along one axis and arrives along the other. */
  private quadrant(x: number, y: number, alongX: boolean): void {
    const [x0, y0] = this.at;
    const k = 0.5522847498;
    if (alongX) this.curveTo(x0 + k * (x - x0), y0, x, y - k * (y - y0), x, y);
    else this.curveTo(x0, y0 + k * (y - y0), x - k * (x - x0), y, x, y);
  }
}
