import { randomUUID } from 'node:crypto';
import { extname, join } from 'node:path';
import type { Folio } from '@elastic-folio/core';
import type { NewerChoice, NewerProposal } from '@elastic-folio/core/api';
import { mapIds } from '@elastic-folio/core/newer';
import type { Newer } from '@elastic-folio/core/newer';
import { FolioError } from '@elastic-folio/core/node';
import type { FileBlobs } from '@elastic-folio/core/node';
import { FIRST_ORIGIN, recordOf, recordPath } from '@elastic-folio/core/read';
import type { IntakeRecord, LoadedFolio } from '@elastic-folio/core/read';
import type { ConversionPool } from '../conversion/pool.ts';
import type { Outcome } from '../conversion/tasks.ts';
import { EditConflict } from './documentStore.ts';
import type { DocumentStore } from './documentStore.ts';
import { readFile } from './importDocument.ts';

/** A newer version that has been read and waits for a person to take it over. */
interface Waiting {
  id: string;
  name: string;
  was: Folio;
  there: LoadedFolio;
  record: IntakeRecord;
  pictures: Map<string, string>;
}

/** So many wait at a time; the oldest is forgotten and can be brought in again. */
const MOST_WAITING = 6;
const NO_CHOICE: NewerChoice = { pairs: {}, keep: [] };
export type Side = 'here' | 'there';

/** Newer versions of documents' sources: read, compared with what is there, and taken over as one step. */
export class NewerVersions {
  private readonly waiting = new Map<string, Waiting>();

  constructor(
    private readonly documents: DocumentStore,
    private readonly pool: ConversionPool,
    private readonly blobs: FileBlobs,
  ) {}

  /** Reads a file as a newer version of a document's source and tells what it would bring. */
  async begin(id: string, file: string, name: string, folder: string): Promise<NewerProposal> {
    const loaded = await this.documents.loaded(id);
    const record = await recordOf(loaded, this.blobs);
    const source = record && loaded.files.get(record.source);
    if (!record || !source)
      throw new FolioError(
        'newer.noSource',
        'This document did not come from a file of another program.',
        'Bring the file in as a document of its own.',
      );
    // Read under its first name, so that a document without a title keeps what it is called.
    const there = await readFile(file, `${record.name}${extname(name)}`, join(folder, 'there'), this.blobs, this.pool);
    const newRecord = await recordOf(there, this.blobs);
    if (!newRecord)
      throw new FolioError(
        'newer.package',
        'A package of Elastic Folio is no source of a document.',
        'Bring it in as a document of its own.',
      );
    const read = await readFile(
      this.blobs.path(source.sha256),
      `${record.name}${extname(record.source)}`,
      join(folder, 'was'),
      this.blobs,
      this.pool,
    );
    const was = mapIds(read.folio, (raw) => record.ids?.[raw] ?? raw);
    const token = randomUUID();
    this.waiting.set(token, { id, name, was, there, record: newRecord, pictures: new Map() });
    while (this.waiting.size > MOST_WAITING) this.waiting.delete(this.waiting.keys().next().value!);
    return this.propose(id, token, NO_CHOICE);
  }

  /** What it brings with what a person has decided so far. */
  async propose(id: string, token: string, choice: NewerChoice): Promise<NewerProposal> {
    const { name } = this.find(id, token);
    const { report } = (await this.make(token, choice)).newer;
    return { token, name, report };
  }

  /** Takes it over: one step in the document's log, with its source and files. */
  async take(id: string, token: string, choice: NewerChoice, actor: string) {
    for (let tries = 0; ; tries++) {
      const { newer, seq } = await this.make(token, choice);
      const { name, there, record } = this.find(id, token);
      const now = await this.documents.loaded(id);
      const origin = freeOrigin(now.files);
      const source = `${origin}/source${extname(record.source)}`;
      const ours = (raw: string): string => newer.ids.get(raw) ?? raw;
      const kept: IntakeRecord = {
        ...record,
        source,
        elements: Object.fromEntries(Object.entries(record.elements).map(([raw, element]) => [ours(raw), element])),
        ids: Object.fromEntries([...newer.ids].filter(([raw, own]) => raw !== own)),
      };
      const files: LoadedFolio['files'] = new Map([
        [source, there.files.get(record.source)!],
        [recordPath(origin), await this.blobs.put(new TextEncoder().encode(JSON.stringify(kept)))],
      ]);
      for (const [path, raw] of newer.files) {
        const file = there.files.get(raw);
        if (file) files.set(path, file);
      }
      const folio = { ...newer.folio, head: { ...newer.folio.head, origin } };
      try {
        const answer = await this.documents.replace(id, { seq, actor, source: name, folio, files });
        this.waiting.delete(token);
        return answer;
      } catch (error) {
        // Somebody changed the document meanwhile: it is compared once more.
        if (!(error instanceof EditConflict) || tries >= 3) throw error;
      }
    }
  }

  /** A page of either side as an SVG. */
  async picture(id: string, token: string, side: Side, page: number): Promise<string> {
    const { there, pictures } = this.find(id, token);
    const key = `${side} ${page}`;
    const known = pictures.get(key);
    if (known !== undefined) return known;
    const { folio, files, library = [] } = side === 'there' ? there : await this.documents.loaded(id);
    const pages = Array.from({ length: 9 }, (_, i) => page - 4 + i);
    const drawn = okOf(await this.pool.pictures({ folio, files: [...files], library, blobs: this.blobs.folder, pages }));
    for (const [number, svg] of drawn) pictures.set(`${side} ${number}`, svg);
    const svg = pictures.get(key);
    if (svg === undefined) throw new FolioError('newer.noPage', 'There is no such page.', 'Bring the file in again.');
    return svg;
  }

  private async make(token: string, { pairs, keep }: NewerChoice): Promise<{ newer: Newer; seq: number }> {
    const { id, was, there } = this.waiting.get(token)!;
    const { folio: here, seq } = await this.documents.get(id);
    return { newer: okOf(await this.pool.newer({ was, here, there: there.folio, pairs: Object.entries(pairs), keep })), seq };
  }

  private find(id: string, token: string): Waiting {
    const found = this.waiting.get(token);
    if (found?.id !== id) throw new FolioError('newer.gone', 'This newer version is not known any more.', 'Bring the file in again.');
    return found;
  }
}

function freeOrigin(files: LoadedFolio['files']): string {
  let n = 2;
  while ([...files.keys()].some((path) => path.startsWith(`${FIRST_ORIGIN}-${n}/`))) n++;
  return `${FIRST_ORIGIN}-${n}`;
}

function okOf<T>(outcome: Outcome<T>): T {
  if ('ok' in outcome) return outcome.ok;
  if ('failure' in outcome) throw new FolioError(outcome.failure.code, outcome.failure.message, outcome.failure.advice);
  throw new FolioError('newer.stopped', 'It was stopped.', 'Bring the file in again.');
}
