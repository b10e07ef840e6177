import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { keptSamples as samples } from '../../core/test/support/keptSamples.ts';
import type { Sample } from '@elastic-folio/demo';
import type { Edit, Inline } from '@elastic-folio/core';
import { plainText } from '@elastic-folio/core';
import { FileBlobs } from '@elastic-folio/core/node';
import { readFontFile } from '@elastic-folio/core/read';
import type { FontFacts } from '@elastic-folio/core/read';
import type { Db } from '../src/database/db.ts';
import { migrate } from '../src/database/migrate.ts';
import { DocumentStore, EditConflict } from '../src/documents/documentStore.ts';
import { FontLibrary, usedOf } from '../src/documents/fontLibrary.ts';
import { lockData } from '../src/dataLock.ts';
import { waiting } from './support/editRequest.ts';
import { databaseKinds } from './support/databases.ts';

const migrations = join(dirname(dirname(fileURLToPath(import.meta.url))), 'migrations');

describe.each(databaseKinds())('documents on the %s database', (_name, connect) => {
  let db: Db;
  let store: DocumentStore;
  let flyer: Sample;
  let folder: string;
  const library = (): FontLibrary => new FontLibrary(db, new FileBlobs(join(folder, 'blobs')));
  const stores: DocumentStore[] = [];
  /** A store that knows nothing yet, as another process has it. */
  const fresh = (): DocumentStore => {
    const made = new DocumentStore(db, library());
    stores.push(made);
    return made;
  };
  beforeAll(async () => {
    folder = await mkdtemp(join(tmpdir(), 'folio-store-'));
    db = await connect();
    await migrate(db, migrations);
    await migrate(db, migrations);
    store = fresh();
    flyer = (await samples())[1]!;
  });
  afterAll(async () => {
    for (const s of stores) s.close();
    await db.close();
    await rm(folder, { recursive: true, force: true });
  });

  const type = (paragraphId: string, story: string, text: string): Edit => ({
    kind: 'text.replace',
    args: { story, from: { paragraphId, offset: 0 }, to: { paragraphId, offset: 0 }, content: [[{ type: 'span', text }]], newIds: [] },
  });
  const add = (): Promise<string> => store.add({ folio: flyer.folio, files: flyer.files }, 'flyer.efolio');
  const textOf = async (id: string, story: string, paragraph: string): Promise<string> =>
    plainText(((await store.get(id)).folio.stories[story]!.blocks[paragraph] as { content: Inline[] }).content);

  test('a document comes back as it was put in, from a fresh store too', async () => {
    const id = await add();
    expect((await fresh().get(id)).folio).toEqual(flyer.folio);
    expect([...(await store.files(id))].sort()).toEqual([...flyer.files].sort());
  });

  test('edits merge, also within one paragraph; a field that others have set as well is refused with their rows', async () => {
    const id = await add();
    const one = await store.edit(id, { base: 0, actor: 'anna', edits: waiting([type('list-text-1', 'list-text', 'A')]) });
    const two = await store.edit(id, { base: 0, actor: 'ben', edits: waiting([type('list-text-2', 'list-text', 'B')]) });
    expect([one.rows[0]!.seq, two.rows[0]!.seq]).toEqual([1, 2]);
    expect(two.missed.map((r) => r.seq)).toEqual([1]);
    const merged = await store.edit(id, { base: 0, actor: 'ben', edits: waiting([type('list-text-1', 'list-text', 'C')]) });
    expect([merged.rows.map((r) => r.seq), merged.missed.map((r) => r.seq), merged.refused]).toEqual([[3], [1, 2], []]);
    expect((await textOf(id, 'list-text', 'list-text-1')).startsWith('ACA warm')).toBe(true);
    const title = (t: string): Edit => ({ kind: 'document.metadata', args: { title: t } });
    await store.edit(id, { base: 3, actor: 'anna', edits: waiting([title('One')]) });
    const refused = await store.edit(id, { base: 3, actor: 'ben', edits: waiting([title('Two'), type('list-text-2', 'list-text', 'D')]) });
    expect([refused.rows.map((r) => r.edit.kind), refused.refused.map((r) => [r.edit.kind, r.by])]).toEqual([
      ['text.replace'],
      [['document.metadata', [4]]],
    ]);
    expect((await store.get(id)).folio.head.metadata.title).toBe('One');
    await store.undo(id, { actor: 'ben', rows: [5] });
    expect((await textOf(id, 'list-text', 'list-text-2')).startsWith('BA red')).toBe(true);
  });

  test('undo takes back one’s own, survives a fresh store, and is refused where somebody went on from it', async () => {
    const id = await add();
    const before = await textOf(id, 'list-text', 'list-text-1');
    await store.edit(id, {
      base: 0,
      actor: 'anna',
      edits: waiting([type('list-text-1', 'list-text', 'x'), type('list-text-1', 'list-text', 'y')]),
    });
    const other = fresh();
    await other.undo(id, { actor: 'anna', rows: [1, 2] });
    expect(await textOf(id, 'list-text', 'list-text-1')).toBe(before);
    await store.undo(id, { actor: 'anna', rows: [3] });
    expect((await textOf(id, 'list-text', 'list-text-1')).startsWith('yx')).toBe(true);
    await store.edit(id, { base: 4, actor: 'ben', edits: waiting([type('list-text-1', 'list-text', 'z')]) });
    await expect(store.undo(id, { actor: 'anna', rows: [4] })).rejects.toBeInstanceOf(EditConflict);
    await expect(store.undo(id, { actor: 'anna', rows: [5] })).rejects.toThrow(/cannot be undone/);
  });

  test('an edit that is sent twice is written once, whether its answer got lost or others wrote meanwhile', async () => {
    const id = await add();
    const [a, b] = [waiting([type('list-text-1', 'list-text', 'x')]), waiting([type('list-text-1', 'list-text', 'y')])];
    await store.edit(id, { base: 0, actor: 'anna', edits: a });
    await store.edit(id, { base: 0, actor: 'ben', edits: waiting([type('list-text-1', 'list-text', 'B')]) });
    const again = await store.edit(id, { base: 0, actor: 'anna', edits: [...a, ...b] });
    expect([again.missed.map((r) => r.uid === a[0]!.uid), again.rows.map((r) => r.uid)]).toEqual([[true, false], [b[0]!.uid]]);
    // “y” was typed before the “x”; what was written at the same place meanwhile stands where it was put.
    expect((await textOf(id, 'list-text', 'list-text-1')).startsWith('yxBA warm')).toBe(true);
    const undo = { actor: 'anna', rows: [3], uid: 'undo-1' };
    const [first, second] = [await store.undo(id, undo), await store.undo(id, undo)];
    expect([second.rows, second.missed.map((r) => r.seq)]).toEqual([[], first.rows.map((r) => r.seq)]);
  });

  test('an edit that changes nothing is no row', async () => {
    const id = await add();
    const { style } = flyer.folio.stories['list-text']!.blocks['list-text-1'] as { style: string };
    const same: Edit = { kind: 'paragraph.style', args: { story: 'list-text', paragraph: 'list-text-1', style } };
    const empty: Edit = {
      kind: 'text.replace',
      args: {
        story: 'list-text',
        from: { paragraphId: 'list-text-1', offset: 2 },
        to: { paragraphId: 'list-text-1', offset: 2 },
        content: [[]],
        newIds: [],
      },
    };
    expect((await store.edit(id, { base: 0, actor: 'anna', edits: waiting([same, empty]) })).rows).toEqual([]);
    expect((await store.get(id)).seq).toBe(0);
  });

  test('a change is a row at once and parts after a while; whoever opens the document meanwhile sees it, also as it was', async () => {
    const id = await add();
    const parts = async (): Promise<number> =>
      (await db.query<{ parts_seq: number }>('SELECT parts_seq FROM folios WHERE id = $1', [id]))[0]!.parts_seq;
    for (const c of 'abc') await store.edit(id, { base: 100, actor: 'anna', edits: waiting([type('list-text-1', 'list-text', c)]) });
    expect(await parts()).toBe(0);
    const elsewhere = fresh();
    expect((await elsewhere.get(id)).folio).toEqual((await store.get(id)).folio);
    expect(await elsewhere.at(id, 0)).toEqual(flyer.folio);
    // Both write; one is first, the other goes on from there.
    await Promise.all([store.writeParts(id), elsewhere.writeParts(id)]);
    expect(await parts()).toBe(3);
    for (const s of [store, elsewhere, fresh()]) expect((await s.get(id)).folio.stories).toEqual((await elsewhere.get(id)).folio.stories);
    await elsewhere.edit(id, { base: 3, actor: 'ben', edits: waiting([type('list-text-2', 'list-text', 'B')]) });
    const { rows } = await store.edit(id, { base: 3, actor: 'anna', edits: waiting([type('list-text-1', 'list-text', 'd')]) });
    expect(rows[0]!.seq).toBe(5);
    expect(await store.contentHash(id)).toBe(await elsewhere.contentHash(id));
    expect(await parts()).toBe(5);
  });

  test('of a long text, what is written after a change is the part of it that changed; it comes back whole', async () => {
    const long = structuredClone(flyer.folio);
    const story = long.stories['list-text']!;
    const { style } = story.blocks['list-text-1'] as { style: string };
    for (let i = 0; i < 1000; i++) {
      story.blocks[`more-${i}`] = { kind: 'paragraph', id: `more-${i}`, style, content: [{ type: 'span', text: `Line ${i}` }] };
      story.order.push(`more-${i}`);
    }
    const id = await store.add({ folio: long, files: new Map() }, 'long.efolio');
    const hashes = async (): Promise<Map<string, string>> =>
      new Map(
        (await db.query<{ path: string; hash: string }>('SELECT path, hash FROM parts WHERE folio = $1', [id])).map((r) => [
          r.path,
          r.hash,
        ]),
      );
    const before = await hashes();
    const stored = async (): Promise<unknown> => (await fresh().get(id)).folio;
    expect(await stored()).toEqual(long);
    await store.edit(id, { base: 0, actor: 'anna', edits: waiting([type('more-500', 'list-text', 'x')]) });
    await store.writeParts(id);
    const after = await hashes();
    const changed = [...after].filter(([path, hash]) => before.get(path) !== hash).map(([path]) => path);
    expect(changed).toEqual([expect.stringMatching(/^stories\/list-text\/blocks\/\d+\.json$/)]);
    expect(await stored()).toEqual((await store.get(id)).folio);
    // It becomes a short one, and a long one again.
    const cut: Edit = {
      kind: 'text.replace',
      args: {
        story: 'list-text',
        from: { paragraphId: 'more-0', offset: 0 },
        to: { paragraphId: 'more-999', offset: 8 },
        content: [[]],
        newIds: [],
      },
    };
    const { rows } = await store.edit(id, { base: 1, actor: 'anna', edits: waiting([cut]) });
    await store.writeParts(id);
    expect([...(await hashes()).keys()].filter((p) => p.includes('/blocks/'))).toEqual([]);
    expect(await stored()).toEqual((await store.get(id)).folio);
    await store.undo(id, { actor: 'anna', rows: rows.map((r) => r.seq) });
    await store.writeParts(id);
    expect(await hashes()).toEqual(after);
    expect(await stored()).toEqual((await store.get(id)).folio);
  });

  test('two processes that write at the same time both get through', async () => {
    const id = await add();
    const elsewhere = fresh();
    const writes = Array.from({ length: 10 }, (_, i) =>
      (i % 2 ? store : elsewhere).edit(id, { base: 0, actor: `p${i}`, edits: waiting([type('list-text-1', 'list-text', String(i))]) }),
    );
    await Promise.all(writes);
    const text = await textOf(id, 'list-text', 'list-text-1');
    expect([...text.slice(0, 10)].sort().join('')).toBe('0123456789');
  });

  test('a batch of which one edit is impossible changes nothing', async () => {
    const id = await add();
    await expect(
      store.edit(id, {
        base: 0,
        actor: 'anna',
        edits: waiting([type('list-text-1', 'list-text', 'x'), type('nowhere', 'list-text', 'y')]),
      }),
    ).rejects.toThrow(/no paragraph/);
    expect((await store.get(id)).seq).toBe(0);
    expect(await textOf(id, 'list-text', 'list-text-1')).toMatch(/^A warm/);
  });

  test('a whole document is put in another’s place as one step: undone and brought back, with its files; not over what was changed since', async () => {
    const id = await add();
    const newer = structuredClone(flyer.folio);
    newer.head.metadata.title = 'Open Dome Night, again';
    const [gone] = newer.head.storyOrder;
    const files = new Map([['origin-2/source.odg', { sha256: 'f'.repeat(64), bytes: 7 }]]);
    const put = { seq: 0, actor: 'anna', source: 'night.odg', folio: newer, files };
    const { rows } = await store.replace(id, put);
    expect(rows.map((r) => [r.seq, r.edit])).toEqual([[1, { kind: 'newerVersion', args: { source: 'night.odg' } }]]);
    // Only what differs is in the step.
    expect(rows[0]!.patches.map((p) => p.path.join('.'))).toEqual(['head.metadata']);
    expect((await fresh().get(id)).folio.head.metadata.title).toBe('Open Dome Night, again');
    expect((await store.files(id)).get('origin-2/source.odg')!.bytes).toBe(7);
    await store.undo(id, { actor: 'anna', rows: [1] });
    expect((await store.get(id)).folio).toEqual(flyer.folio);
    expect((await store.files(id)).has('origin-2/source.odg')).toBe(true);
    await expect(store.replace(id, put)).rejects.toBeInstanceOf(EditConflict);
    expect(gone).toBeDefined();
  });

  test('fonts of one’s own: the same face again takes the old one’s place; documents that name the family are made of it', async () => {
    const fonts = library();
    const require = createRequire(import.meta.url);
    const shipped = async (name: string, folder: string, file: string): Promise<FontFacts> =>
      readFontFile(await readFile(join(dirname(require.resolve(`@expo-google-fonts/${name}/package.json`)), folder, `${file}.ttf`)));
    const regular = await shipped('work-sans', '400Regular', 'WorkSans_400Regular');
    const id = await add();
    const before = await store.contentHash(id);
    const one = await fonts.add(regular);
    expect(one).toMatchObject({ family: 'Work Sans', weight: 400, style: 'normal', mayEmbed: true });
    expect((await fonts.add(regular)).sha256).toBe(one.sha256);
    await fonts.add(await shipped('work-sans', '700Bold', 'WorkSans_700Bold'));
    expect((await fonts.list()).map((f) => f.weight)).toEqual([400, 700]);
    expect(await store.contentHash(id)).not.toBe(before);
    expect((await store.loaded(id)).library!.map((f) => f.family)).toEqual(['Work Sans', 'Work Sans']);
    // A family that it does not name is none of its business.
    const other = { ...flyer.folio.head, paragraphStyles: {}, characterStyles: {}, fonts: {}, fallbacks: {}, standIns: {} };
    expect(usedOf(await fonts.list(), other)).toEqual([]);
    expect(usedOf(await fonts.list(), { ...other, standIns: { gone: 'Work Sans' } })).toHaveLength(2);
    for (const f of await fonts.list()) await fonts.remove(f.id);
    expect(await store.contentHash(id)).toBe(before);
    await expect(fonts.remove(one.id)).rejects.toThrow(/not in the library/);
    await expect(readFontFile(new TextEncoder().encode('Dear reader'))).rejects.toThrow('This is not a TrueType or OpenType font.');
  });

  test('the content hash follows what outputs are made from, not the recipes', async () => {
    const id = await add();
    const hash = await store.contentHash(id);
    await store.edit(id, {
      base: 0,
      actor: 'a',
      edits: waiting<Edit>([{ kind: 'recipe.set', args: { id: 'r', output: 'pdf', version: 1, name: 'R', settings: {} } }]),
    });
    expect(await store.contentHash(id)).toBe(hash);
    const { rows } = await store.edit(id, {
      base: 1,
      actor: 'a',
      edits: waiting<Edit>([{ kind: 'document.metadata', args: { title: 'Another' } }]),
    });
    expect(await store.contentHash(id)).not.toBe(hash);
    await store.undo(id, { actor: 'a', rows: rows.map((r) => r.seq) });
    expect(await store.contentHash(id)).toBe(hash);
  });
});

describe('the data folder', () => {
  test('belongs to one process: a second one is told so', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'folio-lock-'));
    const unlock = await lockData(folder);
    await expect(lockData(folder)).rejects.toThrow(/in use by another Elastic Folio/);
    await unlock();
    await (
      await lockData(folder)
    )();
    await rm(folder, { recursive: true });
  });
});
