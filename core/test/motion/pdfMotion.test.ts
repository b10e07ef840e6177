import { beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { original, produce } from 'immer';
import { getDocument } from '../../src/ledger/pdf/pdfjs.ts';
import { motionOfFile } from '../../src/ledger/pdf/observeMotion.ts';
import { openFile } from '../../src/ledger/pdf/pdfFile.ts';
import { Folio, Transition } from '../../src/index.ts';
import { hasDirection, openingEntries, transitionDictionary } from '../../src/write/pdf/transition.ts';
import { asSample, writeOnly } from '../support/samples.ts';
import { motionFolio } from '../support/motionFolio.ts';

const dictionary = (t: object) => transitionDictionary(Transition.parse(t));

describe('the transition dictionary (ISO 32000-1, table 162)', () => {
  test.each([
    [
      { style: 'split', axis: 'vertical', motion: 'outward' },
      { S: 'Split', D: 1, Dm: 'V', M: 'O' },
    ],
    [
      { style: 'blinds', seconds: 2 },
      { S: 'Blinds', D: 2, Dm: 'H' },
    ],
    [{ style: 'box' }, { S: 'Box', D: 1, M: 'I' }],
    [
      { style: 'wipe', direction: 90 },
      { S: 'Wipe', D: 1, Di: 90 },
    ],
    [{ style: 'dissolve' }, { S: 'Dissolve', D: 1 }],
    [
      { style: 'glitter', direction: 315 },
      { S: 'Glitter', D: 1, Di: 315 },
    ],
    [
      { style: 'fly', direction: 270, motion: 'outward' },
      { S: 'Fly', D: 1, M: 'O', Di: 270 },
    ],
    [{ style: 'push' }, { S: 'Push', D: 1, Di: 0 }],
    [
      { style: 'cover', direction: 270 },
      { S: 'Cover', D: 1, Di: 270 },
    ],
    [
      { style: 'uncover', direction: 360 },
      { S: 'Uncover', D: 1, Di: 0 },
    ],
    [
      { style: 'fade', seconds: 0.5 },
      { S: 'Fade', D: 0.5 },
    ],
  ])('%j', (t, entries) => expect(dictionary(t)).toEqual({ Type: 'Trans', ...entries }));

  test('directions that it has only for other styles become the nearest', () => {
    // “90 Bottom to top (Wipe only), 180 Right to left (Wipe only)”.
    expect(dictionary({ style: 'push', direction: 180 })['Di']).toBe(270);
    expect(hasDirection(Transition.parse({ style: 'push', direction: 180 }))).toBe(false);
    expect(hasDirection(Transition.parse({ style: 'wipe', direction: 180 }))).toBe(true);
    expect(hasDirection(Transition.parse({ style: 'fade', direction: 180 }))).toBe(true);
  });

  test('how a document is opened (tables 28 and 150)', () => {
    const opening = { fullScreen: true, view: 'spread' as const, showBookmarks: true, loop: false };
    expect(openingEntries(opening, false)).toEqual({
      PageMode: 'FullScreen',
      PageLayout: 'TwoPageRight',
      ViewerPreferences: { NonFullScreenPageMode: 'UseOutlines' },
    });
    expect(openingEntries({ ...opening, fullScreen: false, showBookmarks: false, view: 'page' }, false)).toEqual({
      PageMode: 'UseNone',
      PageLayout: 'SinglePage',
    });
  });
});

// Table 151: /Fit the whole page, /FitH its width, /XYZ so many times its size; null leaves the place as it is.
test.each([
  ['page', ['Fit']],
  ['width', ['FitH', null]],
  [1.25, ['XYZ', null, null, 1.25]],
] as const)('a document that opens with zoom %s says so in its catalog (12.3.2.2)', async (zoom, view) => {
  const folio = Folio.parse(
    produce(motionFolio(), (d) => void (d.head.opening = { fullScreen: false, view: 'page', zoom, showBookmarks: false, loop: false })),
  );
  const bytes = (await writeOnly(asSample(folio), 'pdf', {}, folio)).get('document.pdf')!;
  const pdf = await getDocument({ data: bytes.slice(), verbosity: 0 } as never).promise;
  const opens = (await pdf.getOpenAction()) as { dest: unknown[] };
  const [page, kind, ...rest] = opens.dest as [unknown, { name: string }, ...unknown[]];
  expect([await pdf.getPageIndex(page as never), kind.name, ...rest]).toEqual([0, ...view]);
  await pdf.destroy();
});

describe('the form of a PDF (ISO 32000-1, 12.7), seen by other programs', () => {
  let bytes: Uint8Array;
  beforeAll(async () => {
    const folio = Folio.parse(
      produce(motionFolio(), (d) => {
        d.head.opening = { fullScreen: true, view: 'page', showBookmarks: false, loop: false };
        const pick = structuredClone(original(d.spreads['s']!.items['pick'])!);
        Object.assign(d.spreads['s']!.items, {
          pick2: { ...pick, id: 'pick2', control: { type: 'radio', group: 'colour', value: 'blue', on: false } },
          menu: { ...pick, id: 'menu', fieldName: 'menu', control: { type: 'choice', options: [{ value: 'a', label: 'Ä' }], value: 'a' } },
          sign: { ...pick, id: 'sign', fieldName: 'sign', control: { type: 'signature' } },
          push: { ...pick, id: 'push', fieldName: 'push', control: { type: 'button', caption: 'Go' } },
        });
        d.spreads['s']!.order.push('pick2', 'menu', 'sign', 'push');
      }),
    );
    bytes = (await writeOnly(asSample(folio), 'pdf', {}, folio)).get('document.pdf')!;
  });

  test('pdf.js finds each field with its name, label, kind and state', async () => {
    const pdf = await getDocument({ data: bytes.slice(), verbosity: 0 } as never).promise;
    const page = await pdf.getPage(1);
    const fields = ((await page.getAnnotations()) as unknown as Record<string, unknown>[]).filter((a) => a['subtype'] === 'Widget');
    const told = fields.map((f) => [
      f['fieldName'],
      f['fieldType'] ?? null,
      f['alternativeText'],
      f['fieldValue'] ?? null,
      f['required'] === true,
    ]);
    expect(told).toEqual([
      ['tick', 'Btn', 'The tick', 'Off', true],
      ['colour', 'Btn', 'The pick', 'dark_red', false],
      ['words', 'Tx', 'The words', 'What (is) it?', false],
      ['colour', 'Btn', 'The pick', 'dark_red', false],
      ['menu', 'Ch', 'The pick', ['a'], false],
      ['sign', 'Sig', 'The pick', null, false],
      ['push', 'Btn', 'The pick', null, false],
    ]);
    expect(fields[0]).toMatchObject({ checkBox: true, exportValue: 'yes', rect: [320, 728, 380, 742] });
    expect(fields[2]).toMatchObject({ multiLine: true });
    // A box that is ticked by a program has a look to show, and one to show when it is not.
    pdf.annotationStorage.setValue(fields[0]!['id'] as string, { value: true });
    const saved = await pdf.saveDocument();
    await pdf.destroy();
    const again = await getDocument({ data: saved, verbosity: 0 } as never).promise;
    const ticked = ((await (await again.getPage(1)).getAnnotations()) as unknown as Record<string, unknown>[]).find(
      (a) => a['fieldName'] === 'tick',
    )!;
    expect(ticked['fieldValue']).toBe('yes');
    await again.destroy();
  });

  test('transitions and times are found in the file', async () =>
    expect([...motionOfFile(await openFile(bytes))].filter(([about]) => about.startsWith('page '))).toEqual([
      ['page 1 transition', 'wipe in 0.4 s'],
      ['page 1 advance', 'after 6 s'],
    ]));

  (existsSync('/usr/bin/qpdf') ? test : test.skip)('qpdf finds nothing wrong, the form in the catalog and the full screen', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'form-'));
    const file = join(folder, 'form.pdf');
    await writeFile(file, bytes);
    expect(execFileSync('qpdf', ['--check', file], { encoding: 'utf8' })).toContain('No syntax or stream encoding errors');
    const json = JSON.parse(execFileSync('qpdf', ['--json', file], { encoding: 'utf8', maxBuffer: 1 << 28 })) as {
      acroform: { hasacroform: boolean; fields: { fullname: string; fieldtype: string; ischeckbox: boolean }[] };
    };
    expect(json.acroform.hasacroform).toBe(true);
    const names = json.acroform.fields.map((f) => f.fullname).sort();
    expect(names).toEqual(['colour', 'colour', 'menu', 'push', 'sign', 'tick', 'words']);
    expect(json.acroform.fields.find((f) => f.fullname === 'tick')).toMatchObject({ fieldtype: '/Btn', ischeckbox: true });
    expect(Buffer.from(bytes).toString('latin1')).toMatch(/\/PageMode \/FullScreen/);
    await rm(folder, { recursive: true, force: true });
  });
});
