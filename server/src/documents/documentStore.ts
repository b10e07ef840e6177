import { randomUUID } from 'node:crypto';
import { applyEdit, applyLogged, meets, partPath, replaceDocument, TextEditError, touchedBy } from '@elastic-folio/core';
import type { Edit, Folio, LogRow } from '@elastic-folio/core';
import { FolioError, othersShownBy } from '@elastic-folio/core/node';
import type { LoadedFolio } from '@elastic-folio/core/read';
import type { Db, Query } from '../database/db.ts';
import { usedOf } from './fontLibrary.ts';
import type { FontLibrary } from './fontLibrary.ts';
import { changedParts, folioFrom, hashOf, partsOf } from './parts.ts';

export interface DocumentRow {
  id: string;
  title: string;
  seq: number;
  changedAt: string;
}

/** An edit that meets another one: what changed meanwhile is given back, nothing is overwritten. */
export class EditConflict extends Error {
  constructor(readonly rows: LogRow[]) {
    super('Somebody has changed the same thing meanwhile.');
  }
}

const KEPT_OPEN = 8;
const OWNER = 'desk';

interface Open {
  folio: Folio;
  seq: number;
}

/** Documents in the database: parts, files and the log of edits. Those in use are kept in memory. */
export class DocumentStore {
  private readonly open = new Map<string, Open>();
  private readonly turns = new Map<string, Promise<unknown>>();

  constructor(
    private readonly db: Db,
    private readonly fonts: FontLibrary,
  ) {}

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
      for (const [path, body] of partsOf(folio))
        await query('INSERT INTO parts (folio, path, body, hash) VALUES ($1, $2, $3, $4)', [id, path, JSON.stringify(body), hashOf(body)]);
      for (const [path, f] of files)
        await query('INSERT INTO files (folio, path, sha256, bytes) VALUES ($1, $2, $3, $4)', [id, path, f.sha256, f.bytes]);
    });
    return id;
  }

  async remove(id: string): Promise<void> {
    await this.db.query('DELETE FROM folios WHERE id = $1 AND owner = $2', [id, OWNER]);
    this.open.delete(id);
  }

  /** The document as it is now. */
  async get(id: string): Promise<Open> {
    const [row] = await this.db.query<{ seq: number }>('SELECT seq FROM folios WHERE id = $1 AND owner = $2', [id, OWNER]);
    if (!row) throw new FolioError('document.none', 'This document is not on the shelf any more.', 'Go back to the shelf.');
    const kept = this.open.get(id);
    if (kept && kept.seq === row.seq) return kept;
    const parts = await this.db.query<{ path: string; body: unknown }>('SELECT path, body FROM parts WHERE folio = $1', [id]);
    return this.keep(id, { folio: folioFrom(parts), seq: row.seq });
  }

  private keep(id: string, open: Open): Open {
    this.open.delete(id);
    this.open.set(id, open);
    if (this.open.size > KEPT_OPEN) this.open.delete(this.open.keys().next().value!);
    return open;
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
      if (other === null) continue;
      const shown = (await this.get(other)).folio;
      others.set(name, { folio: shown, files: await this.files(other), library: usedOf(await this.fonts.list(), shown.head) });
    }
    return { folio, files: await this.files(id), library: usedOf(await this.fonts.list(), folio.head), others };
  }

  /** The newest document on the shelf that calls itself so, other than the one that asks. */
  private async called(name: string, besides: string): Promise<string | null> {
    const [row] = await this.db.query<{ id: string }>(
      "SELECT f.id FROM folios f JOIN parts p ON p.folio = f.id WHERE f.owner = $1 AND f.id <> $2 AND p.path = $3 AND p.body->>'id' = $4 ORDER BY f.changed_at DESC LIMIT 1",
      [OWNER, besides, partPath.head, name],
    );
    return row?.id ?? null;
  }

  /** One hash over everything that outputs are made from; recipes are not part of it. */
  async contentHash(id: string, editions = false): Promise<string> {
    const content: unknown[] = await this.hashes(id, editions);
    for (const name of othersShownBy((await this.get(id)).folio)) {
      const other = await this.called(name, id);
      if (other !== null) content.push([name, await this.hashes(other, false)]);
    }
    const library = await this.fonts.list();
    if (!library.length) return hashOf(content);
    const [head] = await this.db.query<{ body: Folio['head'] }>('SELECT body FROM parts WHERE folio = $1 AND path = $2', [
      id,
      partPath.head,
    ]);
    return hashOf([content, ...(head ? usedOf(library, head.body) : []).map((f) => f.sha256)]);
  }

  /** The hash of each part that outputs are made from; those in the document’s own language are made from no edition. */
  private async hashes(id: string, editions: boolean): Promise<[string, string][]> {
    const rows = await this.db.query<{ path: string; hash: string }>(
      "SELECT path, hash FROM parts WHERE folio = $1 AND path NOT LIKE 'recipes/%' AND ($2 OR path NOT LIKE 'editions/%') ORDER BY path",
      [id, editions],
    );
    return rows.map((r) => [r.path, r.hash]);
  }

  async rowsSince(id: string, seq: number): Promise<LogRow[]> {
    return (await this.db.query<RawRow>('SELECT * FROM edits WHERE folio = $1 AND seq > $2 ORDER BY seq', [id, seq])).map(toLogRow);
  }

  /** The newest rows of one person, for undo and redo after reopening. */
  async rowsOf(id: string, actor: string, most: number): Promise<LogRow[]> {
    return (
      await this.db.query<RawRow>('SELECT * FROM edits WHERE folio = $1 AND actor = $2 ORDER BY seq DESC LIMIT $3', [id, actor, most])
    )
      .reverse()
      .map(toLogRow);
  }

  /** Applies edits of one person on top of what is there, unless they meet what changed since `base`. */
  edit(id: string, input: { base: number; actor: string; burst: string; edits: Edit[] }): Promise<{ rows: LogRow[]; missed: LogRow[] }> {
    return this.change(id, input, (folio) => {
      const out: Pending[] = [];
      for (const edit of input.edits) {
        const applied = applyEdit(folio, edit);
        folio = applied.folio;
        out.push({ edit, patches: applied.patches, inverse: applied.inverse, touched: applied.touched, burst: input.burst });
      }
      return { folio, out };
    });
  }

  /** Puts another document in one's place as one step that can be undone, unless it has changed since `seq`. */
  replace(
    id: string,
    input: { seq: number; actor: string; source: string; folio: Folio; files: LoadedFolio['files'] },
  ): Promise<{ rows: LogRow[]; missed: LogRow[] }> {
    return this.change(
      id,
      { base: Number.MAX_SAFE_INTEGER, actor: input.actor },
      async (folio) => {
        const { seq } = await this.get(id);
        if (seq !== input.seq) throw new EditConflict(await this.rowsSince(id, input.seq));
        const applied = replaceDocument(folio, input.folio);
        const edit = { kind: 'newerVersion' as const, args: { source: input.source } };
        return { folio: applied.folio, out: [{ edit, ...applied, burst: randomUUID() }] };
      },
      input.files,
    );
  }

  /** Takes rows back by their inverse, as a new row. Refused where somebody changed the same things since. */
  undo(id: string, input: { actor: string; rows: number[] }): Promise<{ rows: LogRow[]; missed: LogRow[] }> {
    return this.change(id, { base: Number.MAX_SAFE_INTEGER, actor: input.actor }, async (folio) => {
      const first = Math.min(...input.rows);
      const since = await this.rowsSince(id, first - 1);
      const mine = since.filter((r) => input.rows.includes(r.seq) && r.actor === input.actor).reverse();
      if (mine.length !== input.rows.length)
        throw new FolioError('undo.none', 'This step cannot be undone any more.', 'Go on from what is there.');
      const touched = [...new Set(mine.flatMap((r) => r.touched))];
      const others = since.filter((r) => r.actor !== input.actor && meets([r], first, touched).length > 0);
      if (others.length) throw new EditConflict(others);
      const patches = mine.flatMap((r) => r.inverse);
      const inverse = [...mine].reverse().flatMap((r) => r.patches);
      const edit = { kind: 'undo' as const, args: { rows: input.rows } };
      return { folio: applyLogged(folio, patches), out: [{ edit, patches, inverse, touched: touchedBy(patches), burst: randomUUID() }] };
    });
  }

  private change(
    id: string,
    input: { base: number; actor: string },
    work: (folio: Folio) => Promise<Changed> | Changed,
    files: LoadedFolio['files'] = new Map(),
  ): Promise<{ rows: LogRow[]; missed: LogRow[] }> {
    const run = async (): Promise<{ rows: LogRow[]; missed: LogRow[] }> => {
      const { folio: before, seq } = await this.get(id);
      const missed = input.base < seq ? await this.rowsSince(id, input.base) : [];
      let changed: Changed;
      try {
        changed = await work(before);
      } catch (error) {
        if (missed.length && error instanceof TextEditError) throw new EditConflict(missed);
        throw error;
      }
      const met = meets(
        missed,
        input.base,
        changed.out.flatMap((o) => o.touched),
      );
      if (met.length) throw new EditConflict(missed);
      const rows = changed.out.map((o, i): LogRow => ({
        seq: seq + 1 + i,
        base: Math.min(input.base, seq),
        actor: input.actor,
        at: new Date().toISOString(),
        group: o.burst,
        edit: o.edit,
        patches: o.patches,
        inverse: o.inverse,
        touched: o.touched,
      }));
      await this.db.transaction(async (query) => {
        await this.write(query, id, seq, rows, changedParts(before, changed.folio), changed.folio.head.metadata.title);
        // Files stay when a step is undone: the one that brings it back needs them.
        await addFiles(query, id, files);
      });
      this.keep(id, { folio: changed.folio, seq: seq + rows.length });
      return { rows, missed };
    };
    const mine = (this.turns.get(id) ?? Promise.resolve()).then(run, run);
    this.turns.set(
      id,
      mine.catch(() => undefined),
    );
    return mine;
  }

  private async write(query: Query, id: string, seq: number, rows: LogRow[], parts: Map<string, unknown>, title: string): Promise<void> {
    // The row count tells whether another process was faster.
    const [claimed] = await query('UPDATE folios SET seq = $3, title = $4, changed_at = now() WHERE id = $1 AND seq = $2 RETURNING id', [
      id,
      seq,
      seq + rows.length,
      title,
    ]);
    if (!claimed) {
      this.open.delete(id);
      throw new EditConflict(await this.rowsSince(id, seq));
    }
    for (const [path, body] of parts) {
      if (body === null) await query('DELETE FROM parts WHERE folio = $1 AND path = $2', [id, path]);
      else
        await query(
          'INSERT INTO parts (folio, path, body, hash) VALUES ($1, $2, $3, $4) ON CONFLICT (folio, path) DO UPDATE SET body = excluded.body, hash = excluded.hash',
          [id, path, JSON.stringify(body), hashOf(body)],
        );
    }
    for (const r of rows)
      await query(
        'INSERT INTO edits (folio, seq, base, owner, actor, at, burst, edit, patches, inverse, touched) VALUES ($1,$2,$3,$4,$5,$6,$7,$8,$9,$10,$11)',
        [
          id,
          r.seq,
          r.base,
          OWNER,
          r.actor,
          r.at,
          r.group,
          JSON.stringify(r.edit),
          JSON.stringify(r.patches),
          JSON.stringify(r.inverse),
          JSON.stringify(r.touched),
        ],
      );
  }
}

interface Pending {
  edit: LogRow['edit'];
  patches: LogRow['patches'];
  inverse: LogRow['inverse'];
  touched: string[];
  burst: string;
}
interface Changed {
  folio: Folio;
  out: Pending[];
}

type RawRow = Omit<LogRow, 'group' | 'at'> & { burst: string; at: Date };
const toLogRow = (r: RawRow): LogRow => ({
  seq: r.seq,
  base: r.base,
  actor: r.actor,
  at: new Date(r.at).toISOString(),
  group: r.burst,
  edit: r.edit,
  patches: r.patches,
  inverse: r.inverse,
  touched: r.touched,
});

async function addFiles(query: Query, id: string, files: LoadedFolio['files']): Promise<void> {
  for (const [path, f] of files)
    await query('INSERT INTO files (folio, path, sha256, bytes) VALUES ($1, $2, $3, $4) ON CONFLICT (folio, path) DO NOTHING', [
      id,
      path,
      f.sha256,
      f.bytes,
    ]);
}
