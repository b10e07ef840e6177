import { beforeAll, describe, expect, test } from '@jest/globals';
import { parseFragment } from 'parse5';
import type { DefaultTreeAdapterTypes } from 'parse5';
import { Composer } from '../src/compose/index.ts';
import type { FontSet, SetLine } from '../src/compose/index.ts';
import type { Folio, Inline } from '../src/index.ts';
import { paintLine } from '../src/paint/html/paintLine.ts';
import { baselineInBox } from '../src/paint/html/metrics.ts';
import { LookSheet } from '../src/paint/html/styleSheet.ts';
import { fontsOf } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

let fonts: FontSet;
beforeAll(async () => {
  fonts = await fontsOf(tinyFolio(['x']));
});

type Element = DefaultTreeAdapterTypes.Element;
interface Box {
  tag: string;
  a: Record<string, string>;
  text: string;
  inner: Box[];
}
const read = (node: DefaultTreeAdapterTypes.ParentNode): Box[] =>
  node.childNodes.flatMap((n): Box[] =>
    'tagName' in n
      ? [
          {
            tag: n.tagName,
            a: Object.fromEntries((n as Element).attrs.map((x) => [x.name, x.value])),
            text: textOf(n as Element),
            inner: read(n as Element),
          },
        ]
      : [],
  );
const textOf = (node: DefaultTreeAdapterTypes.ParentNode): string =>
  node.childNodes.map((n) => ('value' in n ? n.value : 'childNodes' in n ? textOf(n) : '')).join('');

interface Painted {
  html: string;
  boxes: Box[];
  css: string;
  lines: SetLine[];
  looks: LookSheet;
}
/** The lines of a document's text as HTML, each with whether more follows. */
function paint(folio: Folio, href: (link: string) => { href: string; newWindow: boolean } | undefined = () => undefined): Painted {
  const { lines } = new Composer(fonts).compose(folio).frames.get('f1')!;
  const looks = new LookSheet(folio.head.swatches);
  const html = lines.map((l, i) => paintLine(l, { head: folio.head, looks, language: 'en', href }, i < lines.length - 1)).join('');
  return { html, boxes: read(parseFragment(html)), css: looks.css(), lines, looks };
}
const style = (box: Box): Record<string, string> =>
  Object.fromEntries(
    (box.a['style'] ?? '')
      .split(';')
      .filter(Boolean)
      .map((d) => d.split(/:(.*)/s).slice(0, 2) as [string, string]),
  );
const span = (text: string, overrides?: object): Inline => ({ type: 'span', text, ...(overrides && { overrides }) });

describe('lines as placed HTML', () => {
  test('a plain line is one box whose baseline stands where the typesetter put it (CSS 2.2, 10.8.1)', () => {
    const { boxes, lines } = paint(tinyFolio(['word'], { width: 300 }));
    expect(boxes).toHaveLength(1);
    const s = style(boxes[0]!);
    const font = lines[0]!.runs[0]!.font;
    const baseline = Number.parseFloat(s['top']!) + baselineInBox(font, (10 * 4) / 3, Number.parseFloat(s['line-height']!));
    expect(baseline).toBeCloseTo((lines[0]!.baseline * 4) / 3, 2);
    expect(boxes[0]!.text).toBe('word');
  });

  test('what is markup to HTML is text here', () => {
    const { boxes } = paint(tinyFolio(['<b onclick="x">&amp;</b>'], { width: 400 }));
    expect(boxes.map((b) => [b.tag, b.text, b.inner])).toEqual([['span', '<b onclick="x">&amp;</b>', []]]);
  });

  test('lines join with the space that stood at their break, and divided words without one', () => {
    const text = 'Extraordinary observations notwithstanding, nobody misunderstands considerable dignity';
    const folio = tinyFolio([text], {
      width: 90,
      height: 900,
      paragraph: { align: 'justify', composer: 'totalFit', hyphenation: { before: 2, after: 3, inARow: 0, capitals: false } },
    });
    const { html, css, lines } = paint(folio);
    expect(lines.some((l) => l.runs.at(-1)!.text.endsWith('\u00AD'))).toBe(true);
    expect(textOf(parseFragment(html))).toBe(text);
    expect(html).not.toContain('\u00AD');
    // The hyphen is generated, with nothing for assistive technology to read (CSS Generated Content 3, alternative text).
    expect(css).toMatch(/\.h[py]::after\{content:"[\u2010-]";content:"[\u2010-]"\/""\}/);
  });

  test('the font’s reduced form has the hyphen that only the style sheet names', () => {
    const { looks, lines } = paint(tinyFolio(['Mond\u00ADfinsternis'], { width: 40, height: 900 }));
    const hyphen = lines[0]!.runs[0]!.font.glyphFor(0x2010) ? 0x2010 : 0x2d;
    expect([...looks.fonts()[0]!.characters]).toContain(hyphen);
  });

  test('a tab begins a new box, a leader is hidden from assistive technology', () => {
    const folio = tinyFolio([[span('Entry'), { type: 'tab' }, span('12')]], {
      width: 150,
      paragraph: { tabs: [{ at: 150, align: 'right', leader: '. ' }] },
    });
    const { boxes, html } = paint(folio);
    expect(boxes.map((b) => [b.text.replace(/(\. )+/, '…'), b.a['aria-hidden']])).toEqual([
      ['Entry', undefined],
      ['…', 'true'],
      ['12', undefined],
    ]);
    expect(textOf(parseFragment(html.replace(/<span[^>]*aria-hidden[^>]*>[^<]*<\/span>/, '')))).toBe('Entry 12');
  });

  test('widened letters are scaled in a box of their own, their spacing told before that', () => {
    const { boxes, css } = paint(tinyFolio([[span('wide ', { horizontalScale: 1.5, tracking: 100 }), span('plain')]], { width: 400 }));
    expect(boxes.map((b) => b.text)).toEqual(['wide ', 'plain']);
    expect(style(boxes[0]!)['transform']).toBe('matrix(1.5,0,0,1,0,0)');
    // 100/1000 em of 10 pt are 1 pt, that is 1.33333 px.
    expect(css).toContain('letter-spacing:1.33333px');
  });

  test('raised letters keep the line’s box where it is', () => {
    const { boxes } = paint(tinyFolio([[span('x'), span('2', { position: 'superscript' }), span(' y')]], { width: 400 }));
    expect(boxes).toHaveLength(1);
    expect(boxes[0]!.inner.map((i) => i.text)).toEqual(['x', '2', ' y']);
    const alone = paint(tinyFolio([[span('2', { position: 'superscript' })]], { width: 400 }));
    expect(alone.css).not.toContain('position:relative');
  });

  test('languages and safe links are on their runs; new windows do not know where they came from', () => {
    const folio = tinyFolio([[span('see '), { type: 'span', text: 'there', link: 'l1' }, span(' und hier', { language: 'de' })]], {
      width: 400,
    });
    const { boxes } = paint(folio, () => ({ href: 'https://marrowby.example/?a=1&b=2', newWindow: true }));
    const [line] = boxes;
    const link = line!.inner.find((i) => i.tag === 'a')!;
    expect(link.a).toMatchObject({ href: 'https://marrowby.example/?a=1&b=2', target: '_blank', rel: 'noopener' });
    expect(line!.inner.find((i) => i.text === ' und hier')!.a['lang']).toBe('de');
    expect(paint(folio).html).not.toContain('<a');
  });

  test('looks are classes, each made once, whatever the number of lines', () => {
    const { css, boxes } = paint(tinyFolio(['one two three four five six seven eight nine ten'], { width: 40, height: 900 }));
    expect(boxes.length).toBeGreaterThan(4);
    expect(new Set(boxes.map((b) => b.a['class'])).size).toBe(1);
    expect(css.split('\n')).toHaveLength(1);
  });
});
