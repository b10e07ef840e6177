import { describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { produce } from 'immer';
import type { Folio, Inline, Paragraph } from '../src/index.ts';
import { subjectKey } from '../src/ledger/index.ts';
import { WRITERS } from '../src/write/index.ts';
import { asSample, make, readBack, writeOnly } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';
import { ofToday } from './support/ofToday.ts';

const span = (text: string, overrides?: object): Inline => ({ type: 'span', text, ...(overrides && { overrides }) });
const note: Inline = { type: 'note', id: 'n1', kind: 'footnote', order: ['note1'] };
const grey = (value: number) => ({ type: 'colour' as const, colour: { space: 'grey' as const, value } });
const LONG =
  'It begins as a hum under the floor, climbs the iron stair, and then the whole roof of the room sets off, slowly and with considerable dignity, to look at another part of the sky. Extraordinary observations notwithstanding, nobody misunderstands.';

/** One text with everything the typesetter can do with words. */
const rich: Folio = produce(
  tinyFolio(
    [
      [span(LONG)],
      [span('Numbered '), span('and wide', { horizontalScale: 1.3 }), span(' and raised', { position: 'superscript' })],
      [
        span('small '),
        span('Capitals', { capitals: 'small' }),
        span(' outlined', {
          stroke: {
            paint: grey(0.3),
            weight: 0.3,
            dashes: [],
            cap: 'butt',
            join: 'miter',
            miterLimit: 4,
            startMarker: 'none',
            endMarker: 'none',
          },
        }),
      ],
      [span('Entry'), { type: 'tab' }, span('12')],
      [span('With a note'), note, span(' and more after it.')],
      [span('one and two')],
      [span('Mond\u00ADfinsternis am Abend, und noch eine Mond\u00ADfinsternis danach, Mond\u00ADfinsternis')],
      [span('Shaded and ruled')],
    ],
    { width: 150, height: 420, paragraph: { spaceAfter: 4 } },
  ),
  (d) => {
    const p = (n: number): Paragraph => d.stories['t']!.blocks[`p${n}`] as Paragraph;
    const hyphenation = { before: 2, after: 3, inARow: 2, capitals: false };
    p(1).overrides = {
      align: 'justify',
      composer: 'totalFit',
      hyphenation,
      dropCapital: { lines: 2, characters: 1 },
      hangingPunctuation: true,
      glyphWidth: { least: 0.98, ideal: 1, most: 1.02 },
      letterSpace: { least: -0.01, ideal: 0, most: 0.02 },
    };
    d.head.listStyles['ls'] = { id: 'ls', name: 'L', levels: [{ kind: 'number', text: '{n}.', texts: {}, format: 'decimal', indent: 16 }] };
    p(2).overrides = { list: { style: 'ls', level: 0 } };
    p(4).overrides = { tabs: [{ at: 150, align: 'right', leader: '. ' }] };
    p(7).overrides = { align: 'justify' };
    p(7).character = { language: 'de' };
    p(8).overrides = {
      shading: { paint: grey(0.9), offset: 2 },
      ruleBelow: { weight: 1, offset: 4, paint: grey(0.4), width: 'column' },
      border: { weight: 0.5, paint: grey(0.2), offset: 3 },
    };
    d.stories['t']!.blocks['note1'] = { kind: 'paragraph', id: 'note1', style: 'p', content: [span('The note itself.')] };
    d.stories['t']!.blocks['tb'] = {
      kind: 'table',
      id: 'tb',
      columns: [
        { width: 1, unit: 'share' },
        { width: 1, unit: 'share' },
      ],
      rows: [{ height: 0, exact: false }],
      headerRows: 0,
      footerRows: 0,
      cells: {
        c1: { id: 'c1', row: 0, column: 0, rows: 1, columns: 1, verticalAlign: 'top', header: false, order: ['cp1'], fill: grey(0.8) },
        c2: { id: 'c2', row: 0, column: 1, rows: 1, columns: 1, verticalAlign: 'top', header: false, order: ['cp2'] },
      },
    };
    d.stories['t']!.blocks['cp1'] = { kind: 'paragraph', id: 'cp1', style: 'p', content: [span('Left cell')] };
    d.stories['t']!.blocks['cp2'] = { kind: 'paragraph', id: 'cp2', style: 'p', content: [span('Right cell')] };
    d.stories['t']!.order.push('tb');
  },
);

describe.each(
  ofToday(
    WRITERS.filter((w) => w.view === 'pages').map((w) => w.id),
    1,
    (id) => id,
  ),
)('rich text in %s', (id) => {
  test('is read back as designed: words, looks and places', async () => {
    const { ledger, valid } = await make(asSample(rich), id);
    expect(ledger.filter((e) => e.check === 'contradicted').map((e) => [subjectKey(e.subject), e.evidence])).toEqual([]);
    expect(valid).toBe(true);
    expect(ledger.filter((e) => e.outcome !== 'kept').map((e) => [subjectKey(e.subject), e.code])).toEqual([]);
    expect(ledger.find((e) => subjectKey(e.subject) === 'table:tb:structure')).toMatchObject({
      check: 'confirmed',
      evidence: 'a table of 1 row',
    });
    for (let n = 1; n <= 8; n++)
      for (const aspect of ['text', 'look', 'place'])
        expect([n, aspect, ledger.find((e) => subjectKey(e.subject) === `paragraph:p${n}:${aspect}`)!.check]).toEqual([
          n,
          aspect,
          'confirmed',
        ]);
  });

  const DAMAGE: [string, (d: Folio) => void, string][] = [
    ['a list’s number is another', (d) => void (d.head.listStyles['ls']!.levels[0]!.text = '{n})'), 'paragraph:p2:text'],
    [
      'a note’s words are others',
      (d) => void ((d.stories['t']!.blocks['note1'] as Paragraph).content = [span('Something else.')]),
      'paragraph:note1:text',
    ],
    [
      'a cell’s words are others',
      (d) => void ((d.stories['t']!.blocks['cp2'] as Paragraph).content = [span('Wrong cell')]),
      'paragraph:cp2:text',
    ],
    [
      'the cells have changed places',
      (d) =>
        void ([
          (d.stories['t']!.blocks['tb'] as { cells: Record<string, { order: string[] }> }).cells['c1']!.order,
          (d.stories['t']!.blocks['tb'] as { cells: Record<string, { order: string[] }> }).cells['c2']!.order,
        ] = [['cp2'], ['cp1']]),
      'paragraph:cp1:text',
    ],
    [
      'raised letters stand on the line',
      (d) => void ((d.stories['t']!.blocks['p2'] as Paragraph).content[2] = span(' and raised')),
      'paragraph:p2:look',
    ],
    [
      'the drop capital is gone',
      (d) => void ((d.stories['t']!.blocks['p1'] as Paragraph).overrides!.dropCapital = null),
      'paragraph:p1:look',
    ],
    [
      'a tab stop stands elsewhere',
      (d) => void ((d.stories['t']!.blocks['p4'] as Paragraph).overrides!.tabs = [{ at: 120, align: 'right', leader: '. ' }]),
      'paragraph:p4:place',
    ],
  ];
  test.each(DAMAGE)('damage is found: %s', async (_, damage, subject) => {
    const files = await writeOnly(asSample(rich), id, {}, produce(rich, damage));
    const against = (await readBack(asSample(rich), id, files)).filter((e) => !e.agrees).map((e) => subjectKey(e.subject));
    expect(against).toContain(subject);
  });
});

const run = (program: string, ...args: string[]): string => execFileSync(program, args, { encoding: 'utf8' });
const tools = existsSync('/usr/bin/pdftotext') && existsSync('/usr/bin/qpdf');
(tools ? test : test.skip)('Poppler reads divided words whole, and qpdf finds nothing against the file', async () => {
  const folder = await mkdtemp(join(tmpdir(), 'folio-rich-'));
  const file = join(folder, 'rich.pdf');
  await writeFile(file, await (await make(asSample(rich), 'pdf')).read('document.pdf'));
  expect(run('qpdf', '--check', file)).toMatch(/No syntax or stream encoding errors/);
  const text = run('pdfinfo', '-struct-text', file)
    .replace(/[\u00AD"]/g, '')
    .replace(/\s+/g, ' ');
  for (const word of ['considerable', 'Extraordinary', 'observations', 'notwithstanding', 'misunderstands', 'Mondfinsternis'])
    expect(text.replace(/ /g, '')).toContain(word);
  await rm(folder, { recursive: true, force: true });
});
