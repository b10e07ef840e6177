import { describe, expect, test } from '@jest/globals';
import { zipSync } from 'fflate';
import { observeSlides } from '../../src/ledger/office/observeSlides.ts';
import type { ObservedDeck } from '../../src/ledger/office/observeSlides.ts';
import { redrawSlide } from '../../src/preview/ooxml/redrawSlide.ts';
import { sharpPictures } from '../../src/ports/node.ts';

/** Decks written by hand after the standard’s own examples (ISO/IEC 29500-1, 19 and 21), not by the writer here. */
const NS =
  'xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" xmlns:p="http://schemas.openxmlformats.org/presentationml/2006/main"';
const TYPE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const rels = (list: [string, string, string, string?][]): string =>
  `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${list
    .map(
      ([id, type, target, mode]) =>
        `<Relationship Id="${id}" Type="${TYPE}/${type}" Target="${target}"${mode ? ` TargetMode="${mode}"` : ''}/>`,
    )
    .join('')}</Relationships>`;
const tree = (shapes: string): string =>
  `<p:cSld><p:spTree><p:nvGrpSpPr><p:cNvPr id="1" name=""/><p:cNvGrpSpPr/><p:nvPr/></p:nvGrpSpPr><p:grpSpPr/>${shapes}</p:spTree></p:cSld>`;
const shape = (id: number, box: string, body: string, more = '', ph = ''): string =>
  `<p:sp><p:nvSpPr><p:cNvPr id="${id}" name="S${id}">${more}</p:cNvPr><p:cNvSpPr/><p:nvPr>${ph}</p:nvPr></p:nvSpPr><p:spPr>${box}</p:spPr>${
    body && `<p:txBody><a:bodyPr lIns="12700" tIns="25400" rIns="38100" bIns="50800"/>${body}</p:txBody>`
  }</p:sp>`;
const at = (x: number, y: number, w: number, h: number, more = ''): string =>
  `<a:xfrm${more}><a:off x="${x * 12700}" y="${y * 12700}"/><a:ext cx="${w * 12700}" cy="${h * 12700}"/></a:xfrm><a:prstGeom prst="rect"><a:avLst/></a:prstGeom>`;

interface Parts {
  slides: string[];
  layout?: string;
  slideRels?: [string, string, string, string?][];
  first?: number;
}
function deck({ slides, layout = tree(''), slideRels = [], first }: Parts): Uint8Array {
  const files: Record<string, string> = {
    '[Content_Types].xml': `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Default Extension="rels" ContentType="application/xml"/></Types>`,
    '_rels/.rels': rels([['rId1', 'officeDocument', 'ppt/presentation.xml']]),
    'ppt/presentation.xml': `<p:presentation ${NS}${first === undefined ? '' : ` firstSlideNum="${first}"`}><p:sldIdLst>${slides.map((_, i) => `<p:sldId id="${256 + i}" r:id="s${i}"/>`).join('')}</p:sldIdLst><p:sldSz cx="5080000" cy="3810000"/></p:presentation>`,
    'ppt/_rels/presentation.xml.rels': rels(slides.map((_, i) => [`s${i}`, 'slide', `slides/page${i}.xml`])),
    'ppt/slideLayouts/l.xml': `<p:sldLayout ${NS}>${layout}</p:sldLayout>`,
  };
  slides.forEach((inside, i) => {
    files[`ppt/slides/page${i}.xml`] = `<p:sld ${NS}>${inside}</p:sld>`;
    files[`ppt/slides/_rels/page${i}.xml.rels`] = rels([['l', 'slideLayout', '../slideLayouts/l.xml'], ...slideRels]);
  });
  return zipSync(Object.fromEntries(Object.entries(files).map(([k, v]) => [k, new TextEncoder().encode(v)])));
}
const observe = (parts: Parts): Promise<ObservedDeck> =>
  observeSlides(deck(parts), { pictures: sharpPictures, beside: async () => undefined });
const run = (text: string, rPr = ''): string => `<a:r><a:rPr lang="en"${rPr}/><a:t>${text}</a:t></a:r>`;
const p = (inside: string, pPr = ''): string => `<a:p>${pPr}${inside}</a:p>`;

describe('reading slides', () => {
  test('their size, their order and the boxes of their text, room around it taken off', async () => {
    const seen = await observe({
      slides: [tree(shape(2, at(10, 20, 100, 50), p(run('First')))), tree(shape(2, at(0, 0, 10, 10), p(run('Second'))))],
    });
    expect(seen.pages.map(({ width, height }) => [width, height])).toEqual([
      [400, 300],
      [400, 300],
    ]);
    expect(seen.flow.blocks.map((b) => b.text)).toEqual(['First', 'Second']);
    // 1, 2, 3 and 4 points on the left, above, on the right and below.
    expect(seen.pages[0]!.boxes).toEqual([{ x: 11, y: 22, width: 96, height: 44 }]);
    expect(seen.flow.problems).toEqual([]);
  });
  test('numbers of lists count on, begin where they say, and anew below a higher level', async () => {
    const counted = (type: string, more = ''): string => `<a:pPr${more}><a:buAutoNum type="${type}"/></a:pPr>`;
    const seen = await observe({
      slides: [
        tree(
          shape(
            2,
            at(0, 0, 100, 100),
            p(run('a'), counted('arabicPeriod')) +
              p(run('b'), counted('arabicPeriod')) +
              p(run('c'), counted('alphaLcParenR', ' lvl="1"')) +
              p(run('d'), counted('arabicPeriod')) +
              p(run('e'), counted('alphaLcParenR', ' lvl="1"')) +
              p(run('f')) +
              p(run('g'), '<a:pPr><a:buAutoNum type="romanUcParenBoth" startAt="4"/></a:pPr>') +
              p(run('h'), '<a:pPr><a:buChar char="–"/></a:pPr>'),
          ),
        ),
      ],
    });
    expect(seen.flow.blocks.map((b) => b.text)).toEqual(['1. a', '2. b', 'a) c', '3. d', 'a) e', 'f', '(IV) g', '– h']);
  });
  test('links to addresses and slides; one that leads nowhere is a fault', async () => {
    const link = (id: string, action = ''): string => `<a:r><a:rPr><a:hlinkClick r:id="${id}"${action}/></a:rPr><a:t>here</a:t></a:r>`;
    const seen = await observe({
      slides: [tree(shape(2, at(0, 0, 9, 9), p(link('out') + link('in', ' action="ppaction://hlinksldjump"') + link('none')))), tree('')],
      slideRels: [
        ['out', 'hyperlink', 'https://hill.example/', 'External'],
        ['in', 'slide', 'page1.xml'],
      ],
    });
    expect(seen.flow.blocks[0]!.links.map((l) => l.href)).toEqual(['https://hill.example/', '#2', '']);
    expect(seen.flow.problems.map((x) => x.says)).toEqual(['a link leads to nothing']);
  });
  test('things of a group stand where its space is laid', async () => {
    const group = `<p:grpSp><p:nvGrpSpPr><p:cNvPr id="9" name="G"/><p:cNvGrpSpPr/><p:nvPr/></p:nvGrpSpPr><p:grpSpPr><a:xfrm><a:off x="1270000" y="635000"/><a:ext cx="1270000" cy="1270000"/><a:chOff x="0" y="0"/><a:chExt cx="2540000" cy="2540000"/></a:xfrm></p:grpSpPr>${shape(2, `${at(20, 40, 60, 80)}<a:solidFill><a:srgbClr val="FF0000"/></a:solidFill>`, '')}</p:grpSp>`;
    const seen = await observe({ slides: [tree(group)] });
    // Half as large, and moved by (100, 50).
    expect(seen.pages[0]!.shapes).toEqual([{ box: { x: 110, y: 70, width: 30, height: 40 }, fill: '#ff0000', stroke: null }]);
  });
  test('a place that says no box of its own has that of its layout, which is no part of what is seen', async () => {
    const seen = await observe({
      layout: tree(shape(5, at(50, 60, 70, 80), p(run('Heading')), '', '<p:ph type="title"/>')),
      slides: [tree(shape(2, '', p(run('Own')), '', '<p:ph type="title"/>'))],
    });
    expect(seen.pages[0]!.boxes).toEqual([{ x: 51, y: 62, width: 66, height: 74 }]);
    expect(seen.flow.blocks.map((b) => b.text)).toEqual(['Own']);
    expect(seen.pages[0]!.loose).toEqual([]);
  });
  test('what stands on a layout is seen and not read; numbers of slides are counted', async () => {
    const number = `<a:fld id="{00000000-0000-0000-0000-000000000001}" type="slidenum"><a:rPr/><a:t>?</a:t></a:fld>`;
    const seen = await observe({ first: 7, layout: tree(shape(5, at(0, 0, 9, 9), p(number))), slides: [tree(''), tree('')] });
    expect(seen.pages.map((x) => x.loose.map((l) => l.text))).toEqual([['7'], ['8']]);
    expect(seen.flow.blocks).toEqual([]);
  });
  test('two shapes of one number are a fault, and so is a slide that is not there', async () => {
    const seen = await observe({ slides: [tree(shape(2, at(0, 0, 1, 1), '') + shape(2, at(0, 0, 1, 1), ''))] });
    expect(seen.flow.problems.map((x) => x.says)).toEqual(['two shapes have the number 2']);
  });
  test('tables with cells that are merged; heads by the first row and column', async () => {
    const cell = (text: string, more = ''): string =>
      `<a:tc${more}><a:txBody><a:bodyPr/>${p(text && run(text))}</a:txBody><a:tcPr/></a:tc>`;
    const table = `<p:graphicFrame><p:nvGraphicFramePr><p:cNvPr id="4" name="T"/><p:cNvGraphicFramePr/><p:nvPr/></p:nvGraphicFramePr><p:xfrm><a:off x="0" y="0"/><a:ext cx="127000" cy="127000"/></p:xfrm><a:graphic><a:graphicData><a:tbl><a:tblPr firstRow="1" firstCol="1"/><a:tblGrid><a:gridCol w="1"/><a:gridCol w="1"/></a:tblGrid><a:tr h="1">${cell('over', ' gridSpan="2"')}${cell('', ' hMerge="1"')}</a:tr><a:tr h="1">${cell('a')}${cell('b')}</a:tr></a:tbl></a:graphicData></a:graphic></p:graphicFrame>`;
    const [rows] = (await observe({ slides: [tree(table)] })).flow.tables;
    expect(rows!.map((r) => r.map((c) => [c.text, c.heading, c.columns]))).toEqual([
      [['over', true, 2]],
      [
        ['a', true, 1],
        ['b', false, 1],
      ],
    ]);
  });
  test('how slides come, when they go on, and what happens on them', async () => {
    const timing = `<p:timing><p:tnLst><p:par><p:cTn id="1"><p:childTnLst><p:par><p:cTn id="2" presetID="10" presetClass="entr"/></p:par></p:childTnLst></p:cTn></p:par></p:tnLst></p:timing>`;
    const seen = await observe({
      slides: [`${tree('')}<p:transition spd="med" advTm="1500"><p:push dir="u"/></p:transition>${timing}`, tree('')],
    });
    expect(seen.motion).toEqual([
      { transition: { kind: 'push', speed: 'med', dir: 'u' }, advance: 1.5, effects: 1, media: 0 },
      { transition: null, advance: null, effects: 0, media: 0 },
    ]);
  });
  test('a part that is no XML is told, and the others are read', async () => {
    const seen = await observe({ slides: ['<p:cSld>', tree(shape(2, at(0, 0, 9, 9), p(run('Whole'))))] });
    expect(seen.flow.blocks.map((b) => b.text)).toEqual(['Whole']);
    expect(seen.flow.problems.length).toBeGreaterThan(0);
  });
});

describe('drawing slides', () => {
  const one = deck({
    slides: [
      tree(shape(2, at(10, 20, 100, 50, ' rot="5400000"'), p(run('&lt;Words&gt; &amp; "more"', ' sz="1250" b="1"')))),
      tree(shape(3, at(1, 1, 9, 9), p(run('Other')))),
    ],
  });
  test('the one asked for, as large as it is, its text as text', async () => {
    const html = await redrawSlide([one], async () => undefined, 1);
    expect(html).toContain('width:400pt;height:300pt');
    expect(html).toContain('left:10pt;top:20pt;width:100pt;height:50pt;transform:rotate(90deg)');
    expect(html).toContain('font-size:12.5pt;font-weight:700');
    expect(html).toContain('&lt;Words&gt; &amp; &quot;more&quot;');
    expect(html).not.toContain('Other');
  });
  test('slides of several files are counted through', async () => {
    expect(await redrawSlide([one, one], async () => undefined, 4)).toContain('Other');
    expect(await redrawSlide([one], async () => undefined, 9)).not.toContain('section');
  });
  test('typefaces that are at hand come along where they are asked for', async () => {
    const face = (family: string) => ({ family, bold: false, italic: false, bytes: new Uint8Array([1, 2, 3]) });
    const named = deck({
      slides: [tree(shape(2, at(0, 0, 9, 9), `<a:p><a:r><a:rPr><a:latin typeface="Tinos"/></a:rPr><a:t>x</a:t></a:r></a:p>`))],
    });
    const html = await redrawSlide([named], async () => undefined, 1, [face('Tinos'), face('Arimo')]);
    expect(html).toContain("@font-face{font-family:'Tinos'");
    expect(html).not.toContain('Arimo');
  });
});
