import { applyEdit, applyLogged, catchUp, Folio, heardRow, meets, plainText, touchedBy } from '@elastic-folio/core';
import type { Edit, HeardRow, Inline, LogRow, WaitingEdit } from '@elastic-folio/core';
import type { EditAnswer } from '@elastic-folio/core/api';
import { EditSession } from '../../src/document/editSession.ts';
import type { SessionPorts, SessionState } from '../../src/document/editSession.ts';

const paragraph = (id: string, text: string) => ({ kind: 'paragraph', id, style: 'p', content: [{ type: 'span', text }] });

/** A document of three paragraphs. */
export const START = Folio.parse({
  head: {
    formatVersion: 1,
    id: 'doc',
    metadata: { title: 'Doc' },
    layers: { l: { id: 'l', name: 'L' } },
    layerOrder: ['l'],
    paragraphStyles: { p: { id: 'p', name: 'P' } },
    spreadOrder: ['s'],
    storyOrder: ['t'],
  },
  spreads: { s: { id: 's', pages: [{ id: 'pg', box: { x: 0, y: 0, width: 100, height: 100 } }] } },
  stories: {
    t: {
      id: 't',
      order: ['p1', 'p2', 'p3'],
      blocks: { p1: paragraph('p1', 'one'), p2: paragraph('p2', 'two'), p3: paragraph('p3', 'three') },
    },
  },
});

/** Keys in the order in which PostgreSQL keeps those of `jsonb`: shorter ones first. */
export function asStored<T>(value: T): T {
  if (Array.isArray(value)) return value.map(asStored) as T;
  if (!value || typeof value !== 'object') return value;
  const entries = Object.entries(value).filter(([, v]) => v !== undefined);
  entries.sort(([a], [b]) => a.length - b.length || (a < b ? -1 : 1));
  return Object.fromEntries(entries.map(([k, v]) => [k, asStored(v)])) as T;
}

/** A server in memory with the rules of the real one; everything that it keeps has been through JSON. */
export class FakeServer {
  folio: Folio;
  rows: LogRow[] = [];
  /** What it answers instead of what was asked, once each. */
  faults: ('none' | 'lost' | 'away' | 'failed' | 'refused')[] = [];
  requests: { base: number; edits: number }[] = [];
  delay = 0;
  private readonly listeners = new Set<(rows: HeardRow[]) => void>();

  constructor(private readonly start: Folio = START) {
    this.folio = asStored(start);
  }

  listen(heard: (rows: HeardRow[]) => void): () => void {
    this.listeners.add(heard);
    return () => this.listeners.delete(heard);
  }

  async edit({ base, actor, edits }: { base: number; actor: string; edits: WaitingEdit[] }): Promise<EditAnswer> {
    this.requests.push({ base, edits: edits.length });
    const fault = await this.fault();
    const missed = this.rows.filter((r) => r.seq > base);
    const known = new Set(this.rows.filter((r) => r.seq <= base).map((r) => r.uid));
    const before = [...missed].reverse().reduce((f, r) => applyLogged(f, r.inverse), this.folio);
    const { waiting, refused } = catchUp(
      before,
      edits.filter((e) => !known.has(e.uid)),
      missed,
    );
    let { folio } = this;
    const made = waiting.flatMap(({ uid, burst, edit }) => {
      const applied = applyEdit(folio, edit);
      folio = applied.folio;
      return applied.patches.length ? [{ ...applied, uid, group: burst, edit }] : [];
    });
    const rows = made.map((m) =>
      this.write({ base, actor, group: m.group, uid: m.uid, edit: m.edit, patches: m.patches, inverse: m.inverse, touched: m.touched }),
    );
    if (fault === 'lost') throw problem(0);
    return this.answer(rows, missed, refused);
  }

  async undo({ base, actor, rows, uid }: { base: number; actor: string; rows: number[]; uid: string }): Promise<EditAnswer> {
    const fault = await this.fault();
    const missed = this.rows.filter((r) => r.seq > base);
    const done = this.rows.find((r) => r.uid === uid);
    if (done) return this.answer([], done.seq > base ? missed : [...missed, done], []);
    const mine = rows.map((seq) => this.rows[seq - 1]!).reverse();
    const first = Math.min(...rows);
    const touched = mine.flatMap((r) => r.touched);
    if (this.rows.some((r) => r.actor !== actor && meets([r], first, touched).length)) throw problem(409);
    const patches = mine.flatMap((r) => r.inverse);
    const inverse = [...mine].reverse().flatMap((r) => r.patches);
    const row = this.write({
      base: this.rows.length,
      actor,
      group: uid,
      uid,
      edit: { kind: 'undo', args: { rows } },
      patches,
      inverse,
      touched: touchedBy(patches),
    });
    if (fault === 'lost') throw problem(0);
    return this.answer([row], missed, []);
  }

  since(seq: number): { rows: HeardRow[] } {
    return JSON.parse(JSON.stringify({ rows: this.rows.filter((r) => r.seq > seq).map(heardRow) })) as { rows: HeardRow[] };
  }

  /** The document as its log leads to it. */
  replayed(): Folio {
    return this.rows.reduce((f, r) => applyLogged(f, r.patches), asStored(this.start));
  }

  private write(row: Omit<LogRow, 'seq' | 'at'>): LogRow {
    const written = asStored(JSON.parse(JSON.stringify({ ...row, seq: this.rows.length + 1, at: '' })) as LogRow);
    this.folio = applyLogged(this.folio, written.patches);
    this.rows.push(written);
    for (const heard of this.listeners) heard(this.since(written.seq - 1).rows.slice(0, 1));
    return written;
  }

  private answer(rows: LogRow[], missed: LogRow[], refused: EditAnswer['refused']): EditAnswer {
    return JSON.parse(JSON.stringify({ rows: rows.map(heardRow), missed: missed.map(heardRow), refused })) as EditAnswer;
  }

  private async fault(): Promise<string | undefined> {
    if (this.delay) await new Promise((r) => setTimeout(r, this.delay));
    const fault = this.faults.shift();
    if (fault === 'away') throw problem(0);
    if (fault === 'failed') throw problem(500);
    if (fault === 'refused') throw problem(422);
    return fault;
  }
}

export const problem = (status: number): Error => Object.assign(new Error(`It answered ${status}.`), { status, advice: 'Try again.' });

/** One window on a fake server: a session, and what it says of itself. */
export class FakeWindow {
  readonly session: EditSession;
  state: Partial<SessionState> = {};
  kept: { base: number; edits: readonly WaitingEdit[] } = { base: 0, edits: [] };
  notices: string[] = [];
  outside = 0;
  private readonly deaf: () => void;

  constructor(
    server: FakeServer,
    readonly actor: string,
    hears = true,
    ports: Partial<SessionPorts> = {},
  ) {
    this.session = new EditSession(
      JSON.parse(JSON.stringify(server.folio)) as Folio,
      server.rows.length,
      { undo: [], redo: [] },
      {
        actor,
        send: (request) => server.edit(request),
        undo: (request) => server.undo(request),
        since: async (seq) => server.since(seq),
        reload: async () => ({ folio: JSON.parse(JSON.stringify(server.folio)) as Folio, seq: server.rows.length }),
        keep: (base, edits) => (this.kept = { base, edits: [...edits] }),
        changed: (state, change) => {
          this.state = { ...this.state, ...state };
          if (state.notice) this.notices.push(state.notice);
          if (change?.outside) this.outside++;
        },
        pause: async () => undefined,
        ...ports,
      },
    );
    this.session.complete();
    this.deaf = hears ? server.listen((rows) => this.session.hear(rows[0]!.seq, rows)) : () => undefined;
  }

  type(paragraphId: string, text: string, offset = 0, burst = `${this.actor}-1`): boolean {
    return this.session.change([typed(paragraphId, text, offset)], burst);
  }

  text(id: string): string {
    return textOf(this.session.folio, id);
  }

  close(): ReturnType<EditSession['close']> {
    this.deaf();
    return this.session.close();
  }
}

export const typed = (paragraphId: string, text: string, offset = 0): Edit => ({
  kind: 'text.replace',
  args: {
    story: 't',
    from: { paragraphId, offset },
    to: { paragraphId, offset },
    content: [[{ type: 'span', text }]],
    newIds: [],
  },
});
export const textOf = (folio: Folio, id: string): string =>
  plainText((folio.stories['t']!.blocks[id] as { content: Inline[] } | undefined)?.content ?? []);
