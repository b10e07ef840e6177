import { describe, expect, test } from '@jest/globals';
import { observePages } from '../src/ledger/html/observePages.ts';
import { StyleRules } from '../src/ledger/html/css.ts';
import { elementsOf, parsePage } from '../src/ledger/html/dom.ts';
import { sharpPictures } from '../src/ports/node.ts';

const see = (body: string, css = '') =>
  observePages(
    [
      {
        path: 'index.html',
        text: `<!doctype html><html lang="en"><head><title>T &amp; t</title><style>.page{width:96px;height:192px}.i,.l,.o{position:absolute}.l{white-space:pre}${css}</style></head><body>${body}</body></html>`,
      },
    ],
    { file: async () => undefined, pictures: sharpPictures },
  );
const page = (inner: string, css = '') =>
  see(`<section class="page" id="page-1">${inner}</section><section class="page" id="page-2"></section>`, css).then((d) => d.pages[0]!);

describe('reading a web page back', () => {
  test('title, language, page sizes in points', async () => {
    const d = await see('<section class="page" id="page-1"></section>');
    expect([d.title, d.language, d.pages[0]!.width, d.pages[0]!.height]).toEqual(['T & t', 'en', 72, 144]);
  });
  test('blocks, their language, looks and links', async () => {
    const { blocks } = await page(
      '<div class="i"><h2 lang="de"><span class="l t" style="left:8px;line-height:20px">Eins <a href="#page-2">zwei</a></span></h2><div role="note"><span class="l t">N</span></div></div>',
      '.t{font-size:16px;color:#112233}a{color:inherit}',
    );
    expect(blocks.map((b) => [b.role, b.text, b.language])).toEqual([
      ['h2', 'Eins zwei', 'de'],
      ['aside', 'N', 'en'],
    ]);
    expect(blocks[0]!.runs.map((r) => [r.text, r.size, r.colour, r.link])).toEqual([
      ['Eins ', 12, '#112233', undefined],
      ['zwei', 12, 'inherit', 'page:2'],
    ]);
    expect(blocks[0]!.runs[0]!.start!.x).toBe(6);
  });
  test('places through turned and shifted boxes', async () => {
    const { blocks } = await page(
      '<div class="i" style="left:40px;top:20px;transform:matrix(0,1,-1,0,0,0)"><p><span class="l" style="left:8px;top:4px;font-size:16px;line-height:0px">x</span></p></div>',
    );
    // Worked by hand: (8, 4) turned a quarter is (−4, 8); with (40, 20) that is (36, 28) px; the baseline lies (0.8 − 0.2) · 8 px further on.
    const [run] = blocks[0]!.runs;
    expect(run!.angle).toBeCloseTo(90);
    expect(run!.start!.y).toBeCloseTo(28 * 0.75);
    expect(run!.start!.x).toBeCloseTo((36 - 4.8) * 0.75);
  });
  test('what assistive technology does not get is loose text', async () => {
    const { blocks, loose } = await page('<div class="i" aria-hidden="true"><span class="l">7</span></div>');
    expect([blocks.length, loose.map((r) => r.text)]).toEqual([0, ['7']]);
  });
  test('figures with and without words; outlines with fill and stroke joined', async () => {
    const seen = await page(
      '<div class="i" data-item="a"><img src="x.png" alt="Moon" style="width:40px;height:20px"></div><div class="i" data-item="b" style="left:4px"><svg class="o" width="40" height="40" viewBox="0 0 30 30"><path d="M0 0L30 0L30 30Z" fill="#ff0000" stroke="none"></path></svg><svg class="o" width="40" height="40" viewBox="0 0 30 30"><path d="M0 0L30 0L30 30Z" fill="none" stroke="#0000ff"></path></svg></div>',
    );
    expect(seen.blocks.map((b) => [b.role, b.alt])).toEqual([['figure', 'Moon']]);
    expect(seen.pictures[0]!.picture).toHaveLength(0);
    expect(seen.shapes).toEqual([{ box: { x: 3, y: 0, width: 30, height: 30 }, fill: '#ff0000', stroke: '#0000ff' }]);
  });
});

describe('style sheets', () => {
  const styleOf = (css: string, html: string, id: string) => {
    const rules = new StyleRules();
    rules.add(css);
    const all = [...elementsOf(parsePage(html))];
    return rules.styleOf(
      all.find((e) => e.attrs.some((a) => a.name === 'id' && a.value === id))!,
      all.slice(0, -1),
    );
  };
  // CSS Cascade 4, 6.4: importance of selectors, then order; an element's own style wins.
  test('the more specific rule wins, then the later one, then the element’s own', () => {
    expect(styleOf('#x{color:a}.c{color:b}p{color:c}', '<p id="x" class="c">', 'x')['color']).toBe('a');
    expect(styleOf('.c{color:a}.c{color:b}', '<p id="x" class="c">', 'x')['color']).toBe('b');
    expect(styleOf('#x{color:a}', '<p id="x" style="color:z">', 'x')['color']).toBe('z');
  });
  test('descendants match below, not beside; media rules are passed over', () => {
    expect(styleOf('.l *{color:a}', '<p class="l"><b id="x">', 'x')['color']).toBe('a');
    expect(styleOf('.q b{color:a}@media print{b{color:z}}', '<p class="l"><b id="x">', 'x')['color']).toBeUndefined();
  });
  test('font faces are listed', () => {
    const rules = new StyleRules();
    rules.add('@font-face{font-family:"A b";src:url("f/a.woff2") format("woff2")}');
    expect(rules.fontFaces).toEqual([{ family: 'A b', source: 'f/a.woff2' }]);
  });
});
