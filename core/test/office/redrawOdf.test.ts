import sharp from 'sharp';
import { describe, expect, test } from '@jest/globals';
import { redrawOdp, redrawOdt } from '../../src/preview/opendocument/redrawOdf.ts';
import { readText } from '../../src/index.ts';
import { sharpPictures } from '../../src/ports/node.ts';
import { writerById } from '../../src/write/index.ts';
import { handMadeOdf, style } from '../support/handMadeOdf.ts';
import type { OdfParts } from '../support/handMadeOdf.ts';
import { fontsOf, make, SAMPLES, sample } from '../support/samples.ts';
import { ofToday } from '../support/ofToday.ts';

const outside = {
  beside: async () => undefined,
  faces: [],
  sizeOf: (bytes: Uint8Array) => sharpPictures.info(bytes),
};
const text = (parts: OdfParts, more?: Record<string, Uint8Array>): Promise<string> => redrawOdt(handMadeOdf(parts, more), 1, outside);
const slide = (parts: OdfParts, page = 1, more?: Record<string, Uint8Array>): Promise<string> =>
  redrawOdp(handMadeOdf({ kind: 'presentation', ...parts }, more), page, outside);
const PAGE = (inside: string, more = ''): string => `<draw:page draw:name="One" draw:master-page-name="M"${more}>${inside}</draw:page>`;
const red = async (width: number, height: number): Promise<Uint8Array> =>
  new Uint8Array(
    await sharp({ create: { width, height, channels: 3, background: '#f00' } })
      .png()
      .toBuffer(),
  );

describe('an open text document, drawn from its bytes', () => {
  test('has the size and the margins of its paper', async () => {
    expect(await text({ body: '<text:p>x</text:p>' })).toContain(`width:${(10 / 2.54) * 72}pt`);
  });
  test('paragraphs and words are in their styles; what is based on another has that as well', async () => {
    const html = await text({
      body: '<text:p text:style-name="B">one <text:span text:style-name="T">two</text:span></text:p>',
      styles:
        style(
          'A',
          'paragraph',
          '<style:paragraph-properties fo:text-align="center" fo:margin-top="1cm"/><style:text-properties fo:font-family="Tinos" fo:font-size="9pt"/>',
        ) +
        style('B', 'paragraph', '<style:paragraph-properties fo:line-height="14pt"/>', 'A') +
        style('T', 'text', '<style:text-properties fo:color="#ff0000" fo:letter-spacing="2pt" style:text-position="super 58%"/>'),
    });
    expect(html).toMatch(
      /<p style="margin:28\.3\d+pt 0pt 0pt 0pt;text-indent:0pt;text-align:center;line-height:14pt;font-family:.{0,6}Tinos/,
    );
    expect(html).toMatch(/<span style="[^"]*font-size:5\.22pt[^"]*letter-spacing:2pt;vertical-align:super[^"]*color:#ff0000">two<\/span>/);
  });
  test('lists have their signs and numbers, tables their columns and spans, sections their columns', async () => {
    const html = await text({
      body:
        '<text:list text:style-name="L"><text:list-item><text:p>first</text:p></text:list-item><text:list-item><text:p>second</text:p></text:list-item></text:list>' +
        '<table:table><table:table-column table:style-name="C"/><table:table-column/><table:table-row><table:table-cell table:number-columns-spanned="2"><text:p>wide</text:p></table:table-cell><table:covered-table-cell/></table:table-row></table:table>' +
        '<text:section text:style-name="S"><text:p>in columns</text:p></text:section>',
      styles:
        '<text:list-style style:name="L"><text:list-level-style-number text:level="1" style:num-format="i" style:num-suffix=")"><style:list-level-properties text:min-label-width="20pt"/></text:list-level-style-number></text:list-style>',
      automatic:
        style('C', 'table-column', '<style:table-column-properties style:column-width="2in"/>') +
        style(
          'S',
          'section',
          '<style:section-properties><style:columns fo:column-count="3" fo:column-gap="12pt"/></style:section-properties>',
        ),
    });
    expect(html).toMatch(/min-width:20pt;text-indent:0">i\)<\/span>first/);
    expect(html).toMatch(/ii\)<\/span>second/);
    expect(html).toContain('<col style="width:144pt"><col>');
    expect(html).toMatch(/colspan="2"[^>]*><p[^>]*>wide/);
    expect(html).toMatch(/column-count:3;column-gap:12pt">\s*<p[^>]*>in columns/);
  });
  test('notes stand at its end, pictures in their lines; what is no markup is escaped', async () => {
    const html = await text(
      {
        body: '<text:p>A &lt;b&gt;<text:note><text:note-citation>1</text:note-citation><text:note-body><text:p>below</text:p></text:note-body></text:note><draw:frame svg:width="72pt" svg:height="36pt"><draw:image xlink:href="Pictures/a.png"/><svg:desc>A "red" one</svg:desc></draw:frame></text:p>',
      },
      { 'Pictures/a.png': await red(4, 2) },
    );
    expect(html).toContain('A &lt;b&gt;<sup style="line-height:0">1</sup>');
    expect(html).toMatch(/<div class="note"><sup>1<\/sup> <p[^>]*>below/);
    expect(html).toMatch(/<img src="data:image\/png;base64,[^"]+" alt="A &quot;red&quot; one" style="width:72pt;height:36pt/);
  });
});

describe('slides of the open standard, drawn from their bytes', () => {
  const look = (properties: string): string => style('g', 'graphic', `<style:graphic-properties ${properties}/>`);
  test('the one that is asked for, as large as its master says; none where there is none', async () => {
    const body = PAGE('') + PAGE('<draw:rect draw:style-name="g" svg:x="1in" svg:y="0" svg:width="1in" svg:height="1in"/>');
    const html = await slide({ body, automatic: look('draw:fill="solid" draw:fill-color="#00ff00" draw:opacity="40%"') }, 2);
    expect(html).toContain(`width:${(10 / 2.54) * 72}pt;height:360pt`);
    expect(html).toMatch(/left:72pt;top:0pt;width:72pt;height:72pt"><svg [^>]*><path d="[^"]+" fill="#00ff00" fill-opacity="0.4"/);
    expect(await slide({ body }, 3)).not.toContain('<section');
  });
  test('what is turned stands by its matrix; a path in the numbers of its view box', async () => {
    const html = await slide({
      body: PAGE(
        '<draw:path draw:style-name="g" svg:width="10pt" svg:height="20pt" draw:transform="matrix(0 1 -1 0 72pt 36pt)" svg:viewBox="0 0 100 100" svg:d="M0 0L100 100Z"/>',
      ),
      automatic: look('draw:stroke="solid" svg:stroke-color="#0000ff" svg:stroke-width="2pt"'),
    });
    expect(html).toContain('transform:matrix(0,1,-1,0,96,48)');
    expect(html).toMatch(/d="M0[ ,]0L10[ ,]20Z" fill="none" fill-opacity="1" stroke="#0000ff" stroke-width="2"/);
  });
  test('a gradient runs from straight down, turned against the clock (16.40.4)', async () => {
    const drawn = async (angle: number): Promise<string> =>
      slide({
        body: PAGE('<draw:rect draw:style-name="g" svg:width="1in" svg:height="1in"/>'),
        styles: `<draw:gradient draw:name="G" draw:style="linear" draw:angle="${angle}" draw:start-color="#ff0000" draw:end-color="#0000ff"/>`,
        automatic: look('draw:fill="gradient" draw:fill-gradient-name="G"'),
      });
    expect(await drawn(0)).toMatch(/x1="0.5" y1="0" x2="0.5" y2="1"><stop offset="0" stop-color="#ff0000"/);
    expect(await drawn(900)).toMatch(/x1="0" y1="0\.\d+" x2="1" y2="0\.\d+"/);
  });
  test('a crop counts at 96 pixels to the inch: a quarter of the picture is left', async () => {
    // 96 pixels are 72 points; 36 of them are cut away on the right, and at the foot.
    const html = await slide(
      {
        body: PAGE(
          '<draw:frame draw:style-name="g" svg:width="100pt" svg:height="100pt"><draw:image xlink:href="Pictures/a.png"/></draw:frame>',
        ),
        automatic: look('fo:clip="rect(0pt, 36pt, 36pt, 0pt)"'),
      },
      1,
      { 'Pictures/a.png': await red(96, 96) },
    );
    expect(html).toMatch(/left:0pt;top:0pt;width:200pt;height:200pt/);
  });
  test('what stands on the master is there where the page shows it', async () => {
    const masters =
      '<style:master-page style:name="M" style:page-layout-name="PL"><draw:frame svg:width="1in" svg:height="1in"><draw:text-box><text:p>every page</text:p></draw:text-box></draw:frame></style:master-page>';
    const drawn = (shows: string): Promise<string> =>
      slide({
        body: PAGE('', ' draw:style-name="d"'),
        masters,
        automatic: style('d', 'drawing-page', `<style:drawing-page-properties presentation:background-objects-visible="${shows}"/>`),
      });
    expect(await drawn('true')).toContain('every page');
    expect(await drawn('false')).not.toContain('every page');
  });
});

const visible = (html: string): string =>
  html
    .replace(/<style>.*?<\/style>/gs, '')
    .replace(/<[^>]+>/g, '')
    .replaceAll('&lt;', '<')
    .replaceAll('&gt;', '>')
    .replaceAll('&quot;', '"')
    .replaceAll('&#39;', "'")
    .replaceAll('&amp;', '&')
    .replace(/[\s\u00A0\u00AD\u200B]+/g, '');

describe.each(ofToday(SAMPLES, 1))('%s, drawn from the files of the open standard', (id) => {
  test('has the words of every paragraph that is kept', async () => {
    const s = await sample(id);
    const { faces } = await fontsOf(s.folio);
    for (const output of ['odp', 'odt']) {
      const made = await make(s, output, { resolution: 36 });
      const files = made.paths.map((path) => ({ path, mediaType: '', bytes: () => made.read(path) }));
      const count = output === 'odt' ? 1 : Object.values(s.folio.spreads).reduce((n, sp) => n + sp.pages.length, 0);
      let all = '';
      for (let page = 1; page <= count; page++) all += visible(await writerById(output)!.redraw!(files, page, faces, sharpPictures));
      let found = 0;
      for (const { subject, outcome } of made.ledger) {
        if (subject.kind !== 'paragraph' || subject.aspect !== 'text' || outcome !== 'kept') continue;
        const block = Object.values(s.folio.stories).flatMap((t) => t.blocks[subject.id] ?? [])[0];
        if (block?.kind !== 'paragraph' || block.content.some((n) => n.type !== 'span')) continue;
        const words = readText(block)
          .replace(/[\s\u00A0\u00AD]+/g, '')
          .slice(0, 30);
        expect([output, subject.id, all.includes(words)]).toEqual([output, subject.id, true]);
        found++;
      }
      expect(found).toBeGreaterThan(3);
    }
  });
});

describe('slides that came from other programs', () => {
  const at = 'svg:x="1in" svg:y="1in" svg:width="72pt" svg:height="36pt"';
  const LOOK =
    style(
      'g',
      'graphic',
      '<style:graphic-properties draw:fill="solid" draw:fill-color="#00ff00" draw:stroke="solid" svg:stroke-color="#0000ff"/>',
    ) +
    style(
      'p',
      'presentation',
      '<style:graphic-properties draw:fill="none" draw:stroke="none"/><style:text-properties fo:font-size="31pt" fo:color="#112233"/>',
    );
  test('lines, ellipses, polygons and shapes with geometry of their own are drawn as they are', async () => {
    const html = await slide({
      automatic: LOOK,
      body: PAGE(
        '<draw:line draw:style-name="g" svg:x1="10pt" svg:y1="50pt" svg:x2="40pt" svg:y2="20pt"/>' +
          `<draw:ellipse draw:style-name="g" ${at}/>` +
          `<draw:polygon draw:style-name="g" ${at} svg:viewBox="0 0 20 10" draw:points="0,0 20,0 10,10"/>` +
          `<draw:custom-shape draw:style-name="g" ${at}><text:p>In it</text:p><draw:enhanced-geometry svg:viewBox="0 0 10 10" draw:enhanced-path="M 0 0 L 10 0 5 10 Z N"/></draw:custom-shape>` +
          `<draw:rect draw:style-name="g" svg:width="72pt" svg:height="36pt" draw:transform="rotate (1.5707963267949) translate (100pt 200pt)"/>`,
      ),
    });
    // From lower left to upper right in its own box; a line has no ground.
    expect(html).toMatch(/left:10pt;top:20pt[^>]*><svg[^>]*><path d="M0 30L30 0" fill="none"/);
    // Four curves.
    expect(html).toMatch(/<path d="M[^"C]*(C[^"C]*){4}Z?" fill="#00ff00"/);
    expect(html).toContain('M0 0L72 0L36 36Z');
    expect(html.match(/M0 0L72 0L36 36L?0? ?0?Z/g)!.length).toBeGreaterThanOrEqual(2);
    expect(html).toContain('In it');
    // Turned against the clock by a quarter, then moved (19.228).
    expect(html).toMatch(/matrix\([^,]*(?:e-1\d|0),-1,1,[^,]*,133\.3\d*,266\.6\d*\)/);
  });
  test('text looks as its shape says where its own styles say nothing, under styles of presentations as well', async () => {
    const html = await slide({
      automatic: LOOK,
      body: PAGE(`<draw:frame presentation:style-name="p" ${at}><draw:text-box><text:p>Large</text:p></draw:text-box></draw:frame>`),
    });
    expect(html).toMatch(/font-size:31pt[^"]*color:#112233[^"]*"[^>]*>Large/);
  });
  test('places that pages fill are seen on none; the ground of a master is that of its pages', async () => {
    const html = await slide({
      masters: `<style:master-page style:name="M" style:page-layout-name="PL" draw:style-name="ground"><draw:frame presentation:class="title" presentation:placeholder="true" ${at}><draw:text-box><text:p>Click here</text:p></draw:text-box></draw:frame><draw:rect draw:style-name="g" ${at}/></style:master-page>`,
      masterStyles: LOOK + style('ground', 'drawing-page', '<style:drawing-page-properties draw:fill="solid" draw:fill-color="#abcdef"/>'),
      body: PAGE(
        `<draw:frame presentation:placeholder="true" ${at}><draw:text-box><text:p>Nothing yet</text:p></draw:text-box></draw:frame>`,
      ),
    });
    expect(html).not.toMatch(/Click here|Nothing yet/);
    expect(html).toContain('fill="#abcdef"');
    expect(html).toContain('fill="#00ff00"');
  });
});
