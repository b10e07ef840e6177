import { randomUUID } from 'node:crypto';
import { applyLogged, catchUp, meets, OpenFolio, partPath, replaceDocument, touchedBy } from '@elastic-folio/core';
import type { Folio, LogRow, RefusedEdit, WaitingEdit } from '@elastic-folio/core';
import { FolioError, othersShownBy } from '@elastic-folio/core/node';
import type { LoadedFolio } from '@elastic-folio/core/read';
import type { Db, Query } from '../database/db.ts';
import { EditLog, NamedBefore } from './editLog.ts';
import { usedOf } from './fontLibrary.ts';
import type { FontLibrary } from './fontLibrary.ts';
import { changedRows, folioFrom, hashOf, rowsOf } from './parts.ts';

export interface DocumentRow {
  id: string;
  title: string;
  seq: number;
  changedAt: string;
}

/** A step that meets what others have changed since: that is given back, nothing is overwritten. */
export class EditConflict extends Error {
  constructor(readonly rows: LogRow[]) {
    super('Somebody has changed the same thing meanwhile.');
  }
}

/** What became of a request to change a document: the new rows, those of others that it did not know, and what was refused for them. */
export interface Changed {
  rows: LogRow[];
  missed: LogRow[];
  refused: RefusedEdit[];
}

const KEPT_OPEN = 8;
const OWNER = 'desk';
/** Parts are written this long after the last change of a document, or after so many rows. */
const PARTS_AFTER_MS = 3000;
const PARTS_AFTER_ROWS = 500;
/** How often a change is made anew where another process was faster each time. */
const TRIES = 20;

interface Open {
  now: OpenFolio;
  seq: number;
  /** The document as its parts in the database have it, and up to which row that is. */
  parts: Folio;
  partsSeq: number;
}

/** A change that is not written yet. */
interface Pending {
  edit: LogRow['edit'];
  patches: LogRow['patches'];
  inverse: LogRow['inverse'];
  touched: string[];
  burst: string;
  uid?: string;
}
interface Work {
  now: OpenFolio;
  actor: string;
  /** What the change was made on; the newest row where nothing is said. */
  base?: number;
  out: Pending[];
  missed?: LogRow[];
  refused?: RefusedEdit[];
}

/** A document as it is, with a hash of what outputs are made from, without its editions and with them. */
export interface DocumentState {
  folio: Folio;
  seq: number;
  content: string;
  withEditions: string;
}

/** A document that another shows: what that one calls it, and the row it is at. */
export interface OtherShown {
  name: string;
  id: string;
  seq: number;
}

/** Works a change out; `again`: it was tried before. */
type Make = (open: Open, again: boolean) => Promise<Work>;

/** Another process has written a row first. */
class Overtaken extends Error {}

/**
 * Documents in the database: parts, files and the log of edits. A change is a row of the log, whatever the length of the document;
 * its parts are written after a while, and a document is its parts with the rows since. Those in use are kept in memory.
 */
export class DocumentStore {
  private readonly open = new Map<string, Open>();
  private readonly turns = new Map<string, Promise<unknown>>();
  private readonly timers = new Map<string, ReturnType<typeof setTimeout>>();
  private readonly log: EditLog;
  /** Hashes of documents as they were when last asked for. */
  private readonly contents = new Map<string, { of: string; content: string; withEditions: string }>();

  constructor(
    private readonly db: Db,
    private readonly fonts: FontLibrary,
  ) {
    this.log = new EditLog(db, OWNER);
  }

  /** Nothing is written any more. */
  close(): void {
    for (const timer of this.timers.values()) clearTimeout(timer);
    this.timers.clear();
  }

  async list(): Promise<DocumentRow[]> {
    const rows = await this.db.query<{ id: string; title: string; seq: number; changed_at: Date }>(
      'SELECT id, title, seq, changed_at FROM folios WHERE owner = $1 ORDER BY changed_at DESC, id',
      [OWNER],
    );
    return rows.map((r) => ({ id: r.id, title: r.title, seq: r.seq, changedAt: new Date(r.changed_at).toISOString() }));
  }

  /** Stores a document that was read; all of it or nothing. */
  async add({ folio, files }: LoadedFolio, sourceName: string, id: string = randomUUID()): Promise<string> {
    await this.db.transaction(async (query) => {
      await query('INSERT INTO folios (id, owner, title, source_name) VALUES ($1, $2, $3, $4)', [
        id,
        OWNER,
        folio.head.metadata.title || sourceName,
        sourceName,
      ]);
      for (const [path, body] of rowsOf(folio))
        await query('INSERT INTO parts (folio, path, body, hash) VALUES ($1, $2, $3, $4)', [id, path, JSON.stringify(body), hashOf(body)]);
      for (const [path, f] of files)
        await query('INSERT INTO files (folio, path, sha256, bytes) VALUES ($1, $2, $3, $4)', [id, path, f.sha256, f.bytes]);
    });
    return id;
  }

  async remove(id: string): Promise<void> {
    await this.db.query('DELETE FROM folios WHERE id = $1 AND owner = $2', [id, OWNER]);
    this.open.delete(id);
    this.contents.delete(id);
  }

  /** The document as it is now. */
  async get(id: string): Promise<{ folio: Folio; seq: number }> {
    const { now, seq } = await this.opened(id);
    return { folio: now.folio, seq };
  }

  /** The document as it was at an earlier row, or as it is now. */
  async at(id: string, seq?: number): Promise<Folio> {
    const open = await this.opened(id);
    if (seq === undefined || seq >= open.seq) return open.now.folio;
    return (await this.log.since(id, seq)).reverse().reduce((folio, r) => applyLogged(folio, r.inverse), open.now.folio);
  }

  /** `known`: what is kept in memory will do, for whoever notices if another process has gone on from there. */
  private async opened(id: string, known = false): Promise<Open> {
    const own = this.open.get(id);
    if (known && own) return own;
    const [row] = await this.db.query<{ seq: number }>('SELECT seq FROM folios WHERE id = $1 AND owner = $2', [id, OWNER]);
    if (!row) throw notOnShelf();
    const kept = this.open.get(id);
    if (kept?.seq === row.seq) return kept;
    return this.keep(id, await this.withRows(id, kept && kept.seq < row.seq ? kept : await this.stored(id)));
  }

  /** A document as its parts have it: read in one statement, so that they belong together. */
  private async stored(id: string): Promise<Open> {
    const rows = await this.db.query<{ parts_seq: number; path: string; body: unknown }>(
      'SELECT f.parts_seq, p.path, p.body FROM folios f JOIN parts p ON p.folio = f.id WHERE f.id = $1',
      [id],
    );
    if (!rows.length) throw notOnShelf();
    const folio = folioFrom(rows);
    const seq = rows[0]!.parts_seq;
    return { now: OpenFolio.of(folio), seq, parts: folio, partsSeq: seq };
  }

  private async withRows(id: string, open: Open): Promise<Open> {
    const rows = await this.log.since(id, open.seq);
    return {
      ...open,
      now: OpenFolio.of(rows.reduce((folio, r) => applyLogged(folio, r.patches), open.now.folio)),
      seq: rows[rows.length - 1]?.seq ?? open.seq,
    };
  }

  private keep(id: string, open: Open): Open {
    this.open.delete(id);
    this.open.set(id, open);
    if (this.open.size > KEPT_OPEN) this.open.delete(this.open.keys().next().value!);
    return open;
  }

  /** Writes the parts that rows have changed since they were last written. */
  async writeParts(id: string): Promise<void> {
    clearTimeout(this.timers.get(id));
    this.timers.delete(id);
    const open = await this.opened(id);
    if (open.partsSeq === open.seq) return;
    const written = await this.db.transaction(async (query) => {
      const [claimed] = await query('UPDATE folios SET parts_seq = $3 WHERE id = $1 AND parts_seq = $2 RETURNING id', [
        id,
        open.partsSeq,
        open.seq,
      ]);
      if (claimed) await writeParts(query, id, changedRows(open.parts, open.now.folio));
      return claimed !== undefined;
    });
    const now = this.open.get(id);
    if (!written) this.open.delete(id);
    else if (now) this.open.set(id, { ...now, parts: open.now.folio, partsSeq: open.seq });
  }

  private writePartsLater(id: string, { seq, partsSeq }: Open): void {
    const write = (): void =>
      void this.writeParts(id).catch((e: unknown) => {
        if (!(e instanceof FolioError)) console.error(`Parts of a document could not be written: ${(e as Error).message}`);
      });
    clearTimeout(this.timers.get(id));
    this.timers.set(id, setTimeout(write, seq - partsSeq >= PARTS_AFTER_ROWS ? 0 : PARTS_AFTER_MS));
  }

  async files(id: string): Promise<LoadedFolio['files']> {
    const rows = await this.db.query<{ path: string; sha256: string; bytes: string }>(
      'SELECT path, sha256, bytes FROM files WHERE folio = $1',
      [id],
    );
    return new Map(rows.map((r) => [r.path, { sha256: r.sha256, bytes: Number(r.bytes) }]));
  }

  /** Stores files with a document; its parts may name them afterwards. */
  async addFiles(id: string, files: LoadedFolio['files']): Promise<void> {
    await this.get(id);
    await this.db.transaction((query) => addFiles(query, id, files));
  }

  /** A document with all that it is set with. */
  async loaded(id: string): Promise<LoadedFolio> {
    const { folio } = await this.get(id);
    const others = new Map<string, LoadedFolio>();
    for (const name of othersShownBy(folio)) {
      const other = await this.called(name, id);
      if (!other) continue;
      const shown = (await this.get(other.id)).folio;
      others.set(name, { folio: shown, files: await this.files(other.id), library: usedOf(await this.fonts.list(), shown.head) });
    }
    return { folio, files: await this.files(id), library: usedOf(await this.fonts.list(), folio.head), others };
  }

  /** The newest document on the shelf that calls itself so, other than the one that asks. */
  private async called(name: string, besides: string): Promise<OtherShown | undefined> {
    const [row] = await this.db.query<{ id: string; seq: number }>(
      "SELECT f.id, f.seq FROM folios f JOIN parts p ON p.folio = f.id WHERE f.owner = $1 AND f.id <> $2 AND p.path = $3 AND p.body->>'id' = $4 ORDER BY f.changed_at DESC LIMIT 1",
      [OWNER, besides, partPath.head, name],
    );
    return row && { name, ...row };
  }

  /** Which documents of the shelf are those of these names that one shows. */
  async shownBy(names: readonly string[], id: string): Promise<OtherShown[]> {
    const found = await Promise.all(names.map((name) => this.called(name, id)));
    return found.filter((other) => other !== undefined);
  }

  /** One hash over everything that outputs are made from; recipes are not part of it. */
  async contentHash(id: string, editions = false): Promise<string> {
    const state = await this.state(id);
    return editions ? state.withEditions : state.content;
  }

  /** A document with the hashes of what its outputs are made from. Every window asks for them: they are worked out once for a state. */
  async state(id: string): Promise<DocumentState> {
    const { now, seq } = await this.opened(id);
    const others = await this.shownBy(othersShownBy(now.folio), id);
    const library = await this.fonts.list();
    const fonts = library.length ? usedOf(library, now.folio.head).map((f) => f.sha256) : null;
    const of = JSON.stringify([seq, others, fonts]);
    let hashes = this.contents.get(id);
    if (hashes?.of !== of) {
      await this.writeParts(id);
      const shown: unknown[] = [];
      for (const { name, id: other } of others) {
        await this.writeParts(other);
        shown.push([name, await this.hashes(other, false)]);
      }
      const over = async (editions: boolean): Promise<string> => {
        const content = [...(await this.hashes(id, editions)), ...shown];
        return hashOf(fonts ? [content, ...fonts] : content);
      };
      this.contents.set(id, (hashes = { of, content: await over(false), withEditions: await over(true) }));
    }
    return { folio: now.folio, seq, content: hashes.content, withEditions: hashes.withEditions };
  }

  /** The hash of each part that outputs are made from; those in the document’s own language are made from no edition. */
  private async hashes(id: string, editions: boolean): Promise<[string, string][]> {
    const rows = await this.db.query<{ path: string; hash: string }>(
      "SELECT path, hash FROM parts WHERE folio = $1 AND path NOT LIKE 'recipes/%' AND ($2 OR path NOT LIKE 'editions/%') ORDER BY path",
      [id, editions],
    );
    return rows.map((r) => [r.path, r.hash]);
  }

  rowsSince(id: string, seq: number): Promise<LogRow[]> {
    return this.log.since(id, seq);
  }

  /** The newest rows of one person, for undo and redo after reopening. */
  rowsOf(id: string, actor: string, most: number): Promise<LogRow[]> {
    return this.log.of(id, actor, most);
  }

  /**
   * Puts edits that one person made on row `base` on top of what is there: texts are merged, what others have changed as well is
   * refused and said so, the rest is kept. Edits that have arrived before, by their names, are passed over, and so are those that
   * change nothing. Throws where an edit is impossible in itself; then nothing of the request is taken.
   */
  edit(id: string, input: { base: number; actor: string; edits: WaitingEdit[] }): Promise<Changed> {
    return this.change(id, async (open, again) => {
      const { seq } = open;
      const missed = input.base < seq ? await this.log.since(id, input.base) : [];
      const uids = input.edits.map((e) => e.uid);
      const known = again ? await this.log.knownOf(id, uids) : new Set<string>();
      // Those that the rows since bring with them say themselves that they have arrived.
      const here = new Set(missed.map((r) => r.uid));
      const edits = input.edits.filter((e) => here.has(e.uid) || !known.has(e.uid));
      const before = (): Folio => [...missed].reverse().reduce((f, r) => applyLogged(f, r.inverse), open.now.folio);
      const { waiting, refused } = missed.length ? catchUp(before(), edits, missed) : { waiting: edits, refused: [] };
      const out: Pending[] = [];
      let { now } = open;
      for (const { uid, burst, edit } of waiting) {
        const applied = now.apply(edit);
        now = applied.open;
        if (applied.patches.length)
          out.push({ edit, patches: applied.patches, inverse: applied.inverse, touched: applied.touched, burst, uid });
      }
      return { now, actor: input.actor, base: input.base, out, missed, refused };
    });
  }

  /** Puts another document in one's place as one step that can be undone, unless it has changed since `seq`. */
  replace(id: string, input: { seq: number; actor: string; source: string; folio: Folio; files: LoadedFolio['files'] }): Promise<Changed> {
    return this.change(
      id,
      async ({ now, seq }) => {
        if (seq !== input.seq) throw new EditConflict(await this.log.since(id, input.seq));
        const { folio, ...applied } = replaceDocument(now.folio, input.folio);
        const edit = { kind: 'newerVersion' as const, args: { source: input.source } };
        return { now: OpenFolio.of(folio), actor: input.actor, out: [{ edit, ...applied, burst: randomUUID() }] };
      },
      input.files,
    );
  }

  /**
   * Takes rows back by their inverse, as a new row. Refused where somebody changed the same things since. Asked for twice under
   * one name, it is done once.
   */
  undo(id: string, input: { base?: number; actor: string; rows: number[]; uid?: string }): Promise<Changed> {
    return this.change(id, async ({ now, seq }) => {
      const { base = seq } = input;
      const missed = base < seq ? await this.log.since(id, base) : [];
      const done = input.uid === undefined ? undefined : await this.log.named(id, input.uid);
      if (done) return { now, actor: input.actor, out: [], missed: done.seq > base ? missed : [...missed, done] };
      const first = Math.min(...input.rows);
      const since = await this.log.since(id, first - 1);
      const mine = since.filter((r) => input.rows.includes(r.seq) && r.actor === input.actor).reverse();
      if (mine.length !== input.rows.length)
        throw new FolioError('undo.none', 'This step cannot be undone any more.', 'Go on from what is there.');
      const touched = [...new Set(mine.flatMap((r) => r.touched))];
      const others = since.filter((r) => r.actor !== input.actor && meets([r], first, touched).length > 0);
      if (others.length) throw new EditConflict(others);
      const patches = mine.flatMap((r) => r.inverse);
      const inverse = [...mine].reverse().flatMap((r) => r.patches);
      const edit = { kind: 'undo' as const, args: { rows: input.rows } };
      const named = input.uid !== undefined && { uid: input.uid };
      return {
        now: OpenFolio.of(applyLogged(now.folio, patches)),
        actor: input.actor,
        base,
        missed,
        out: [{ edit, patches, inverse, touched: touchedBy(patches), burst: randomUUID(), ...named }],
      };
    });
  }

  /** Makes a change in turn; where another process has written a row meanwhile, or the edit has arrived before, once more. */
  private change(id: string, work: Make, files: LoadedFolio['files'] = new Map()): Promise<Changed> {
    const run = async (): Promise<Changed> => {
      for (let tries = 1; ; tries++)
        try {
          return await this.changeOnce(id, work, files, tries > 1);
        } catch (error) {
          const again = error instanceof Overtaken || error instanceof NamedBefore;
          if (!again || tries >= TRIES) throw error;
        }
    };
    const mine = (this.turns.get(id) ?? Promise.resolve()).then(run, run);
    const settled = mine.catch(() => undefined);
    this.turns.set(id, settled);
    void settled.then(() => this.turns.get(id) === settled && this.turns.delete(id));
    return mine;
  }

  private async changeOnce(id: string, work: Make, files: LoadedFolio['files'], again: boolean): Promise<Changed> {
    const open = await this.opened(id, !again);
    const { seq } = open;
    const { now, actor, base = seq, out, missed = [], refused = [] } = await work(open, again);
    const at = new Date().toISOString();
    const rows = out.map(({ burst, uid, edit, patches, inverse, touched }, i): LogRow => ({
      seq: seq + 1 + i,
      base: Math.min(base, seq),
      actor,
      at,
      group: burst,
      ...(uid !== undefined && { uid }),
      edit,
      patches,
      inverse,
      touched,
    }));
    if (!rows.length && !files.size) return { rows, missed, refused };
    const append = async (query: Query): Promise<void> => {
      if (!(await this.log.append(query, id, seq, now.title, rows))) throw new Overtaken();
    };
    if (files.size)
      await this.db.transaction(async (query) => {
        await append(query);
        // Files stay when a step is undone: the one that brings it back needs them.
        await addFiles(query, id, files);
      });
    else await append(this.db.query);
    this.writePartsLater(id, this.keep(id, { ...open, now, seq: seq + rows.length }));
    return { rows, missed, refused };
  }
}

const notOnShelf = (): FolioError =>
  new FolioError('document.none', 'This document is not on the shelf any more.', 'Go back to the shelf.');

async function writeParts(query: Query, id: string, parts: Map<string, unknown>): Promise<void> {
  for (const [path, body] of parts)
    if (body === null) await query('DELETE FROM parts WHERE folio = $1 AND path = $2', [id, path]);
    else
      await query(
        'INSERT INTO parts (folio, path, body, hash) VALUES ($1, $2, $3, $4) ON CONFLICT (folio, path) DO UPDATE SET body = excluded.body, hash = excluded.hash',
        [id, path, JSON.stringify(body), hashOf(body)],
      );
}

async function addFiles(query: Query, id: string, files: LoadedFolio['files']): Promise<void> {
  for (const [path, f] of files)
    await query('INSERT INTO files (folio, path, sha256, bytes) VALUES ($1, $2, $3, $4) ON CONFLICT (folio, path) DO NOTHING', [
      id,
      path,
      f.sha256,
      f.bytes,
    ]);
}
