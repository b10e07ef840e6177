import { beforeAll, describe, expect, test } from '@jest/globals';
import mammoth from 'mammoth';
import { parseOfficeAsync } from 'officeparser';
import { parse as parseHtml } from 'parse5';
import type { Sample } from '@elastic-folio/demo';
import { Composer } from '../../src/compose/index.ts';
import { paragraphRole, readText, resolveParagraph } from '../../src/index.ts';
import { flowOf } from '../../src/structure/flow.ts';
import type { FlowBlock } from '../../src/structure/flow.ts';
import { scopeOf } from '../../src/write/scope.ts';
import { fontsOf, make, sample } from '../support/samples.ts';
import { PYTHON_DOCX, readByPython } from '../support/pythonDocx.ts';
import type { SeenByPython } from '../support/pythonDocx.ts';

/** Text without spaces, hyphens of divided words, and what stands for objects. */
const dense = (text: string): string => text.replace(/[\s\u00A0\u00AD\uFFFC]+/g, '');

let almanac: Sample;
let bytes: Uint8Array;
let blocks: FlowBlock[];
beforeAll(async () => {
  almanac = await sample('marrowby-almanac');
  const { folio } = almanac;
  bytes = await (await make(almanac, 'docx', { resolution: 36, contents: false, fields: 'text', initials: 'plain' })).read('document.docx');
  const composition = new Composer(await fontsOf(folio)).compose(folio);
  blocks = flowOf(folio, composition, scopeOf(folio, composition, { pages: '', hiddenLayers: 'out' })).flatMap((s) => s.blocks);
});

const texts = (list: readonly FlowBlock[]): { style: string; text: string; element: string; listed: boolean }[] =>
  list.flatMap((b) => {
    if (b.kind === 'figure') return texts(b.captions);
    if (b.kind === 'box') return texts(b.blocks);
    if (b.kind !== 'paragraph') return [];
    const { head } = almanac.folio;
    return [
      {
        style: head.paragraphStyles[b.paragraph.style]!.name,
        text: dense(readText(b.paragraph)),
        element: paragraphRole(head, b.paragraph.style).element,
        listed: resolveParagraph(head, b.paragraph).paragraph.list !== null,
      },
    ];
  });
const hasFields = (b: { text: string }): boolean => b.text.length > 0;

(PYTHON_DOCX ? describe : describe.skip)('python-docx, which had no part in making it, finds', () => {
  let seen: SeenByPython;
  beforeAll(async () => {
    seen = await readByPython(bytes);
  });
  test('the title, and every style by its name, its kind and what it is based on', () => {
    const { head } = almanac.folio;
    expect(seen.title).toBe(head.metadata.title);
    for (const s of Object.values(head.characterStyles))
      expect(seen.styles).toContainEqual(expect.objectContaining({ name: s.name, type: 'CHARACTER' }));
    for (const s of Object.values(head.tableStyles))
      expect(seen.styles).toContainEqual(expect.objectContaining({ name: s.name, type: 'TABLE' }));
    const named = new Map(seen.styles.map((s) => [s.name, s]));
    for (const s of Object.values(head.paragraphStyles)) {
      if (/^h[1-6]$/.test(paragraphRole(head, s.id).element)) continue;
      expect(named.get(s.name)?.type).toBe('PARAGRAPH');
      if (s.basedOn !== undefined && !/^h[1-6]$/.test(paragraphRole(head, s.basedOn).element))
        expect(named.get(s.name)!.base).toBe(head.paragraphStyles[s.basedOn]!.name);
    }
  });
  test('headings by the names that programs know, level by level, and all other text in the styles of the document', () => {
    const want = texts(blocks).filter(hasFields);
    const have = seen.paragraphs.map((p) => ({ style: p.style, text: dense(p.text) })).filter((p) => p.text);
    const level = (style: string): number => Number(/^Heading (\d)$/.exec(style)?.[1] ?? 0);
    const found = want.map((w) => have.find((h) => h.text.includes(w.text) || w.text.includes(h.text)));
    expect(found.filter((f) => !f)).toEqual([]);
    for (const [i, w] of want.entries())
      if (/^h[1-6]$/.test(w.element) && level(found[i]!.style))
        expect([w.text, level(found[i]!.style)]).toEqual([w.text, Number(w.element[1])]);
    const plain = want.filter((w) => !/^h[1-6]$/.test(w.element) && have.filter((h) => h.text === w.text).length === 1);
    expect(plain.length).toBeGreaterThan(100);
    for (const w of plain) expect([w.text, have.find((h) => h.text === w.text)!.style]).toEqual([w.text, w.style]);
  });
  test('the tables with their rows, columns and the words of their cells', () => {
    const tables = blocks.flatMap((b) => (b.kind === 'table' ? [b] : []));
    expect(seen.tables.map((t) => [t.rows, t.columns])).toEqual(tables.map((t) => [t.table.rows.length, t.table.columns.length]));
    tables.forEach(({ story, table }, i) => {
      for (const cell of Object.values(table.cells)) {
        const words = cell.order.map((id) => (story.blocks[id]?.kind === 'paragraph' ? readText(story.blocks[id]) : '')).join('');
        // A cell over several is each of them (python-docx, _Row.cells).
        for (let r = cell.row; r < cell.row + cell.rows; r++)
          for (let c = cell.column; c < cell.column + cell.columns; c++) expect(dense(seen.tables[i]!.cells[r]![c]!)).toBe(dense(words));
      }
    });
  });
  test('paper as wide as the layout’s, and pictures no wider than the text', () => {
    const { box } = Object.values(almanac.folio.spreads)[0]!.pages[0]!;
    for (const s of seen.sections) {
      // 12,700 EMU to the point; pages are told in twentieths of a point.
      expect(Math.abs(s.width / 12_700 - box.width)).toBeLessThanOrEqual(0.05);
      expect(Math.abs(s.height / 12_700 - box.height)).toBeLessThanOrEqual(0.05);
    }
    expect(seen.shapes.length).toBeGreaterThan(20);
    for (const s of seen.shapes) expect(s.width / 12_700).toBeLessThan(box.width);
    expect(new Set(seen.sections.map((s) => s.columns))).toContain('2');
  });
});

interface Tag {
  tag: string;
  text: string;
}
/** Elements of interest in the HTML that mammoth makes of a document, in their order. */
function tagsOf(html: string): Tag[] {
  const out: Tag[] = [];
  interface Node {
    tagName?: string;
    value?: string;
    childNodes?: Node[];
  }
  const text = (n: Node): string => n.value ?? (n.childNodes ?? []).map(text).join('');
  const visit = (n: Node): void => {
    if (n.tagName && /^(h[1-6]|p|li|td|th|em|strong|a|img)$/.test(n.tagName)) out.push({ tag: n.tagName, text: dense(text(n)) });
    n.childNodes?.forEach(visit);
  };
  visit(parseHtml(html) as unknown as Node);
  return out;
}

describe('mammoth, which had no part in making it, finds', () => {
  let html: string;
  let tags: Tag[];
  beforeAll(async () => {
    // It goes by the names of styles: those of characters that are slanted are told to it.
    const slanted = Object.values(almanac.folio.head.characterStyles).filter((s) => s.character.fontStyle === 'italic');
    const styleMap = slanted.map((s) => `r[style-name='${s.name}'] => em`);
    html = (await mammoth.convertToHtml({ buffer: Buffer.from(bytes) }, { styleMap })).value;
    tags = tagsOf(html);
  });
  const of = (tag: string): string[] => tags.filter((t) => t.tag === tag).map((t) => t.text);
  test('the same headings', () => {
    const { head } = almanac.folio;
    const headings = texts(blocks).filter((b) => /^h[1-6]$/.test(b.element) && b.text);
    // One style of each level has the standard’s name: those of most headings.
    const byName = [...new Set(headings.map((h) => `${h.element} ${h.style}`))];
    const found = tags.filter((t) => /^h[1-6]$/.test(t.tag));
    for (const f of found) expect(headings.map((h) => [h.element, h.text])).toContainEqual([f.tag, f.text]);
    const most = (element: string): number =>
      Math.max(...byName.filter((n) => n.startsWith(element)).map((n) => headings.filter((h) => `${h.element} ${h.style}` === n).length));
    for (const element of new Set(headings.map((h) => h.element)))
      expect(found.filter((f) => f.tag === element)).toHaveLength(most(element));
    expect(Object.keys(head.paragraphStyles).length).toBeGreaterThan(10);
  });
  test('all paragraphs in the order in which they are read', () => {
    const all = dense(
      tags
        .filter((t) => /^(h[1-6]|p|li)$/.test(t.tag))
        .map((t) => t.text)
        .join(''),
    ).replace(/\[\d+\]/g, '');
    let at = 0;
    for (const { text, listed } of texts(blocks)) {
      if (text.length < 20 || listed) continue;
      const found = all.indexOf(text.slice(0, 40), at);
      expect([text, found >= 0]).toEqual([text, true]);
      at = found;
    }
  });
  test('lists as lists, the same emphasis, links, notes and pictures with their words', () => {
    const listed = texts(blocks).filter((b) => b.listed && b.text && !/^h[1-6]$/.test(b.element));
    expect(of('li').filter((t) => !/↑$/.test(t))).toEqual(expect.arrayContaining(listed.slice(0, 5).map((l) => l.text)));
    const { head, stories } = almanac.folio;
    const italic = Object.values(stories).flatMap((s) =>
      Object.values(s.blocks).flatMap((b) =>
        b.kind === 'paragraph' && resolveParagraph(head, b).character.fontStyle === 'normal'
          ? b.content.flatMap((n) =>
              n.type === 'span' && n.style !== undefined && head.characterStyles[n.style]?.character.fontStyle === 'italic'
                ? [dense(n.text)]
                : [],
            )
          : [],
      ),
    );
    expect(italic.length).toBeGreaterThan(3);
    expect(italic.filter((t) => !of('em').some((e) => e.includes(t)))).toEqual([]);
    expect(html).toContain('href="https://');
    expect(html).toMatch(/<li id="footnote-\d+">/);
    expect(html).toContain('alt="The long brass telescope pointing through the open slit of the dome."');
  });
});

test('officeparser, which had no part in making it, finds the words in their order', async () => {
  const all = dense(await parseOfficeAsync(Buffer.from(bytes)));
  let at = 0;
  let found = 0;
  for (const { text } of texts(blocks)) {
    if (text.length < 30) continue;
    const here = all.indexOf(text.slice(0, 25), at);
    expect([text, here >= 0]).toEqual([text, true]);
    at = here;
    found++;
  }
  expect(found).toBeGreaterThan(60);
});
