import { afterAll, beforeAll, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { keptSamples as samples } from '../../core/test/support/keptSamples.ts';
import type { Sample } from '@elastic-folio/demo';
import { pagesOf } from '@elastic-folio/core';
import type { Edit, Folio, Item } from '@elastic-folio/core';
import { FileBlobs, FileDerived } from '@elastic-folio/core/node';
import type { Db } from '../src/database/db.ts';
import { migrate } from '../src/database/migrate.ts';
import { DocumentStore } from '../src/documents/documentStore.ts';
import { FontLibrary } from '../src/documents/fontLibrary.ts';
import { ShelfFactsStore } from '../src/documents/shelfFacts.ts';
import type { ShelfFacts } from '../src/documents/shelfFacts.ts';
import { waiting } from './support/editRequest.ts';
import { databaseKinds } from './support/databases.ts';

const migrations = join(dirname(dirname(fileURLToPath(import.meta.url))), 'migrations');

describe.each(databaseKinds())('what the shelf shows, on the %s database', (_name, connect) => {
  let db: Db;
  let folder: string;
  let flyer: Sample;
  let almanac: Sample;
  const stores: DocumentStore[] = [];

  beforeAll(async () => {
    folder = await mkdtemp(join(tmpdir(), 'folio-shelf-'));
    db = await connect();
    await migrate(db, migrations);
    const all = await samples();
    flyer = all.find((s) => s.folio.head.id === 'open-dome-night')!;
    almanac = all.find((s) => s.folio.head.id === 'marrowby-almanac')!;
  });
  beforeEach(() => rm(join(folder, 'derived'), { recursive: true, force: true }));
  afterAll(async () => {
    for (const s of stores) s.close();
    await db.close();
    await rm(folder, { recursive: true, force: true });
  });

  /** A program that has just been started: what it knows, and how often it reads a document. */
  function started() {
    const library = new FontLibrary(db, new FileBlobs(join(folder, 'blobs')));
    const documents = new DocumentStore(db, library);
    stores.push(documents);
    const reading = jest.spyOn(documents, 'state');
    const facts = new ShelfFactsStore(documents, library, new FileDerived(join(folder, 'derived')));
    const of = async (id: string): Promise<ShelfFacts> => facts.of((await documents.list()).find((d) => d.id === id)!);
    return { documents, library, reading, of };
  }

  test('is what the document says of itself', async () => {
    const { documents, of } = started();
    const id = await documents.add({ folio: almanac.folio, files: almanac.files }, 'almanac.efolio');
    const facts = await of(id);
    const { head, recipes } = almanac.folio;
    const { width, height } = pagesOf(almanac.folio)[0]!.page.box;
    expect(facts).toMatchObject({ name: head.id, title: head.metadata.title, pages: 16, width, height, language: 'en' });
    expect(facts.editions.map((e) => e.language)).toEqual(Object.keys(almanac.folio.editions));
    for (const { all, done } of facts.editions) expect([all > 0, done <= all]).toEqual([true, true]);
    expect(facts.recipes).toEqual(recipes);
    expect([facts.content, facts.withEditions]).toEqual([await documents.contentHash(id), await documents.contentHash(id, true)]);
  });

  test('takes reading a document once, until it changes; after a restart as well', async () => {
    const first = started();
    const id = await first.documents.add({ folio: flyer.folio, files: flyer.files }, 'flyer.efolio');
    const before = await first.of(id);
    await first.of(id);
    expect(first.reading).toHaveBeenCalledTimes(1);
    const second = started();
    expect(await second.of(id)).toEqual(before);
    expect(second.reading).not.toHaveBeenCalled();
    await second.documents.edit(id, {
      base: 0,
      actor: 'a',
      edits: waiting<Edit>([{ kind: 'document.metadata', args: { title: 'Another night' } }]),
    });
    expect(await second.of(id)).toMatchObject({ title: 'Another night' });
    expect((await second.of(id)).content).not.toBe(before.content);
    expect(await first.of(id)).toMatchObject({ title: 'Another night' });
  });

  test('follows the documents that one shows', async () => {
    const { documents, of } = started();
    const inner = { ...flyer.folio, head: { ...flyer.folio.head, id: 'shown-inside' } };
    const shown = await documents.add({ folio: inner, files: flyer.files }, 'inner.efolio');
    const id = await documents.add({ folio: showing(flyer.folio, 'shown-inside'), files: flyer.files }, 'outer.efolio');
    const before = (await of(id)).content;
    expect((await of(id)).content).toBe(before);
    await documents.edit(shown, {
      base: 0,
      actor: 'a',
      edits: waiting<Edit>([{ kind: 'document.metadata', args: { title: 'Changed inside' } }]),
    });
    const after = (await of(id)).content;
    expect(after).not.toBe(before);
    expect(after).toBe(await documents.contentHash(id));
  });
});

/** The same document with another's web edition on its first page. */
function showing(folio: Folio, other: string): Folio {
  const [id, spread] = Object.entries(folio.spreads)[0]!;
  const like = Object.values(spread.items).find((i) => i.kind === 'picture')!;
  const embed = { ...like, id: 'window', kind: 'embed', source: { from: 'folio', folio: other }, poster: null } as unknown as Item;
  return { ...folio, spreads: { ...folio.spreads, [id]: { ...spread, items: { ...spread.items, window: embed } } } };
}
