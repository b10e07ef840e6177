import { describe, expect, test } from '@jest/globals';
import { zipSync } from 'fflate';
import { observeOdp } from '../../src/ledger/odf/observeOdp.ts';
import type { ObservedOdp } from '../../src/ledger/odf/observeOdp.ts';
import { observeOdt } from '../../src/ledger/odf/observeOdt.ts';
import type { ObservedFlow } from '../../src/ledger/flow/observedFlow.ts';
import { sharpPictures } from '../../src/ports/node.ts';
import { handMadeOdf, NS, style } from '../support/handMadeOdf.ts';
import type { OdfParts } from '../support/handMadeOdf.ts';

const outside = { pictures: sharpPictures, beside: async () => undefined };
const text = (parts: OdfParts): Promise<ObservedFlow> => observeOdt(handMadeOdf(parts), outside);
const slides = (parts: OdfParts): Promise<ObservedOdp> => observeOdp(handMadeOdf({ kind: 'presentation', ...parts }), outside);
const words = (f: ObservedFlow): string[] => f.blocks.map((b) => (b.label === undefined ? b.text : `[${b.label}] ${b.text}`));
describe('text', () => {
  test('title and language, paragraphs and headings with their level', async () => {
    const seen = await text({ body: '<text:h text:outline-level="2">Over it</text:h><text:p>Below</text:p>' });
    expect([seen.title, seen.language]).toEqual(['A title', 'de-AT']);
    expect(seen.blocks.map((b) => [b.element, b.text])).toEqual([
      ['h2', 'Over it'],
      ['p', 'Below'],
    ]);
  });
  test('spaces, tabs and breaks are what they stand for; rows of spaces in the file are one (6.1.2, 6.1.3)', async () => {
    const seen = await text({ body: '<text:p>a   b<text:s text:c="3"/>c<text:tab/>d<text:line-break/>e</text:p>' });
    expect(words(seen)).toEqual(['a b   c d e']);
  });
  test('a look is that of the innermost span, then of the ones around it, then of the paragraph and what it is based on', async () => {
    const seen = await text({
      styles:
        style('base', 'paragraph', '<style:text-properties fo:font-family="Tinos" fo:font-size="12pt" fo:color="#112233"/>') +
        style('own', 'paragraph', '<style:paragraph-properties fo:text-align="end"/><style:text-properties fo:font-size="14pt"/>', 'base') +
        style('strong', 'text', '<style:text-properties fo:font-weight="700"/>'),
      automatic: style('T1', 'text', '<style:text-properties fo:color="#445566" style:text-position="super 58%"/>'),
      body: '<text:p text:style-name="own">plain <text:span text:style-name="strong">bold <text:span text:style-name="T1">up</text:span></text:span></text:p>',
    });
    const [plain, bold, up] = seen.blocks[0]!.runs;
    expect(plain!.look).toMatchObject({ family: 'Tinos', size: 14, colour: '#112233', weight: '400', align: 'right' });
    expect(bold!.look).toMatchObject({ weight: '700', colour: '#112233', position: 'normal' });
    expect(up!.look).toMatchObject({ weight: '700', colour: '#445566', position: 'superscript' });
  });
  test('styles of single places in one part are not those of the other (part 3, 3.1.3)', async () => {
    const seen = await text({
      automatic: style('P1', 'paragraph', '<style:text-properties fo:font-size="20pt"/>'),
      masterStyles: style('P1', 'paragraph', '<style:text-properties fo:font-size="5pt"/>'),
      body: '<text:p text:style-name="P1">large</text:p>',
    });
    expect(seen.blocks[0]!.look.size).toBe(20);
  });
  test('lists are counted by their style: with what stands around, with levels above, anew where they do not go on', async () => {
    const list = `<text:list-style style:name="L">
      <text:list-level-style-number text:level="1" style:num-format="1" style:num-suffix="."/>
      <text:list-level-style-number text:level="2" style:num-format="a" style:num-prefix="(" style:num-suffix=")" text:display-levels="2"/>
      <text:list-level-style-bullet text:level="3" text:bullet-char="•"/></text:list-style>`;
    const item = (inside: string, more = ''): string => `<text:list-item${more}>${inside}</text:list-item>`;
    const p = (t: string): string => `<text:p>${t}</text:p>`;
    const seen = await text({
      styles: list,
      body:
        `<text:list text:style-name="L">${item(p('one'))}${item(`${p('two')}<text:list>${item(`${p('deep')}<text:list>${item(p('dot'))}</text:list>`)}</text:list>`)}</text:list>` +
        `<text:list text:style-name="L" text:continue-numbering="true">${item(p('three'))}</text:list>` +
        `<text:list text:style-name="L">${item(p('anew'))}${item(p('seven'), ' text:start-value="7"')}</text:list>`,
    });
    expect(words(seen)).toEqual(['[1.] one', '[2.] two', '[(2.a)] deep', '[•] dot', '[3.] three', '[1.] anew', '[7.] seven']);
    expect(new Set(seen.blocks.map((b) => b.element))).toEqual(new Set(['li']));
  });
  test('notes are read apart, by the number of their reference', async () => {
    const seen = await text({
      body: '<text:p>Said<text:note text:note-class="footnote"><text:note-citation>3</text:note-citation><text:note-body><text:p>Why</text:p></text:note-body></text:note> so</text:p>',
    });
    expect(words(seen)).toEqual(['Said so']);
    expect(seen.notes).toEqual([{ number: '3', text: 'Why', back: true }]);
  });
  test('contents list what is there; links, references and pictures that lead to nothing are faults', async () => {
    const seen = await text({
      body:
        '<text:table-of-content><text:index-body><text:p><text:a xlink:href="#there">Chapter<text:tab/>12</text:a></text:p><text:p><text:a xlink:href="#lost">Lost</text:a></text:p></text:index-body></text:table-of-content>' +
        '<text:h text:outline-level="1"><text:bookmark text:name="there"/>Chapter</text:h>' +
        '<text:p><text:a xlink:href="#nowhere">link</text:a> <text:bookmark-ref text:ref-name="gone">5</text:bookmark-ref><draw:frame><draw:image xlink:href="Pictures/none.png"/><svg:desc>A hill</svg:desc></draw:frame></text:p>',
    });
    expect(seen.outline).toEqual([
      { text: 'Chapter', found: true },
      { text: 'Lost', found: false },
    ]);
    expect(seen.problems.map((p) => p.says)).toEqual([
      'a link leads to “nowhere”, which is not there',
      'a reference is to “gone”, which is not there',
      'a picture leads to Pictures/none.png, which is not there',
    ]);
    expect(seen.figures).toEqual([{ alt: 'A hill', caption: '', picture: undefined, after: 2 }]);
  });
  test('initials are said of a style, and taken back by one over a single line (17.9)', async () => {
    const seen = await text({
      styles: style('first', 'paragraph', '<style:paragraph-properties><style:drop-cap style:lines="3"/></style:paragraph-properties>'),
      automatic: style(
        'P1',
        'paragraph',
        '<style:paragraph-properties><style:drop-cap style:lines="1"/></style:paragraph-properties>',
        'first',
      ),
      body: '<text:p text:style-name="first">Large</text:p><text:p text:style-name="P1">Small</text:p>',
    });
    expect(seen.blocks.map((b) => b.initial)).toEqual([true, false]);
  });
  test('a table: rows that head it, cells over several places, grounds and lines in points', async () => {
    const cell = (inside: string, more = ''): string => `<table:table-cell${more}><text:p>${inside}</text:p></table:table-cell>`;
    const seen = await text({
      automatic: style(
        'Z',
        'table-cell',
        '<style:table-cell-properties fo:background-color="#ABCDEF" fo:border="1mm solid #000000" fo:border-top="none"/>',
      ),
      body: `<table:table><table:table-column/><table:table-column/><table:table-header-rows><table:table-row>${cell('head', ' table:number-columns-spanned="2"')}<table:covered-table-cell/></table:table-row></table:table-header-rows><table:table-row>${cell('a', ' table:style-name="Z"')}${cell('b')}</table:table-row></table:table>`,
    });
    const [[head], [a, b]] = seen.tables[0]! as [[(typeof seen.tables)[0][0][0]], (typeof seen.tables)[0][0]];
    expect(head).toMatchObject({ text: 'head', heading: true, columns: 2, ground: null });
    expect(a).toMatchObject({ text: 'a', heading: false, ground: '#abcdef' });
    expect(a!.lines[0]).toBeNull();
    expect(a!.lines[1]!.em).toBeCloseTo(72 / 25.4, 6);
    expect(b!.lines).toEqual([null, null, null, null]);
  });
});

describe('slides', () => {
  const PAGE = (inside: string, more = ''): string =>
    `<draw:page draw:name="Page 1" draw:master-page-name="M"${more}>${inside}</draw:page>`;
  test('pages are as large as the layout of their master, in any unit (18.3.18)', async () => {
    const { pages } = await slides({ body: PAGE('') });
    expect(pages[0]!.width).toBeCloseTo((10 / 2.54) * 72, 6);
    expect(pages[0]!.height).toBe(360);
  });
  test('what stands on a master is seen where a page shows it, and not read', async () => {
    const masters = `<style:master-page style:name="M" style:page-layout-name="PL"><draw:frame svg:width="50pt" svg:height="10pt"><draw:text-box><text:p>Foot <text:page-number>9</text:page-number></text:p></draw:text-box></draw:frame></style:master-page>`;
    const shows = (v: boolean): string =>
      style(v ? 'on' : 'off', 'drawing-page', `<style:drawing-page-properties presentation:background-objects-visible="${v}"/>`);
    const seen = await slides({
      masters,
      automatic: shows(true) + shows(false),
      body: PAGE('', ' draw:style-name="on"') + PAGE('', ' draw:style-name="off"'),
    });
    expect(seen.pages.map((p) => p.loose.map((l) => l.text))).toEqual([['Foot 1'], []]);
    expect(seen.flow.blocks).toEqual([]);
  });
  test('a box stands by its corner or by a matrix; its text has the room that padding leaves', async () => {
    const automatic = style(
      'G',
      'graphic',
      '<style:graphic-properties fo:padding-left="4pt" fo:padding-top="1pt" draw:fill="solid" draw:fill-color="#ff0000"/>',
    );
    const frame = (place: string): string =>
      `<draw:frame draw:style-name="G" svg:width="40pt" svg:height="20pt" ${place}><draw:text-box><text:p>x</text:p></draw:text-box></draw:frame>`;
    const { pages } = await slides({
      automatic,
      body: PAGE(frame('svg:x="10pt" svg:y="5pt"') + frame('draw:transform="matrix(0 1 -1 0 100pt 50pt)"')),
    });
    expect(pages[0]!.boxes).toEqual([
      { x: 14, y: 6, width: 36, height: 19 },
      // Turned by a quarter: 40 points go down from (100, 50), 20 to the left.
      { x: 80, y: 54, width: 19, height: 36 },
    ]);
    expect(pages[0]!.shapes[1]).toEqual({ box: { x: 80, y: 50, width: 20, height: 40 }, fill: '#ff0000', stroke: null });
  });
  test('a path is as large as its numbers go, in the box of its view', async () => {
    const automatic = style('G', 'graphic', '<style:graphic-properties draw:stroke="solid" svg:stroke-color="#00ff00"/>');
    const { pages } = await slides({
      automatic,
      body: PAGE(
        '<draw:path draw:style-name="G" svg:x="10pt" svg:y="10pt" svg:width="20pt" svg:height="20pt" svg:viewBox="0 0 100 100" svg:d="M0 50L50 50L50 100Z"/>',
      ),
    });
    expect(pages[0]!.shapes).toEqual([{ box: { x: 10, y: 20, width: 10, height: 10 }, fill: null, stroke: '#00ff00' }]);
  });
  test('presses lead to addresses and to pages by their names; how a page comes and goes on', async () => {
    const press = (href: string): string =>
      `<draw:frame svg:width="5pt" svg:height="5pt"><draw:text-box/><office:event-listeners><presentation:event-listener script:event-name="dom:click" presentation:action="show" xlink:href="${href}"/></office:event-listeners></draw:frame>`;
    const seen = await slides({
      automatic: style('d', 'drawing-page', '<style:drawing-page-properties smil:type="fade" presentation:duration="PT2.5S"/>'),
      body:
        PAGE(press('#The end') + press('https://hill.example/') + press('#Nowhere'), ' draw:style-name="d"') +
        '<draw:page draw:name="The end" draw:master-page-name="M"/>',
    });
    // One that leads to no page is told as it stands.
    expect(seen.pages[0]!.areas.map((a) => a.target)).toEqual(['page:2', 'https://hill.example/', '#Nowhere']);
    expect(seen.motion[0]).toEqual({ type: 'fade', advance: 2.5 });
  });
  test('files that are not listed, or listed and not there, are faults; so is a page without a master', async () => {
    const seen = await observeOdp(
      zipSync({
        mimetype: new Uint8Array(),
        'content.xml': new TextEncoder().encode(
          `<office:document-content ${NS}><office:body><office:presentation><draw:page draw:name="P"/></office:presentation></office:body></office:document-content>`,
        ),
        'META-INF/manifest.xml': new TextEncoder().encode(
          `<manifest:manifest ${NS}><manifest:file-entry manifest:full-path="styles.xml"/></manifest:manifest>`,
        ),
      }),
      outside,
    );
    expect(seen.flow.problems.map((p) => p.says)).toEqual(['it is not listed', 'it is listed, and not there', 'P has no master page']);
  });
});
