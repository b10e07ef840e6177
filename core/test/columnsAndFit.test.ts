import { beforeAll, describe, expect, test } from '@jest/globals';
import { Folio } from '../src/index.ts';
import { Composer, FontFace, FontSet } from '../src/compose/index.ts';
import type { ComposedFrame, Composition } from '../src/compose/index.ts';
import { shareThatFits } from '../src/compose/shrink.ts';
import { asSample, fontsOf, make } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

const PROSE =
  'The keepers of the dome have always written down what it did, and a patient reader can watch the wheels wear and the rail settle towards the south-west. ';
let fonts: FontSet;
beforeAll(async () => {
  fonts = await fontsOf(tinyFolio(['x']));
});

type Frame = Record<string, unknown>;
/** A text in one frame of 210 points, with headings (style `h`) that stand across its columns. */
function columns(paragraphs: string[], frame: Frame, heading: Record<string, unknown> = {}): Folio {
  const folio = tinyFolio(
    paragraphs.map((p) => p.replace(/^# /, '')),
    { width: 210, height: 300 },
  );
  paragraphs.forEach((p, i) => {
    if (p.startsWith('# ')) (folio.stories['t']!.blocks[`p${i + 1}`] as { style: string }).style = 'h';
  });
  Object.assign(folio.spreads['s']!.items['f1']!, { columns: 2, gutter: 10, ...frame });
  folio.head.paragraphStyles['h'] = {
    id: 'h',
    name: 'Heading',
    basedOn: 'p',
    paragraph: { spanColumns: true, keepWithNext: 1, spaceBefore: 8, spaceAfter: 4, ...heading },
    character: { size: 14, leading: 16 },
  };
  return Folio.parse(folio);
}
const compose = (folio: Folio): Composition => new Composer(fonts).compose(folio);
const frameOf = (folio: Folio): ComposedFrame => compose(folio).frames.get('f1')!;
const linesOf = (frame: ComposedFrame, paragraph: string) => frame.lines.filter((l) => l.paragraph === paragraph);

describe('paragraphs across all columns', () => {
  test('are set to the full width; what is above is balanced over the columns, and columns begin anew below', () => {
    const frame = frameOf(columns([PROSE.repeat(2), `# ${PROSE}`, PROSE.repeat(2)], {}));
    const [above, wide, below] = ['p1', 'p2', 'p3'].map((p) => linesOf(frame, p));
    expect(wide!.every((l) => Math.abs(l.measure - 210) < 1e-6 && l.x < 1)).toBe(true);
    const last = (lines: typeof frame.lines, column: number) =>
      Math.max(...lines.filter((l) => l.column === column).map((l) => l.baseline));
    // Both columns above hold half of the text, to a line.
    const counts = [0, 1].map((c) => above!.filter((l) => l.column === c).length);
    expect(Math.abs(counts[0]! - counts[1]!)).toBeLessThanOrEqual(1);
    const bottom = Math.max(last(above!, 0), last(above!, 1)) + above![0]!.descent;
    // Eight points before it, and its own ascent.
    expect(wide![0]!.baseline).toBeCloseTo(bottom + 8 + wide![0]!.ascent, 3);
    const end = wide![wide!.length - 1]!;
    expect(below![0]!.baseline).toBeCloseTo(end.baseline + end.descent + 4 + below![0]!.ascent, 3);
    expect(below!.filter((l) => l.column === 1).length).toBeGreaterThan(0);
  });

  test('no line is lost or doubled, and nothing goes past the frame, whatever its height', () => {
    for (let height = 20; height < 330; height += 23) {
      const folio = columns([PROSE.repeat(2), `# One heading`, PROSE.repeat(3), '# Another', PROSE], {});
      folio.spreads['s']!.items['f1'] = { ...folio.spreads['s']!.items['f1']!, size: { width: 210, height } } as never;
      const composition = compose(folio);
      const { lines } = composition.frames.get('f1')!;
      for (const line of lines) expect(line.baseline + line.descent).toBeLessThanOrEqual(height + 0.02);
      const seen = lines.map((l) => `${l.paragraph}:${l.start}`);
      expect(new Set(seen).size).toBe(seen.length);
      const byParagraph = new Map<string, number>();
      for (const line of [...lines]) {
        expect(line.start).toBeGreaterThanOrEqual(byParagraph.get(line.paragraph) ?? 0);
        byParagraph.set(line.paragraph, line.end);
      }
    }
  });

  test('a heading whose text does not fit below it goes on with it', () => {
    const folio = columns([PROSE, '# Heading', PROSE], {});
    const whole = frameOf(folio);
    const heading = linesOf(whole, 'p2')[0]!;
    const cut = Folio.parse(folio);
    cut.spreads['s']!.items['f1'] = {
      ...cut.spreads['s']!.items['f1']!,
      size: { width: 210, height: heading.baseline + heading.descent + 6 },
    } as never;
    expect(linesOf(frameOf(cut), 'p2')).toEqual([]);
    expect(compose(cut).stories.get('t')!.overflow!.lines).toBeGreaterThan(1);
  });

  test('the text goes on in the next frame, where a heading may stand first', () => {
    const folio = tinyFolio(['x'], { frames: 2, width: 210, height: 60 });
    const long = columns([PROSE.repeat(2), '# Heading', PROSE], {});
    const two = Folio.parse({ ...folio, head: long.head, stories: { t: { ...long.stories['t']!, frames: folio.stories['t']!.frames } } });
    for (const id of ['f1', 'f2']) Object.assign(two.spreads['s']!.items[id]!, { columns: 2, gutter: 10 });
    const composition = compose(two);
    const second = composition.frames.get('f2')!;
    expect(second.lines.length).toBeGreaterThan(0);
    const shown = [...composition.frames.values()].flatMap((f) => f.lines.map((l) => l.runs.map((r) => r.text).join('')));
    expect(shown.join(' ')).toContain('The keepers of the dome');
  });

  test('at the foot of a frame they are moved down with the rest', () => {
    const top = frameOf(columns([PROSE, '# Heading'], {}));
    const foot = frameOf(columns([PROSE, '# Heading'], { verticalAlign: 'bottom' }));
    const lowest = foot.lines[foot.lines.length - 1]!;
    expect(lowest.baseline + lowest.descent).toBeCloseTo(300, 3);
    const shift = foot.lines[0]!.baseline - top.lines[0]!.baseline;
    for (const [i, line] of foot.lines.entries()) expect(line.baseline - top.lines[i]!.baseline).toBeCloseTo(shift, 6);
  });

  test('are kept by every painter', async () => {
    const folio = columns([PROSE.repeat(2), `# ${PROSE}`, PROSE], {});
    for (const output of ['html', 'pdf']) {
      const { ledger } = await make(asSample(folio), output);
      expect(ledger.filter((e) => e.outcome !== 'kept' || e.check === 'contradicted')).toEqual([]);
    }
  });
});

describe('text that shrinks to fit', () => {
  const shrinking = (height: number): Folio => {
    const folio = tinyFolio([PROSE, [{ type: 'span', text: PROSE, overrides: { size: 14 } }]], {
      width: 150,
      height,
      paragraph: { spaceAfter: 6 },
    });
    Object.assign(folio.spreads['s']!.items['f1']!, { shrinkToFit: true });
    return folio;
  };

  test('stays as it is where it fits', () => {
    const folio = shrinking(400);
    const plain = tinyFolio([PROSE], { width: 150, height: 400 });
    expect(compose(folio).frames.get('f1')!.lines[0]!.runs[0]!.size).toBe(10);
    expect(compose(plain).stories.get('t')!.overflow).toBeNull();
  });

  test('is as large as can be: it fits, and would not at one per cent more; all sizes keep their proportion', () => {
    const folio = shrinking(110);
    const composition = compose(folio);
    expect(composition.stories.get('t')!.overflow).toBeNull();
    const { lines } = composition.frames.get('f1')!;
    const [small, large] = [lines[0]!.runs[0]!.size, lines[lines.length - 1]!.runs[0]!.size];
    expect(small).toBeLessThan(10);
    expect(large / small).toBeCloseTo(1.4, 6);
    const share = (small / 10) * 1.01;
    const bigger = tinyFolio([PROSE, [{ type: 'span', text: PROSE, overrides: { size: 14 * share } }]], {
      width: 150,
      height: 110,
      paragraph: { spaceAfter: 6 * share },
      character: { size: 10 * share, leading: 12 * share },
    });
    expect(compose(bigger).stories.get('t')!.overflow).not.toBeNull();
  });

  test('an edit sets it anew: less text is larger', () => {
    const composer = new Composer(fonts);
    const before = composer.compose(shrinking(110)).frames.get('f1')!.lines[0]!.runs[0]!.size;
    const folio = shrinking(110);
    folio.stories['t'] = { ...folio.stories['t']!, order: ['p1'] };
    expect(composer.compose(folio).frames.get('f1')!.lines[0]!.runs[0]!.size).toBeGreaterThan(before);
  });

  test('text far too long stops at three tenths, and what is over is said', () => {
    const folio = shrinking(12);
    const composition = compose(folio);
    expect(composition.frames.get('f1')!.lines[0]!.runs[0]!.size).toBeCloseTo(3, 6);
    expect(composition.stories.get('t')!.overflow).not.toBeNull();
  });

  test('the share is found by halving', () => {
    expect(shareThatFits(() => true)).toBe(1);
    expect(shareThatFits(() => false)).toBe(0.3);
    const share = shareThatFits((s) => s <= 0.7123);
    expect(share).toBeLessThanOrEqual(0.7123);
    expect(share).toBeGreaterThan(0.7);
  });
});

describe('the width of a font', () => {
  /** A copy of a face that says another width of itself (OpenType, OS/2 usWidthClass at offset 6). */
  function widened(face: FontFace, widthClass: number, key: string): FontFace {
    const bytes = Uint8Array.from(face.bytes);
    const view = new DataView(bytes.buffer);
    for (let i = 0; i < view.getUint16(4); i++) {
      const at = 12 + i * 16;
      if (String.fromCharCode(...bytes.subarray(at, at + 4)) === 'OS/2') view.setUint16(view.getUint32(at + 8) + 6, widthClass);
    }
    return new FontFace(key, face.family, face.weight, face.style, bytes);
  }

  test('is matched before style and weight; a narrow one is looked for among the narrower first (CSS Fonts 4, 5.2)', () => {
    const look = { fontFamily: 'Work Sans', fontWeight: 400, fontStyle: 'normal' as const, fontStretch: 100 };
    const normal = fonts.match(look);
    const set = new FontSet([normal, widened(normal, 3, 'condensed'), widened(normal, 7, 'expanded')]);
    const matched = (fontStretch: number, fontWeight = 400): string => set.match({ ...look, fontStretch, fontWeight }).key;
    expect(normal.stretch).toBe(100);
    expect([75, 80, 50, 110, 125, 200].map((w) => matched(w))).toEqual([
      'condensed',
      'condensed',
      'condensed',
      'expanded',
      'expanded',
      'expanded',
    ]);
    expect(matched(100, 900)).toBe(normal.key);
  });
});
