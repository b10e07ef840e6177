import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { FolioError } from '../../src/ports/node.ts';
import { incoherences } from '../../src/folio/coherence.ts';
import { flat, MASTER, packed, part, readBytes, readFlat } from './support/flatFile.ts';

const page = (inside: string): string => `<draw:page draw:name="P1" draw:master-page-name="M">${inside}</draw:page>`;
const BOX = 'svg:x="1cm" svg:y="2cm" svg:width="4cm" svg:height="3cm"';
const body = (pages: string): string => part('document-content', `<office:body><office:drawing>${pages}</office:drawing></office:body>`);
const styles = part('document-styles', `<office:master-styles>${MASTER}</office:master-styles>`);

/** The sentence that a file is refused with. */
async function refused(name: string, bytes: string | Uint8Array): Promise<{ code: string; says: string; advice: string }> {
  try {
    const { done } = await readBytes(name, bytes);
    await done();
  } catch (error) {
    if (error instanceof FolioError) return { code: error.code, says: error.message, advice: error.advice };
    throw error;
  }
  throw new Error('it was read');
}

describe('files that are refused, in words', () => {
  test.each([
    [
      'an encrypted package',
      packed({
        'content.xml': 'xxxx',
        'META-INF/manifest.xml': part('x', '')
          .replace(/office:x/g, 'manifest:manifest')
          .replace(
            '></manifest',
            '><manifest:file-entry manifest:full-path="content.xml"><manifest:encryption-data/></manifest:file-entry></manifest',
          ),
      }),
      'archive.encrypted',
      /password/,
    ],
    [
      'a text document',
      packed({ 'content.xml': body(page('')) }, 'application/vnd.oasis.opendocument.text'),
      'odf.kind',
      /OpenDocument text, not a drawing/,
    ],
    ['another kind of archive', packed({ 'content.xml': body(page('')) }, 'application/zip'), 'odf.unlike', /no OpenDocument/],
    ['a package without content.xml', packed({ 'styles.xml': styles }), 'odf.noContent', /content\.xml/],
    ['broken XML', packed({ 'content.xml': '<a><b></a>' }), 'odf.xml', /content\.xml cannot be read: .*\(line 1\)/],
    ['an empty part', packed({ 'content.xml': '' }), 'odf.xml', /content\.xml cannot be read/],
    ['a drawing that holds none', packed({ 'content.xml': part('document-content', '<office:body/>') }), 'odf.noBody', /holds none/],
    ['no pages', packed({ 'content.xml': body('') }), 'odf.noPages', /no pages/],
    [
      'more pages than are read',
      packed({ 'content.xml': body(Array.from({ length: 5001 }, () => page('')).join('')) }),
      'odf.tooManyPages',
      /has 5001 pages; at most 5000/,
    ],
    [
      'more paragraphs than are read',
      packed({
        'content.xml': body(
          page(
            `<draw:frame ${BOX}><draw:text-box>${Array.from({ length: 200_001 }, (_, i) => `<text:p>${i}</text:p>`).join('')}</draw:text-box></draw:frame>`,
          ),
        ),
      }),
      'odf.tooManyParagraphs',
      /has 200001 paragraphs; at most 200000/,
    ],
    [
      'an entity from outside',
      packed({ 'content.xml': `<!DOCTYPE x [<!ENTITY e SYSTEM "file:///etc/passwd">]><x>&e;</x>` }),
      'odf.xml',
      /entity/,
    ],
    [
      'entities that multiply',
      packed({ 'content.xml': `<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]><x>&b;</x>` }),
      'odf.xml',
      /entity/,
    ],
    ['elements nested without end', packed({ 'content.xml': '<a>'.repeat(5000) }), 'odf.xml', /deep/],
    ['half an archive', packed({ 'content.xml': body(page('')), 'styles.xml': styles }).slice(0, 300), 'archive.unreadable', /./],
  ])('%s', async (_, bytes, code, says) => {
    const found = await refused('test.odg', bytes);
    expect([found.code, found.says]).toEqual([code, expect.stringMatching(says)]);
    expect(found.advice.length).toBeGreaterThan(10);
  });

  test('a flat file that is no OpenDocument', async () => {
    expect((await refused('test.fodg', '<svg xmlns="http://www.w3.org/2000/svg"/>')).code).toBe('odf.unlike');
    expect((await refused('test.fodp', flat({ pages: page('') }).replace('opendocument.graphics', 'opendocument.spreadsheet'))).code).toBe(
      'odf.kind',
    );
  });
});

test('when a file is refused, nothing of it is still being written', async () => {
  const pictures = Object.fromEntries(Array.from({ length: 40 }, (_, i) => [`Pictures/${i}.bin`, new Uint8Array(200_000).fill(i)]));
  // Its folder is removed as soon as it is refused: that fails while anything is written there.
  for (let round = 0; round < 5; round++)
    expect((await refused('test.odg', packed({ ...pictures, 'content.xml': body('') }))).code).toBe('odf.noPages');
});

describe('documents with parts that do not work are read as far as they go', () => {
  test('pictures that are none, that are missing, and that lie elsewhere', async () => {
    const image = (href: string): string => `<draw:frame ${BOX}><draw:image xlink:href="${href}"/></draw:frame>`;
    const { folio, record, done } = await readBytes(
      'test.odg',
      packed({
        'content.xml': body(
          page(
            image('Pictures/none.png') +
              image('Pictures/lost.png') +
              image('../../etc/passwd') +
              image('Pictures/%zz.png') +
              `<draw:rect ${BOX}/>`,
          ),
        ),
        'styles.xml': styles,
        'Pictures/none.png': 'this is no picture',
        'Pictures/%zz.png': 'nor is this',
      }),
    );
    expect(record.notTaken.map((n) => n.what)).toEqual(['Missing picture', 'Linked picture']);
    // Those that nobody can read have their places all the same.
    expect(Object.values(folio.spreads)[0]!.order).toHaveLength(3);
    expect(Object.values(folio.head.media).map((m) => [m.name, m.damaged ?? false])).toEqual(expect.arrayContaining([['none.png', true]]));
    await done();
  });

  test('unknown elements and attributes, of our names and of others’, change nothing', async () => {
    const { folio } = await readFlat({ pages: page(`<draw:future/><other xmlns="urn:x" a="1"/><draw:rect draw:shiny="yes" ${BOX}/>`) });
    expect(Object.values(folio.spreads)[0]!.order).toHaveLength(1);
  });

  test('values that are nonsense count as if they were not there', async () => {
    const { folio } = await readFlat({
      automatic:
        '<style:style style:name="g" style:family="graphic"><style:graphic-properties draw:fill="solid" draw:fill-color="puce" draw:opacity="many" draw:stroke="solid" svg:stroke-width="1e9cm" fo:padding="-4cm"/><style:text-properties fo:font-size="0pt" fo:font-weight="heavy" fo:letter-spacing="99cm" style:text-scale="-5%" fo:language="english"/></style:style>',
      pages: page(
        `<draw:frame draw:style-name="g" svg:x="here" svg:width="-4cm" svg:height="NaNcm"><draw:text-box><text:p>x<text:s text:c="999999999"/></text:p></draw:text-box></draw:frame>`,
      ),
    });
    expect(incoherences(folio)).toEqual([]);
  });

  test('two objects of one name, and ids that are none, get ids of their own', async () => {
    const { folio } = await readFlat({
      pages: page(`<draw:rect xml:id="a b/c" ${BOX}/><draw:rect xml:id="a b/c" ${BOX}/><draw:rect draw:id="" ${BOX}/>`),
    });
    expect(new Set(Object.values(folio.spreads)[0]!.order).size).toBe(3);
  });

  test('ten thousand shapes on a page, on two layers', async () => {
    const shapes = Array.from(
      { length: 10_000 },
      (_, i) =>
        `<draw:rect draw:layer="${i % 2 ? 'a' : 'b'}" svg:x="${i % 100}mm" svg:y="${Math.floor(i / 100)}mm" svg:width="1mm" svg:height="1mm"/>`,
    );
    const { folio } = await readFlat({ pages: page(shapes.join('')) });
    expect(Object.values(folio.spreads)[0]!.order).toHaveLength(10_000);
  });

  test('groups inside groups, two hundred deep', async () => {
    const { folio } = await readFlat({ pages: page('<draw:g>'.repeat(200) + `<draw:rect ${BOX}/>` + '</draw:g>'.repeat(200)) });
    expect(Object.keys(Object.values(folio.spreads)[0]!.items)).toHaveLength(201);
  });

  test('a table that claims millions of columns and rows', async () => {
    const table =
      '<table:table><table:table-column table:number-columns-repeated="99999999"/><table:table-row table:number-rows-repeated="99999999"><table:table-cell><text:p>x</text:p></table:table-cell></table:table-row></table:table>';
    const { folio } = await readFlat({ pages: page(`<draw:frame ${BOX}>${table}</draw:frame>`) });
    expect(Object.keys(folio.stories)).toHaveLength(1);
  });
});

describe('fuzz: a document with everything, damaged anywhere, is read or refused in words', () => {
  const WHOLE = flat({
    styles:
      '<style:default-style style:family="graphic"><style:text-properties fo:font-size="18pt"/></style:default-style><style:style style:name="s" style:family="graphic"><style:graphic-properties draw:fill="gradient" draw:fill-gradient-name="G" draw:stroke="dash" draw:stroke-dash="D"/></style:style><draw:gradient draw:name="G" draw:style="radial" draw:start-color="#ff0000" draw:end-color="#0000ff" draw:angle="450"/><draw:stroke-dash draw:name="D" draw:dots1="2" draw:dots1-length="3mm" draw:distance="1mm"/>',
    automatic:
      '<style:style style:name="g" style:family="graphic" style:parent-style-name="s"/><style:style style:name="P" style:family="paragraph"><style:paragraph-properties fo:text-align="justify" fo:margin-left="1cm"><style:tab-stops><style:tab-stop style:position="3cm" style:type="right"/></style:tab-stops></style:paragraph-properties></style:style>',
    pages: page(
      `<draw:frame draw:style-name="g" draw:name="A" ${BOX}><draw:text-box draw:chain-next-name="B"><text:p text:style-name="P">One<text:tab/>two <text:span>three</text:span></text:p><text:list><text:list-item><text:p>four</text:p></text:list-item></text:list></draw:text-box></draw:frame><draw:frame draw:name="B" ${BOX}><draw:text-box/></draw:frame><draw:custom-shape draw:style-name="g" ${BOX} draw:transform="rotate (0.5) translate (1cm 2cm)"><text:p>in a shape</text:p><draw:enhanced-geometry svg:viewBox="0 0 21600 21600" draw:modifiers="5400 3" draw:text-areas="?f0 0 right bottom" draw:enhanced-path="M ?f0 0 L 21600 ?f1 U 100 100 50 50 0 270 X 5 5 Z N"><draw:equation draw:name="f0" draw:formula="$0*2"/><draw:equation draw:name="f1" draw:formula="if(?f0,max(1,2),sqrt(3))"/></draw:enhanced-geometry></draw:custom-shape><draw:path svg:d="M0 0C1 1 2 2 3 3z" svg:viewBox="0 0 3 3" ${BOX}/><draw:connector svg:x1="1cm" svg:y1="1cm" svg:x2="2cm" svg:y2="2cm" svg:d="M0 0l1000 1000"/><draw:g><draw:line svg:x1="1cm" svg:y1="1cm" svg:x2="2cm" svg:y2="2cm"/></draw:g>`,
    ),
  });
  const survives = async (text: string): Promise<void> => {
    try {
      const { folio, done } = await readBytes('fuzz.fodg', text);
      expect(incoherences(folio)).toEqual([]);
      await done();
    } catch (error) {
      if (!(error instanceof FolioError)) throw error;
      expect(error.message.length).toBeGreaterThan(10);
      // What is read must fit the document’s own schema: if it did not, the reader would be wrong, not the file.
      expect(error.code).not.toBe('odf.unmade');
    }
  };

  test('undamaged it is read whole', async () => {
    const { folio, record, done } = await readBytes('whole.fodg', WHOLE);
    expect([Object.values(folio.spreads)[0]!.order.length, record.notTaken]).toEqual([6, []]);
    await done();
  });

  test('values changed for others', async () => {
    const values = [...WHOLE.matchAll(/="([^"]*)"/g)].map((m) => ({ at: m.index + 2, length: m[1]!.length })).slice(20);
    const nonsense = fc.oneof(
      fc.constantFrom('', '0', '-1', '1e308', '99999999999cm', 'NaN', '?f0', '$9', '100%', '#', 'rotate()', 'true', '../x', '0 0 0 0'),
      fc.string({ maxLength: 12 }).map((s) => [...s].filter((c) => c >= ' ' && c < '\ud800' && !'<&"'.includes(c)).join('')),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(fc.tuple(fc.nat(values.length - 1), nonsense), { minLength: 1, maxLength: 4 }), async (changes) => {
        let text = WHOLE;
        for (const [i, value] of [...changes].sort((a, b) => b[0] - a[0])) {
          const { at, length } = values[i]!;
          text = text.slice(0, at) + value + text.slice(at + length);
        }
        await survives(text);
      }),
      { numRuns: 300 },
    );
  });

  test('elements taken out or put in twice', async () => {
    const elements = [...WHOLE.matchAll(/<(draw|text|style):[a-z-]+[^>]*\/>/g)].map((m) => ({ at: m.index, text: m[0] }));
    await fc.assert(
      fc.asyncProperty(fc.nat(elements.length - 1), fc.integer({ min: 0, max: 3 }), async (i, times) => {
        const { at, text } = elements[i]!;
        await survives(WHOLE.slice(0, at) + text.repeat(times) + WHOLE.slice(at + text.length));
      }),
      { numRuns: 60 },
    );
  });

  test('bytes changed anywhere', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.nat(WHOLE.length - 1), fc.integer({ min: 32, max: 126 })), { minLength: 1, maxLength: 3 }),
        async (changes) => {
          const bytes = new TextEncoder().encode(WHOLE);
          for (const [at, byte] of changes) bytes[at] = byte;
          await survives(new TextDecoder().decode(bytes));
        },
      ),
      { numRuns: 200 },
    );
  });
});
