import { OPS } from './pdfjs.ts';
import type { Matrix, Path, Point, Rect } from '../../folio/geometry.ts';
import { angleOf, apply, boundsOfPath, IDENTITY, multiply, transformRect } from '../../folio/geometry.ts';
import type { ObservedRun, ObservedShape } from '../observed.ts';

/** What a page shows says nothing of languages: the structure tree does. */
type WalkedRun = Omit<ObservedRun, 'language' | 'start'> & { start: Point };

/** What pdf.js gives for a page's content: operators and their arguments. */
export interface Operators {
  fnArray: number[];
  argsArray: unknown[];
}

interface Glyph {
  unicode?: string;
  width: number;
  isSpace?: boolean;
}

interface State {
  ctm: Matrix;
  fill: string;
  stroke: string;
  font: string;
  size: number;
  rise: number;
}

/** Marks content that another page of the file shows as well, and that is counted there. */
const REPEATED = -2;

export interface WalkedContent {
  /** Text by marked-content id; what has none is under -1. */
  text: Map<number, WalkedRun[]>;
  images: { object: string; box: Rect; mcid: number }[];
  shapes: ObservedShape[];
  /** Marked content whose letters are drawn as shapes. */
  drawn: Set<number>;
}

const FILLS = new Set([OPS.fill, OPS.eoFill, OPS.fillStroke, OPS.eoFillStroke, OPS.closeFillStroke, OPS.closeEOFillStroke]);
const STROKES = new Set([OPS.stroke, OPS.closeStroke, OPS.fillStroke, OPS.eoFillStroke, OPS.closeFillStroke, OPS.closeEOFillStroke]);

/** Runs a page's operators far enough to know which text, picture and outline stands where, in points with y down. */
export function walkContent(ops: Operators, toPage: Matrix, fontName: (id: string) => string): WalkedContent {
  const out: WalkedContent = { text: new Map(), images: [], shapes: [], drawn: new Set() };
  let state: State = { ctm: toPage, fill: '#000000', stroke: '#000000', font: '', size: 0, rise: 0 };
  const stack: State[] = [];
  const marks: number[] = [];
  let textMatrix: Matrix = IDENTITY;
  const mcid = (): number => marks.findLast((m) => m >= 0) ?? -1;
  const isRepeated = (): boolean => marks.includes(REPEATED);

  ops.fnArray.forEach((fn, i) => {
    const args = ops.argsArray[i] as never[];
    switch (fn) {
      case OPS.save:
        stack.push({ ...state });
        break;
      case OPS.restore:
        state = stack.pop() ?? state;
        break;
      case OPS.transform:
        state.ctm = multiply(state.ctm, [...args] as unknown as Matrix);
        break;
      case OPS.setFillRGBColor:
        state.fill = colourOf(args);
        break;
      case OPS.setStrokeRGBColor:
        state.stroke = colourOf(args);
        break;
      case OPS.setFillColorN:
        state.fill = 'gradient';
        break;
      case OPS.setStrokeColorN:
        state.stroke = 'gradient';
        break;
      case OPS.setFont:
        [state.font, state.size] = args as unknown as [string, number];
        break;
      case OPS.setTextRise:
        state.rise = args[0] as unknown as number;
        break;
      case OPS.beginText:
        textMatrix = IDENTITY;
        break;
      case OPS.setTextMatrix:
        textMatrix = [...(args[0] as unknown as Float32Array)] as unknown as Matrix;
        break;
      case OPS.showText: {
        const run = showText(args[0] as unknown as (Glyph | number)[], state, textMatrix, fontName);
        textMatrix = multiply(textMatrix, [1, 0, 0, 1, run.advance, 0]);
        if (isRepeated()) break;
        const list = out.text.get(mcid()) ?? [];
        list.push(run.run);
        out.text.set(mcid(), list);
        break;
      }
      case OPS.beginMarkedContent:
        marks.push((args as { name?: string }[])[0]?.name === 'Repeated' ? REPEATED : -1);
        break;
      case OPS.beginMarkedContentProps:
        marks.push(typeof args[1] === 'number' ? args[1] : -1);
        break;
      case OPS.endMarkedContent:
        marks.pop();
        break;
      case OPS.paintImageXObject:
        if (isRepeated()) break;
        out.images.push({
          object: args[0] as unknown as string,
          box: transformRect(state.ctm, { x: 0, y: 0, width: 1, height: 1 }),
          mcid: mcid(),
        });
        break;
      case OPS.constructPath: {
        const [painted, [buffer]] = args as unknown as [number, [Float32Array | null]];
        if (isRepeated() || !buffer || (!FILLS.has(painted) && !STROKES.has(painted))) break;
        const box = boundsOfPath(pathOf(buffer), state.ctm);
        out.shapes.push({ box, fill: FILLS.has(painted) ? state.fill : null, stroke: STROKES.has(painted) ? state.stroke : null });
        if (mcid() >= 0) out.drawn.add(mcid());
        break;
      }
    }
  });
  return out;
}

function colourOf(args: readonly unknown[]): string {
  const [a, b, c] = args;
  if (typeof a === 'string') return a.toLowerCase();
  return '#' + [a, b, c].map((v) => Math.round(Number(v)).toString(16).padStart(2, '0')).join('');
}

/** ISO 32000-1, 9.4.4: where shown text stands, and how far it moves the pen. */
function showText(
  glyphs: readonly (Glyph | number)[],
  state: State,
  textMatrix: Matrix,
  fontName: (id: string) => string,
): { run: WalkedRun; advance: number } {
  let text = '';
  let advance = 0;
  for (const g of glyphs) {
    if (typeof g === 'number') advance -= (g / 1000) * state.size;
    else {
      text += g.unicode ?? '';
      advance += (g.width / 1000) * state.size;
    }
  }
  const m = multiply(state.ctm, textMatrix);
  const start = apply(m, { x: 0, y: state.rise });
  const scale = Math.hypot(m[2], m[3]);
  return {
    advance,
    run: {
      text,
      font: fontName(state.font),
      size: state.size * scale,
      colour: state.fill,
      start,
      angle: angleOf(m),
    },
  };
}

/** pdf.js packs paths as numbers: 0 move, 1 line, 2 cubic, 3 quadratic, 4 close. */
function pathOf(buffer: Float32Array): Path {
  const path: Path = [];
  const sizes = [2, 2, 6, 4, 0];
  for (let k = 0; k < buffer.length;) {
    const op = buffer[k++]!;
    const n = [...buffer.subarray(k, k + (sizes[op] ?? 0))] as [number, number, number, number, number, number];
    k += sizes[op] ?? 0;
    if (op === 0) path.push(['M', n[0], n[1]]);
    else if (op === 1) path.push(['L', n[0], n[1]]);
    else if (op === 2) path.push(['C', ...n]);
    else if (op === 3) path.push(['C', n[0], n[1], n[0], n[1], n[2], n[3]]);
    else path.push(['Z']);
  }
  return path;
}
