import { describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parse } from 'parse5';
import { produce } from 'immer';
import type { Folio, Table } from '../src/index.ts';
import { subjectKey } from '../src/ledger/index.ts';
import { WRITERS } from '../src/write/index.ts';
import { asSample, make, readBack, writeOnly } from './support/samples.ts';
import { tableFolio } from './support/tableFolio.ts';
import { ofToday } from './support/ofToday.ts';

const share = { width: 1, unit: 'share' };
const rows = (n: number): object[] => Array.from({ length: n }, () => ({ height: 20 }));

/** Planets: a heading row, a heading in front of each row, a cell across two columns, one over two rows, one that is empty. */
const planets: Folio = tableFolio(
  [share, share, share],
  rows(4),
  [
    { row: 0, column: 0, text: 'Planet' },
    { row: 0, column: 1, columns: 2, text: 'How to see it' },
    { row: 1, column: 0, text: 'Venus', header: true },
    { row: 1, column: 1, rows: 2, text: 'By eye' },
    { row: 1, column: 2, text: 'evening' },
    { row: 2, column: 0, text: 'Mars', header: true },
    { row: 2, column: 2, text: 'midnight' },
    { row: 3, column: 0, text: 'Uranus', header: true },
    { row: 3, column: 1, text: '' },
    { row: 3, column: 2, text: 'with a chart' },
  ],
  { headerRows: 1 },
  { width: 300, height: 200 },
);
/** The same, broken after two rows: the heading row stands over the rest again. */
const broken = produce(planets, (d) => {
  const spread = d.spreads['s']!;
  const frame = spread.items['f1']!;
  if ('size' in frame) frame.size.height = 66;
  spread.items['f2'] = { ...structuredClone(planets.spreads['s']!.items['f1']!), id: 'f2', transform: [1, 0, 0, 1, 20, 300] };
  spread.order.push('f2');
  d.stories['t']!.frames.push({ spread: 's', item: 'f2' });
});

interface Node {
  nodeName: string;
  value?: string;
  attrs?: { name: string; value: string }[];
  childNodes?: Node[];
}
const all = (node: Node, name: string): Node[] => [
  ...(node.nodeName === name ? [node] : []),
  ...(node.childNodes ?? []).flatMap((c) => all(c, name)),
];
const text = (node: Node): string => node.value ?? (node.childNodes ?? []).map(text).join('');
/** A cell as HTML tells it: its element, its attributes, its words. */
const told = (cell: Node): string => [cell.nodeName, ...cell.attrs!.map((a) => `${a.name}=${a.value}`), text(cell)].join(' ');
/** An element's cells row by row, as an HTML parser that is not ours finds them. */
const rowsOf = (table: Node): string[][] =>
  all(table, 'tr').map((tr) => tr.childNodes!.filter((c) => c.nodeName === 'td' || c.nodeName === 'th').map(told));

describe('tables as they are read', () => {
  test('HTML: rows and cells, what heads what, and how far cells reach (HTML Living Standard, 4.9)', async () => {
    const { read } = await make(asSample(planets), 'html');
    const html = parse(new TextDecoder().decode(await read('index.html'))) as unknown as Node;
    const [table, ...more] = all(html, 'table');
    expect(more).toEqual([]);
    expect(all(table!, 'thead').map((t) => rowsOf(t).length)).toEqual([1]);
    expect(rowsOf(table!)).toEqual([
      ['th scope=col Planet', 'th scope=col colspan=2 How to see it'],
      ['th scope=row Venus', 'td rowspan=2 By eye', 'td evening'],
      ['th scope=row Mars', 'td midnight'],
      ['th scope=row Uranus', 'td ', 'td with a chart'],
    ]);
  });

  test('where a table goes on in another frame, its heading row heads that part too', async () => {
    const { read, ledger } = await make(asSample(broken), 'html');
    const html = parse(new TextDecoder().decode(await read('index.html'))) as unknown as Node;
    expect(all(html, 'table').map((t) => rowsOf(t).map((r) => r[0]!.split(' ').pop()))).toEqual([
      ['Planet', 'Venus', 'Mars'],
      ['Planet', 'Uranus'],
    ]);
    expect(ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
  });

  const tools = existsSync('/usr/bin/pdfinfo') && existsSync('/usr/bin/qpdf');
  (tools ? test : test.skip)('PDF: Poppler finds the table by its tags (ISO 32000-1, 14.8.4.3.4 and 14.8.5.7)', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'folio-table-'));
    const file = join(folder, 'table.pdf');
    await writeFile(file, await (await make(asSample(planets), 'pdf')).read('document.pdf'));
    const run = (program: string, ...args: string[]): string => execFileSync(program, args, { encoding: 'utf8' });
    const types = run('pdfinfo', '-struct', file)
      .split('\n')
      .flatMap((l) => /^ *(Table|THead|TBody|TR|TH|TD)\b/.exec(l)?.[1] ?? []);
    expect(types.join(' ')).toBe('Table THead TR TH TH TBody TR TH TD TD TR TH TD TR TH TD TD');
    const attributes = run('pdfinfo', '-struct', file).replace(/\s+/g, ' ');
    expect(attributes.match(/Scope \/?Column/g)).toHaveLength(2);
    expect(attributes.match(/Scope \/?Row/g)).toHaveLength(3);
    expect(attributes).toMatch(/ColSpan 2/);
    expect(attributes).toMatch(/RowSpan 2/);
    expect(run('qpdf', '--check', file)).toMatch(/No syntax or stream encoding errors/);
    await rm(folder, { recursive: true, force: true });
  });

  const table = (d: Folio): Table => d.stories['t']!.blocks['tb'] as Table;
  const DAMAGE: [string, (d: Folio) => void][] = [
    ['the heading row is a row like others', (d) => void (table(d).headerRows = 0)],
    ['a row is not headed', (d) => void (table(d).cells['c2']!.header = false)],
    ['a cell has gone', (d) => void delete table(d).cells['c8']],
    [
      'two cells have changed places',
      (d) => {
        const { c4, c9 } = table(d).cells as Record<string, { order: string[] }>;
        [c4!.order, c9!.order] = [c9!.order, c4!.order];
      },
    ],
  ];
  describe.each(
    ofToday(
      WRITERS.filter((w) => w.view === 'pages').map((w) => w.id),
      1,
      (id) => id,
    ),
  )('damage is found in %s', (id) => {
    test.each(DAMAGE)('%s', async (_, damage) => {
      const files = await writeOnly(asSample(planets), id, {}, produce(planets, damage));
      const against = (await readBack(asSample(planets), id, files)).filter((e) => !e.agrees).map((e) => subjectKey(e.subject));
      expect(against).toContain('table:tb:structure');
    });
  });
});
