import { describe, expect, test } from '@jest/globals';
import { newEdition } from '../src/language/index.ts';
import { produce } from 'immer';
import { Folio } from '../src/index.ts';
import type { LedgerEntry } from '../src/ledger/index.ts';
import { subjectKey, subjectsOf } from '../src/ledger/index.ts';
import type { Writer } from '../src/write/index.ts';
import { PUBLICATIONS, asSample, make, sample } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';
import { ofToday } from './support/ofToday.ts';

/** What reacts, moves and is filled in; and what becomes of each in outputs that play, in a book, on paper and in running text. */
const ALIVE = [
  'item:switcher1:motion',
  'item:veil1:motion',
  'item:embed1:embed',
  'item:fieldItem:field',
  'cue:cue1:motion',
  'page:pg:transition',
  'document:tiny:opening',
];
const ALIVE_IN: Record<string, string[]> = {
  html: ['kept', 'kept', 'kept', 'kept', 'kept', 'kept', 'dropped'],
  'epub-fixed': ['kept', 'kept', 'dropped', 'kept', 'kept', 'dropped', 'dropped'],
  pdf: ['adapted', 'adapted', 'dropped', 'kept', 'dropped', 'kept', 'kept'],
  pptx: ['adapted', 'adapted', 'dropped', 'dropped', 'dropped', 'adapted', 'dropped'],
  odp: ['adapted', 'adapted', 'dropped', 'kept', 'dropped', 'adapted', 'dropped'],
  flow: ['adapted', 'adapted', 'dropped', 'dropped', 'dropped', 'excluded', 'dropped'],
};
/** A table, a note, what text runs around, a cell: where they are not all kept as they are. */
const HELD_IN: Record<string, string[]> = {
  pptx: ['adapted', 'adapted', 'adapted', 'kept'],
  odp: ['kept', 'adapted', 'adapted', 'kept'],
  flow: ['excluded', 'kept', 'dropped', 'excluded'],
};
const isFlow = (writer: Writer): boolean => writer.view === 'flow' || writer.id === 'odt';
const flowsOr = (writer: Writer): string => (isFlow(writer) ? 'flow' : writer.id);

const common = { layer: 'l', transform: [1, 0, 0, 1, 20, 20], size: { width: 40, height: 30 } };

/** A document with one of everything the schema knows, set and painted or not. */
function everything(): Folio {
  const folio = tinyFolio([
    'Plain text',
    [
      { type: 'span', text: 'with ' },
      { type: 'note', id: 'note1', kind: 'footnote', order: ['np'] },
      { type: 'ruby', id: 'ruby1', base: '本', reading: 'ほん' },
      { type: 'anchor', id: 'anchor1', item: 'inText', place: 'inline' },
      { type: 'field', id: 'field1', field: 'pageCount' },
      { type: 'span', text: 'bad', link: 'bad' },
    ],
  ]);
  return Folio.parse(
    produce(folio as unknown as Record<string, never>, (d: never) => {
      const draft = d as unknown as Folio & { spreads: Record<string, { items: Record<string, unknown> }> };
      const items = draft.spreads['s']!.items as Record<string, unknown>;
      const add = (id: string, item: object): void => void ((items[id] = { ...common, id, ...item }), draft.spreads['s']!.order.push(id));
      add('media1', { kind: 'media', media: null });
      add('switcher1', { kind: 'switcher', cards: [{ id: 'c1', name: 'One', items: [] }] });
      add('veil1', { kind: 'veil', flakeSize: 36, action: 'Show the answer' });
      add('embed1', { kind: 'embed', source: { from: 'address', href: 'https://marrowby.example/' } });
      add('fieldItem', { kind: 'field', control: { type: 'checkBox' }, fieldName: 'a', label: 'A' });
      add('table1', { kind: 'tableFrame' });
      add('picture1', {
        kind: 'picture',
        media: null,
        placement: [40, 0, 0, 30, 0, 0],
        effects: { outerShadow: { paint: { type: 'colour', colour: { space: 'grey', value: 0 } }, opacity: 0.5, blur: 3, dx: 1, dy: 1 } },
        wrap: { kind: 'box' },
      });
      add('shape1', {
        kind: 'shape',
        path: [['M', 0, 0], ['L', 10, 0], ['L', 10, 10], ['Z']],
        size: undefined,
        fill: { type: 'colour', colour: { space: 'cmyk', c: 1, m: 0, y: 0, k: 0 } },
        cues: { cue1: { id: 'cue1', trigger: { when: 'press' }, steps: [{ do: 'print' }] } },
      });
      add('group1', { kind: 'group', members: ['shape1'], size: undefined });
      const page = draft.spreads['s']!.pages[0]!;
      Object.assign(page, { master: 'm', transition: { style: 'wipe' }, advanceAfter: 3, notes: 't' });
      draft.head.masterPages = {
        m: { id: 'm', name: 'Master', items: { mi: { ...common, id: 'mi', kind: 'shape', path: [] } as never }, order: ['mi'] },
      };
      const story = draft.stories['t']!;
      story.blocks['np'] = { kind: 'paragraph', id: 'np', style: 'p', content: [{ type: 'span', text: 'The note.' }] };
      story.blocks['tb'] = {
        kind: 'table',
        id: 'tb',
        columns: [{ width: 10 }],
        rows: [{ height: 10 }],
        cells: { cell1: { id: 'cell1', row: 0, column: 0, order: [] } },
      } as never;
      story.order.push('tb');
      story.links = { bad: { id: 'bad', destination: { to: 'address', href: 'javascript:alert(1)', window: 'same' } } };
      story.items = { inText: { ...common, id: 'inText', kind: 'shape', path: [] } as never };
      draft.editions = { de: newEdition('de') };
      draft.head.opening = { fullScreen: true, view: 'page', showBookmarks: false, loop: false };
      draft.head.structure.pins = { pin1: { id: 'pin1', item: 'picture1', paragraph: 'p1', offset: 0, as: 'before' } };
      draft.head.fonts = { ff: { id: 'ff', family: 'Nowhere', weight: 400, style: 'normal' } };
    }),
  );
}

const find = (ledger: LedgerEntry[], key: string): LedgerEntry | undefined => ledger.find((e) => subjectKey(e.subject) === key);

describe.each(ofToday(PUBLICATIONS, 2, (w) => w.id).map((w) => [w.id, w] as const))('the ledger of %s', (id, writer) => {
  test('has one entry for every subject, whatever the document holds, each code with a sentence', async () => {
    for (const s of [await sample('marrowby-almanac'), await sample('open-dome-night'), asSample(everything())]) {
      const { ledger } = await make(s, id);
      expect(ledger.map((e) => subjectKey(e.subject))).toEqual([...subjectsOf(s.folio)].map((a) => subjectKey(a.subject)));
      expect(new Set(ledger.map((e) => subjectKey(e.subject))).size).toBe(ledger.length);
      for (const e of ledger) expect(writer.sentences[e.code]).toBeTruthy();
    }
  });

  test('what cannot be written yet is dropped, never skipped; nothing contradicts it', async () => {
    const { ledger, valid } = await make(asSample(everything()), id);
    expect(ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
    expect(valid).toBe(true);
    const outcomes = ['item:table1:table', 'item:media1:media', 'link:p2/bad:target', ...ALIVE].map((key) => find(ledger, key)?.outcome);
    expect(outcomes).toEqual(['dropped', 'dropped', 'dropped', ...ALIVE_IN[flowsOr(writer)]!]);
    // Running text has no effects and nothing to run around, and keeps readings.
    const flows = isFlow(writer);
    expect(find(ledger, 'item:picture1:effect.outerShadow')?.outcome).toBe(
      flows ? 'dropped' : id === 'pdf' || id === 'odp' ? 'adapted' : 'kept',
    );
    expect(find(ledger, 'ruby:ruby1:reading')?.outcome).toBe(flows || id === 'odp' ? 'kept' : 'adapted');
    expect(
      ['table:tb:structure', 'note:note1:text', 'item:picture1:wrap', 'cell:cell1:place'].map((k) => find(ledger, k)?.outcome),
    ).toEqual(HELD_IN[flowsOr(writer)] ?? ['kept', 'kept', 'kept', 'kept']);
  });

  test('what is left out on purpose is excluded and says by what', async () => {
    const { ledger, valid } = await make(await sample('marrowby-almanac'), id, { pages: '2-3' });
    expect(valid).toBe(true);
    expect(find(ledger, 'page:page-1:size')).toMatchObject({ outcome: 'excluded', code: 'range.out' });
    expect(find(ledger, 'item:cover-note:place')).toMatchObject({ outcome: 'excluded', code: 'layer.hidden' });
    expect(find(ledger, 'paragraph:diary-text-2:text')).toMatchObject({ outcome: 'excluded', code: 'range.out', check: 'confirmed' });
    expect(find(ledger, 'paragraph:sky-text-story-1:text')).toMatchObject({ outcome: 'excluded' });
  });

  test('a link to a page that is left out is named', async () => {
    const { ledger, valid } = await make(await sample('marrowby-almanac'), id, { pages: '3-5' });
    expect(valid).toBe(true);
    expect(find(ledger, 'link:dome-feature-9/toDiary:target')).toMatchObject({ outcome: 'dropped', code: 'link.outside' });
  });

  test('hidden layers come in when they are wanted', async () => {
    const { ledger, valid } = await make(await sample('marrowby-almanac'), id, { hiddenLayers: 'in' });
    expect(valid).toBe(true);
    expect(find(ledger, 'paragraph:cover-note-text-1:text')).toMatchObject({ outcome: 'kept', check: 'confirmed' });
  });

  test('the same document, recipe and clock give the same bytes', async () => {
    const [a, b] = [await make(await sample('open-dome-night'), id), await make(await sample('open-dome-night'), id)];
    expect(a.paths).toEqual(b.paths);
    for (const path of a.paths) expect(Buffer.from(await a.read(path)).equals(Buffer.from(await b.read(path)))).toBe(true);
  });

  test('a run that is cancelled leaves nothing', async () => {
    const controller = new AbortController();
    const run = make(await sample('marrowby-almanac'), id, {}, undefined, {
      signal: controller.signal,
      progress: (done) => done === 2 && controller.abort(),
    });
    await expect(run).rejects.toThrow('cancelled');
  });
});
