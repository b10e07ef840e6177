import { beforeAll, describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import type { Folio, Table } from '../src/index.ts';
import { applyEdit, pagesOf, pathOf } from '../src/index.ts';
import { subjectKey } from '../src/ledger/index.ts';
import type { Sample } from '@elastic-folio/demo';
import { PUBLICATIONS, make, readBack, sample } from './support/samples.ts';
import { ofToday } from './support/ofToday.ts';

const SMALL = { resolution: 36, cover: 'none' };
let almanac: Sample;
let table: { story: string; id: string };
beforeAll(async () => {
  almanac = await sample('marrowby-almanac');
  for (const story of Object.values(almanac.folio.stories))
    for (const block of Object.values(story.blocks))
      if (block.kind === 'table' && story.frames.length) table ??= { story: story.id, id: block.id };
});

/** What a person says of the structure, and where reading back a result made without it must say that it is not so. */
const SAID: [what: string, say: (folio: Folio) => Folio, subjects: (folio: Folio) => string[]][] = [
  [
    'what a style means',
    (f) =>
      applyEdit(f, {
        kind: 'styles.roles',
        args: { paragraph: { head: { ...f.head.paragraphStyles['head']!.role!, element: 'h5' } }, character: {} },
      }).folio,
    () => ['paragraph:dome-feature-3:role'],
  ],
  [
    'the order in which a spread is read',
    (f) => {
      const { spread } = pagesOf(f).find((p) => p.spread.id === 's4')!;
      const order = pathOf(f, spread).map((i) => i.id);
      return applyEdit(f, { kind: 'path.order', args: { spread: 's4', order: order.reverse() } }).folio;
    },
    (f) => [`document:${f.head.id}:order`],
  ],
  [
    'that cells head their rows, by the role of their style',
    (f) =>
      produce(f, (d) => {
        const story = d.stories[table.story]!;
        const { cells, headerRows } = story.blocks[table.id] as Table;
        d.head.paragraphStyles['row-heading'] = {
          ...d.head.paragraphStyles[(story.blocks[Object.values(cells)[0]!.order[0]!] as { style: string }).style]!,
          id: 'row-heading',
          name: 'Row heading',
          role: { element: 'th', startsSection: false, leaveOut: false },
        };
        for (const cell of Object.values(cells))
          if (cell.column === 0 && cell.row >= headerRows) (story.blocks[cell.order[0]!] as { style: string }).style = 'row-heading';
      }),
    // Running text tells its header cells paragraph by paragraph.
    () => [`table:${table.id}:structure`, `paragraph:${table.id}-2-1-text:role`],
  ],
  [
    // WCAG 2.2, 3.1.2: language of parts.
    'that some words are in another language',
    (f) =>
      applyEdit(f, {
        kind: 'words.language',
        args: { story: 'dome-feature', paragraph: 'dome-feature-5', from: 4, to: 14, language: 'la' },
      }).folio,
    () => ['paragraph:dome-feature-5:language'],
  ],
  [
    'that a picture is decoration',
    (f) => applyEdit(f, { kind: 'item.decoration', args: { item: 'telescope-picture', decoration: true } }).folio,
    // Where everything stands in its place, it is told of the picture itself.
    (f) => [`document:${f.head.id}:order`, 'item:telescope-picture:alt'],
  ],
];

/** What an output has no word for: slides know no roles and are read as their things lie; OpenDocument has no columns that head a table. */
const NOT_TOLD: Record<string, string[]> = {
  pptx: ['what a style means', 'the order in which a spread is read'],
  odp: ['what a style means', 'the order in which a spread is read', 'that cells head their rows, by the role of their style'],
  odt: ['that cells head their rows, by the role of their style'],
};

describe.each(
  ofToday(
    PUBLICATIONS.map((w) => w.id),
    2,
    (id) => id,
  ),
)('the structure steers %s', (output) => {
  const asked = SAID.filter(([what]) => !NOT_TOLD[output]?.includes(what));
  let said: Folio;
  /** What reading a result that was made with all of it contradicts, and one that was made without. */
  let told: string[];
  let untold: Set<string>;
  beforeAll(async () => {
    said = asked.reduce((folio, [, say]) => say(folio), almanac.folio);
    const document = { ...almanac, folio: said };
    const [made, plain] = [await make(document, output, SMALL), await make(almanac, output, SMALL)];
    told = made.ledger.filter((e) => e.check === 'contradicted').map((e) => `${subjectKey(e.subject)}: ${e.evidence}`);
    const files = new Map(await Promise.all(plain.paths.map(async (p) => [p, await plain.read(p)] as const)));
    const evidence = await readBack(document, output, files, SMALL);
    untold = new Set(evidence.filter((e) => !e.agrees).map((e) => subjectKey(e.subject)));
  });
  test('all of it is borne out', () => expect(told).toEqual([]));
  test.each(asked)('by %s', (_, __, subjects) => {
    expect(subjects(said).filter((s) => untold.has(s))).not.toEqual([]);
  });
});
