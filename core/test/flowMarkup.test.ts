import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import type { Folio, Inline, Paragraph } from '../src/index.ts';
import type { Role } from '../src/folio/styles.ts';
import { Table } from '../src/folio/story.ts';
import { asSample, make, writeOnly } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

const role = (element: Role['element']): Role => ({ element, startsSection: false, leaveOut: false });

/** The body of a document as an article, without classes, which other tests look at. */
async function body(folio: Folio, settings: Record<string, unknown> = {}): Promise<string> {
  const html = new TextDecoder().decode((await writeOnly(asSample(folio), 'article', settings, folio)).get('index.html'));
  return /<main>\s*<section[^>]*>\s*([\s\S]*?)\s*<\/section>\s*([\s\S]*?)\s*<\/main>/
    .exec(html)!
    .slice(1)
    .join('\n')
    .replace(/ class="[^"]*"/g, '')
    .trim();
}
const of = (...content: Inline[]): Folio => tinyFolio([content]);
const span = (text: string, more: Partial<Extract<Inline, { type: 'span' }>> = {}): Inline => ({ type: 'span', text, ...more });

describe('what stands in a line (HTML, 4.5)', () => {
  test('text is escaped, ends of lines and tabs are kept apart', async () => {
    expect(await body(of(span('a < b & "c"'), { type: 'softReturn' }, span('d'), { type: 'tab' }, span('e')))).toBe(
      '<p id="t-p1">a &lt; b &amp; &quot;c&quot;<br>d\u2003e</p>',
    );
  });
  test('ruby has its reading, and brackets for readers that know none', async () => {
    expect(await body(of({ type: 'ruby', id: 'r', base: '星', reading: 'ほし' }))).toContain(
      '<ruby>星<rp>(</rp><rt>ほし</rt><rp>)</rp></ruby>',
    );
  });
  test('a link leads where it says, inside and out, or is no link', async () => {
    const linked = (destination: Folio['stories'][string]['links'][string]['destination']): Folio =>
      produce(tinyFolio([[span('here', { link: 'k' })], 'There.']), (d) => void (d.stories['t']!.links['k'] = { id: 'k', destination }));
    expect(await body(linked({ to: 'address', href: 'https://marrowby.example/', window: 'same' }))).toContain(
      '<a href="https://marrowby.example/">here</a>',
    );
    expect(await body(linked({ to: 'paragraph', paragraph: 'p2' }))).toContain('<a href="#t-p2">here</a>');
    expect(await body(linked({ to: 'paragraph', paragraph: 'gone' }))).toContain('>here<');
    expect(await body(linked({ to: 'address', href: 'javascript:void(0)', window: 'same' }))).not.toContain('<a');
  });
  test('a style of characters is the element that it means', async () => {
    const folio = produce(
      of(span('one ', { style: 'c' }), span('two')),
      (d) => void (d.head.characterStyles['c'] = { id: 'c', name: 'C', character: {}, role: role('em') }),
    );
    expect(await body(folio)).toContain('<em>one </em>two');
  });
  test('another language is told where it begins', async () => {
    const folio = of(span('She said '), span('guten Abend', { overrides: { language: 'de' } }));
    expect(await body(folio)).toContain('<span lang="de">guten Abend</span>');
  });
  test('a note has a number that leads to it, and a way back', async () => {
    const folio = produce(of(span('Word'), { type: 'note', id: 'n', kind: 'footnote', order: ['np'] }), (d) => {
      d.stories['t']!.blocks['np'] = { kind: 'paragraph', id: 'np', style: 'p', content: [{ type: 'span', text: 'What is meant.' }] };
    });
    const html = await body(folio);
    expect(html).toContain('Word<a role="doc-noteref" id="r-n" href="#n-n">1</a>');
    expect(html).toContain(
      '<aside role="doc-footnote" id="n-n" aria-label="1"><p id="t-np"><a role="doc-backlink" href="#r-n">1</a> What is meant.</p></aside>',
    );
  });
});

describe('lists (HTML, 4.4.5 to 4.4.8)', () => {
  const list = (levels: number[], kind: 'bullet' | 'number' = 'number', more: { restart?: number } = {}): Folio =>
    produce(tinyFolio(levels.map((_, i) => `Entry ${i + 1}.`)), (d) => {
      const level = { kind, text: kind === 'bullet' ? '•' : '{n}.', texts: {}, format: 'decimal' as const, indent: 12 };
      d.head.listStyles['l'] = { id: 'l', name: 'List', levels: [level, { ...level, format: 'lowerAlpha' }] };
      d.head.paragraphStyles['p']!.role = role('li');
      levels.forEach((at, i) => {
        const p = d.stories['t']!.blocks[`p${i + 1}`] as Paragraph;
        p.overrides = { list: { style: 'l', level: at, ...(i === 0 && more.restart !== undefined && { restart: more.restart }) } };
      });
    });
  const outline = (html: string): string =>
    html
      .replace(/ id="[^"]*"/g, '')
      .replace(/\s+/g, '')
      .replace(/Entry/g, '');

  test('entries of one list stand in one', async () => {
    expect(outline(await body(list([0, 0])))).toBe('<ol><li>1.</li><li>2.</li></ol>');
    expect(outline(await body(list([0, 0], 'bullet')))).toBe('<ul><li>1.</li><li>2.</li></ul>');
  });
  test('those of a deeper level in a list inside the entry above', async () => {
    expect(outline(await body(list([0, 1, 1, 0])))).toBe('<ol><li>1.<oltype="a"><li>2.</li><li>3.</li></ol></li><li>4.</li></ol>');
  });
  test('a list that begins deeper than it goes on is still whole', async () => {
    const html = outline(await body(list([1, 0])));
    expect(html.match(/<ol/g)).toHaveLength(2);
    expect(html.match(/<\/ol>/g)).toHaveLength(2);
  });
  test('numbers go on from where they were set to begin', async () => {
    expect(await body(list([0, 0], 'number', { restart: 5 }))).toContain('<ol start="5">');
  });
  test('as text they keep the numbers that were set', async () => {
    const html = await body(list([0, 0]), { lists: 'text' });
    expect(html).not.toMatch(/<(ol|ul|li)/);
    expect(html).toContain('<span>1.</span> Entry 1.');
  });
});

describe('tables (HTML, 4.9)', () => {
  const folio = produce(tinyFolio(['A text.']), (d) => {
    const story = d.stories['t']!;
    const cell = (id: string, row: number, column: number, text: string, more: object = {}) => {
      story.blocks[`${id}-p`] = { kind: 'paragraph', id: `${id}-p`, style: 'p', content: [{ type: 'span', text }] };
      return { id, row, column, order: [`${id}-p`], ...more };
    };
    story.blocks['tb'] = Table.parse({
      kind: 'table',
      id: 'tb',
      columns: [{ width: 60 }, { width: 60 }, { width: 60 }],
      rows: [{ height: 12 }, { height: 12 }, { height: 12 }],
      headerRows: 1,
      cells: {
        a: cell('a', 0, 0, 'Head', { columns: 3 }),
        b: cell('b', 1, 0, 'Side', { header: true, rows: 2 }),
        c: cell('c', 1, 1, 'One'),
        d: cell('d', 1, 2, 'Two'),
        e: cell('e', 2, 1, 'Three', { columns: 2 }),
      },
    });
    story.order.push('tb');
  });
  test('have their heads, sides and spans', async () => {
    const html = (await body(folio)).replace(/<p id="[^"]*">([^<]*)<\/p>/g, '$1').replace(/\n/g, '');
    expect(html).toContain(
      '<thead><tr><th scope="col" colspan="3">Head</th></tr></thead><tbody><tr><th scope="row" rowspan="2">Side</th><td>One</td><td>Two</td></tr><tr><td colspan="2">Three</td></tr></tbody>',
    );
  });
  test('are found again as they are, cell by cell', async () => {
    const made = await make(asSample(folio), 'article', {});
    const cells = made.ledger.filter((e) => e.subject.kind === 'cell' || e.subject.kind === 'table');
    expect(cells.map((e) => [e.subject.id, e.outcome, e.check])).toEqual(
      ['tb', 'a', 'b', 'c', 'd', 'e'].map((id) => [id, 'kept', 'confirmed']),
    );
  });
});

describe('what stands together', () => {
  const roles = (...elements: Role['element'][]): Folio =>
    produce(tinyFolio(elements.map((e, i) => `${e} ${i + 1}.`)), (d) => {
      elements.forEach((element, i) => {
        d.head.paragraphStyles[`s-${element}`] = {
          id: `s-${element}`,
          name: element,
          basedOn: 'p',
          paragraph: {},
          character: {},
          role: role(element),
        };
        (d.stories['t']!.blocks[`p${i + 1}`] as Paragraph).style = `s-${element}`;
      });
    });
  const tags = (html: string): string => [...html.matchAll(/<(\/?[a-z0-9]+)/g)].map((m) => m[1]).join(' ');

  test('paragraphs of one quotation stand in one', async () => {
    expect(tags(await body(roles('p', 'blockquote', 'blockquote', 'p')))).toBe('p /p blockquote p /p p /p /blockquote p /p');
  });
  test('an aside is one', async () => {
    expect(tags(await body(roles('aside', 'p')))).toBe('aside p /p /aside p /p');
  });
  test('code keeps its spaces', async () => {
    expect(tags(await body(roles('pre')))).toBe('pre code /code /pre');
  });
  test('headings are what they are', async () => {
    expect(tags(await body(roles('h1', 'h3', 'p')))).toBe('h1 /h1 h3 /h3 p /p');
  });
  test('a caption without a picture is a paragraph', async () => {
    expect(tags(await body(roles('figcaption')))).toBe('p /p');
  });
});
