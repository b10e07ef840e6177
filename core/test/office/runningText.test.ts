import { beforeAll, describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { produce } from 'immer';
import type { Folio, Inline, Paragraph } from '../../src/index.ts';
import type { Sample } from '@elastic-folio/demo';
import { subjectKey } from '../../src/ledger/index.ts';
import { DAMAGE, IN_TEXT, INITIAL } from '../support/damage.ts';
import { describeDamage } from '../support/describeDamage.ts';
import { against, asSample, make, SAMPLES, sample, writeOnly } from '../support/samples.ts';
import { tableFolio } from '../support/tableFolio.ts';
import { tinyFolio } from '../support/tinyFolio.ts';
import { faultsOfDocx } from '../support/wordSchema.ts';
import { ofToday } from '../support/ofToday.ts';

const SMALL = { resolution: 36 };
const partOf = (bytes: Uint8Array, path: string): string => new TextDecoder().decode(unzipSync(bytes)[path]);
let almanac: Sample;
beforeAll(async () => {
  almanac = await sample('marrowby-almanac');
});
const written = async (folio: Folio, settings: Record<string, unknown> = {}): Promise<Uint8Array> =>
  (await make(asSample(folio), 'docx', { ...SMALL, ...settings })).read('document.docx');

describe.each(ofToday(SAMPLES, 1))('%s as a text document', (id) => {
  test('keeps the rules of the standard, and is read back as its ledger says', async () => {
    const made = await make(await sample(id), 'docx', SMALL);
    expect(faultsOfDocx(await made.read('document.docx'))).toEqual([]);
    expect(against(made)).toEqual([]);
    expect(made.valid).toBe(true);
  });
});

/** Every setting away from what it is when nothing is said. */
const SETTINGS: Record<string, unknown>[] = [
  { styles: 'none' },
  { headings: 'own', contents: false },
  { columns: 'one', pageNumbers: false, fields: 'text' },
  { leading: 'tightest', initials: 'plain' },
  { leading: 'loosest' },
  { leading: 'opening' },
  { fonts: 'names', replacements: 'Work Sans = Arial\nSource Serif 4 = Georgia' },
  { tables: 'exact' },
  { pictures: 'none' },
  { pictureFormat: 'png' },
  { hiddenLayers: 'in' },
  { pages: '2-5' },
  { depth: 1, language: 'en-GB', title: 'Another name' },
];
describe('the Almanac by other settings', () => {
  test.each(SETTINGS.map((s) => [JSON.stringify(s), s] as const))('%s', async (_, settings) => {
    const made = await make(almanac, 'docx', { ...SMALL, ...settings });
    expect(faultsOfDocx(await made.read('document.docx'))).toEqual([]);
    expect(against(made)).toEqual([]);
  });
  test('pictures beside the document are named by it, and are there', async () => {
    const made = await make(almanac, 'docx', { ...SMALL, pictures: 'beside' });
    expect(against(made)).toEqual([]);
    const targets = [
      ...partOf(await made.read('document.docx'), 'word/_rels/document.xml.rels').matchAll(
        /Target="(pictures\/[^"]+)" TargetMode="External"/g,
      ),
    ];
    expect(targets.length).toBeGreaterThan(10);
    for (const [, path] of targets) expect(made.paths).toContain(path);
  });
  test('a template says that it is one (ISO/IEC 29500-1, 11.3.10, and the template’s content type)', async () => {
    const made = await make(almanac, 'docx', { ...SMALL, template: true });
    expect(made.paths).toEqual(['document.dotx']);
    expect(partOf(await made.read('document.dotx'), '[Content_Types].xml')).toContain('wordprocessingml.template.main+xml');
    expect(against(made)).toEqual([]);
  });
  test('equal documents make equal files', async () => {
    const [one, two] = await Promise.all([1, 2].map(() => writeOnly(almanac, 'docx', SMALL, almanac.folio)));
    expect(Buffer.from(one!.get('document.docx')!).equals(Buffer.from(two!.get('document.docx')!))).toBe(true);
  });
});

describeDamage('docx', SMALL, [...DAMAGE, ...IN_TEXT, INITIAL]);

const span = (text: string, more: object = {}): Inline => ({ type: 'span', text, ...more }) as Inline;
const xml = async (folio: Folio, settings: Record<string, unknown> = {}): Promise<string> =>
  partOf(await written(folio, settings), 'word/document.xml');

describe('what a text document says of words', () => {
  test('lengths are twentieths of a point, sizes half points (17.18.74, 17.3.2.38): worked by hand', async () => {
    const folio = tinyFolio(['Words'], {
      paragraph: { spaceBefore: 6.5, startIndent: 28.35, firstLineIndent: -10 },
      character: { size: 11.5, leading: 13.8, tracking: 20 },
    });
    const styles = partOf(await written(folio), 'word/styles.xml');
    expect(styles).toMatch(/<w:spacing w:before="130" w:after="0" w:line="276" w:lineRule="exact"\/>/);
    expect(styles).toMatch(/<w:ind w:left="567" w:right="0" w:hanging="200"\/>/);
    expect(styles).toMatch(/<w:sz w:val="23"\/>/);
    // 20/1000 of 11.5 points are 0.23 points, 4.6 twentieths.
    expect(styles).toMatch(/<w:spacing w:val="5"\/>/);
  });
  test('what both styles turn on is on in the words, though the standard turns it over (17.7.3)', async () => {
    const folio = produce(tinyFolio([[span('plain '), span('strong', { style: 'strong' })]], { character: { fontWeight: 700 } }), (d) => {
      d.head.characterStyles['strong'] = { id: 'strong', name: 'Strong', character: { fontWeight: 700 } };
    });
    const made = await make(asSample(folio), 'docx', SMALL);
    expect(against(made)).toEqual([]);
    expect(partOf(await made.read('document.docx'), 'word/document.xml')).toMatch(/<w:rStyle w:val="Strong"\/><w:b\/><w:bCs\/>/);
  });
  test('a lean weight of a family is a family of its own, by the names in its file (OpenType, name id 1)', async () => {
    const text = partOf(
      await written(tinyFolio(['Words'], { character: { fontFamily: 'Work Sans', fontWeight: 600 } })),
      'word/styles.xml',
    );
    expect(text).toContain('w:ascii="Work Sans SemiBold"');
  });
  test('soft hyphens, hard hyphens, tabs and turned lines are elements (17.3.3)', async () => {
    const text = await xml(tinyFolio([[span('dis\u00ADcern a\u2011b'), { type: 'tab' }, { type: 'softReturn' }, span('end')]]));
    expect(text).toMatch(/dis<\/w:t><w:softHyphen\/>.*a<\/w:t><w:noBreakHyphen\/>.*<w:tab\/>.*<w:br\/>/);
  });
  test('text from right to left that stands at the left stands at its end', async () => {
    const folio = tinyFolio([[span('שלום עולם', { overrides: { language: 'he', fontFamily: 'Heebo' } })]], {
      paragraph: { direction: 'rtl', align: 'left' },
    });
    const styles = partOf(await written(folio), 'word/styles.xml');
    // 17.3.1.13: left and right are told as for lines from left to right.
    expect(styles).toMatch(/<w:bidi\/>.*<w:jc w:val="right"\/>/);
  });
  test('an initial stands in a frame of its own over its lines, and is read as the first letter of its paragraph (17.3.1.11)', async () => {
    const folio = tinyFolio(['The dome of the observatory weighs a little over nine tonnes.'], {
      paragraph: { dropCapital: { lines: 3, characters: 1 } },
      character: { size: 10, leading: 12 },
    });
    const made = await make(asSample(folio), 'docx', SMALL);
    const text = partOf(await made.read('document.docx'), 'word/document.xml');
    // Three lines of 12 points are 720 twentieths; two lines and a capital of 6.6 points, at 0.66 of its size, are 46.4 points.
    expect(text).toMatch(
      /<w:framePr w:dropCap="drop" w:lines="3"[^>]*\/>.*w:line="720" w:lineRule="exact".*<w:sz w:val="93"\/>.*>T<\/w:t>/,
    );
    expect(against(made)).toEqual([]);
    expect(made.ledger.find((e) => subjectKey(e.subject) === 'paragraph:p1:look')).toMatchObject({ outcome: 'kept', check: 'confirmed' });
  });
  test('references stay live or become words, as the recipe says', async () => {
    const folio = produce(
      tinyFolio(['First', [span('see page '), { type: 'field', id: 'f', field: 'reference', target: 'p1' } as Inline]]),
      () => undefined,
    );
    expect(await xml(folio)).toMatch(/<w:instrText xml:space="preserve"> PAGEREF p_p1 \\h <\/w:instrText>/);
    expect(await xml(folio, { fields: 'text' })).not.toContain('instrText');
  });
  test('links lead out by relationships and in by bookmarks; what could run a program does not', async () => {
    const folio = produce(
      tinyFolio([[span('out', { link: 'o' }), span(' in', { link: 'i' }), span(' bad', { link: 'b' })], 'there']),
      (d) => {
        d.stories['t']!.links = {
          o: { id: 'o', destination: { to: 'address', href: 'https://marrowby.example/', window: 'same' } },
          i: { id: 'i', destination: { to: 'paragraph', paragraph: 'p2' } },
          b: { id: 'b', destination: { to: 'address', href: 'javascript:alert(1)', window: 'same' } },
        };
      },
    );
    const bytes = await written(folio);
    expect(partOf(bytes, 'word/document.xml')).toMatch(/<w:hyperlink r:id="rId\d+"[^>]*>.*<w:hyperlink w:anchor="p_p2"/);
    expect(partOf(bytes, 'word/_rels/document.xml.rels')).toContain('Target="https://marrowby.example/" TargetMode="External"');
    expect(partOf(bytes, 'word/_rels/document.xml.rels')).not.toContain('javascript');
  });
});

describe('what the format cannot hold', () => {
  test('names of styles that are one when capitals and spaces are, or have commas, are told apart', async () => {
    const folio = produce(tinyFolio(['one', 'two', 'three']), (d) => {
      const style = d.head.paragraphStyles['p']!;
      for (const [i, name] of ['text', 'TEXT  ', 'Text, small'].entries()) {
        d.head.paragraphStyles[`s${i}`] = { ...style, id: `s${i}`, name };
        (d.stories['t']!.blocks[`p${i + 1}`] as Paragraph).style = `s${i}`;
      }
    });
    const made = await make(asSample(folio), 'docx', SMALL);
    const styles = partOf(await made.read('document.docx'), 'word/styles.xml');
    expect(faultsOfDocx(await made.read('document.docx'))).toEqual([]);
    for (const name of ['Text', 'text 2', 'TEXT 3', 'Text · small']) expect(styles).toContain(`<w:name w:val="${name}"/>`);
    expect(made.ledger.find((e) => subjectKey(e.subject) === 'paragraph:p3:look')).toMatchObject({
      outcome: 'adapted',
      code: 'style.renamed',
      values: { to: 'Text · small' },
    });
  });
  test('styles that are based on each other in a circle are based on nothing', async () => {
    const folio = produce(tinyFolio(['one']), (d) => {
      const style = d.head.paragraphStyles['p']!;
      d.head.paragraphStyles['a'] = { ...style, id: 'a', name: 'A', basedOn: 'b' };
      d.head.paragraphStyles['b'] = { ...style, id: 'b', name: 'B', basedOn: 'a' };
    });
    expect(faultsOfDocx(await written(folio))).toEqual([]);
  });
  test('control characters and hostile text', async () => {
    const folio = tinyFolio(['<w:p>alert("&")</w:p> \u0001\uFFFE', ']]> --> <!-- ', '\u202E right to left', 'a\u0007b']);
    const made = await make(asSample(folio), 'docx', SMALL);
    expect(faultsOfDocx(await made.read('document.docx'))).toEqual([]);
  });
  test('a table of 300 columns goes on in tables below it, and the ledger says so', async () => {
    const columns = Array.from({ length: 300 }, () => ({ width: 1, unit: 'share' as const }));
    const cells = Array.from({ length: 300 }, (_, column) => ({ row: 0, column, text: `c${column}` }));
    const folio = tableFolio(columns, [{ height: 20 }], cells, {}, { width: 3000, height: 200 });
    const made = await make(asSample(folio), 'docx', SMALL);
    const text = partOf(await made.read('document.docx'), 'word/document.xml');
    expect(faultsOfDocx(await made.read('document.docx'))).toEqual([]);
    expect(text.match(/<w:tbl>/g)).toHaveLength(5);
    for (const table of text.match(/<w:tbl>.*?<\/w:tbl>/g)!) expect(table.match(/<w:gridCol /g)!.length).toBeLessThanOrEqual(63);
    expect(made.ledger.find((e) => subjectKey(e.subject) === 'table:tb:structure')).toMatchObject({
      outcome: 'adapted',
      code: 'table.split',
      check: 'confirmed',
    });
    expect(against(made)).toEqual([]);
  });
  test('paper larger than 22 inches becomes what a printer has', async () => {
    const folio = produce(tinyFolio(['Poster']), (d) => void (d.spreads['s']!.pages[0]!.box = { x: 0, y: 0, width: 2400, height: 3400 }));
    expect(await xml(folio)).toContain('<w:pgSz w:w="11906" w:h="16838"/>');
  });
});
