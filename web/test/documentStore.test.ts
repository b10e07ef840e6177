import { beforeEach, describe, expect, test } from '@jest/globals';
import { applyEdit, applyLogged, Folio, plainText } from '@elastic-folio/core';
import type { Edit, Inline, LogRow } from '@elastic-folio/core';
import { newBurst, useDocument } from '../src/document/documentStore.ts';

const paragraph = (id: string, text: string) => ({ kind: 'paragraph', id, style: 'p', content: [{ type: 'span', text }] });
const start = Folio.parse({
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
  stories: { t: { id: 't', order: ['p1', 'p2'], blocks: { p1: paragraph('p1', 'one'), p2: paragraph('p2', 'two') } } },
});

/** A server in memory with the rules of the real one: rows in order, an edit refused where it meets what it has not seen. */
class FakeServer {
  folio = start;
  rows: LogRow[] = [];
  online = true;
  delay = 0;
  conflict = false;
  streams: FakeStream[] = [];

  async take(actor: string, burst: string, edits: Edit[], base: number): Promise<{ rows: LogRow[]; missed: LogRow[] }> {
    const missed = this.rows.filter((r) => r.seq > base);
    const rows = edits.map((edit) => {
      const { folio, patches, inverse, touched } = applyEdit(this.folio, edit);
      this.folio = folio;
      const row: LogRow = { seq: this.rows.length + 1, base, actor, at: '', group: burst, edit, patches, inverse, touched };
      this.rows.push(row);
      return row;
    });
    return { rows, missed };
  }

  tell(rows: LogRow[]): void {
    for (const s of this.streams) if (s.readyState === 1) s.onmessage?.({ data: JSON.stringify({ type: 'edits', folio: 'doc', rows }) });
  }

  async answer(url: string, init: { method?: string; body?: string } = {}): Promise<Response> {
    if (!this.online) throw new TypeError('offline');
    if (this.delay) await new Promise((r) => setTimeout(r, this.delay));
    const json = (body: unknown, status = 200): Response => new Response(JSON.stringify(body), { status });
    const body = init.body
      ? (JSON.parse(init.body) as { base: number; actor: string; burst: string; edits: Edit[]; rows: number[] })
      : null;
    if (url.includes('/fonts')) return json([]);
    if (url.includes('/parts'))
      return json({ parts: { 'spreads/s.json': this.folio.spreads['s'], 'stories/t.json': this.folio.stories['t'] } });
    if (url.includes('/edits?since=')) return json({ rows: this.rows.slice(Number(url.split('since=')[1])), missed: [] });
    if (url.endsWith('/edits')) {
      if (this.conflict)
        return json({ code: 'edit.conflict', message: 'Somebody changed this.', advice: '', rows: this.rows.slice(body!.base) }, 409);
      return json(await this.take(body!.actor, body!.burst, body!.edits, body!.base));
    }
    if (url.endsWith('/undo')) {
      const undone = [...body!.rows].reverse().map((seq) => this.rows[seq - 1]!);
      const rows = undone.map((row): LogRow => {
        this.folio = applyLogged(this.folio, row.inverse);
        const back = {
          ...row,
          seq: this.rows.length + 1,
          patches: row.inverse,
          inverse: row.patches,
          edit: { kind: 'undo' as const, args: { rows: [row.seq] } },
        };
        this.rows.push(back);
        return back;
      });
      return json({ rows, missed: [] });
    }
    return json({ id: 'doc', seq: this.rows.length, head: this.folio.head, recipes: {}, editions: {}, history: { undo: [], redo: [] } });
  }
}
class FakeStream {
  static readonly OPEN = 1;
  readyState = 0;
  onopen: (() => void) | null = null;
  onmessage: ((e: { data: string }) => void) | null = null;
  constructor() {
    server.streams.push(this);
  }
  connect(): void {
    this.readyState = 1;
    this.onopen?.();
  }
  close(): void {
    this.readyState = 2;
  }
}

let server: FakeServer;
const stored = new Map<string, string>();
Object.assign(globalThis, {
  EventSource: FakeStream,
  Worker: class {
    postMessage(): void {}
    terminate(): void {}
  },
  localStorage: { getItem: (k: string) => stored.get(k) ?? null, setItem: (k: string, v: string) => void stored.set(k, v) },
  fetch: (url: string, init?: { method?: string; body?: string }) => server.answer(url, init),
});

const type = (paragraphId: string, text: string): Edit => ({
  kind: 'text.replace',
  args: { story: 't', from: { paragraphId, offset: 0 }, to: { paragraphId, offset: 0 }, content: [[{ type: 'span', text }]], newIds: [] },
});
const text = (folio: Folio | null, id: string): string => plainText((folio!.stories['t']!.blocks[id] as { content: Inline[] }).content);
const shown = (id: string): string => text(useDocument.getState().folio, id);
const settle = async (until: () => boolean = () => useDocument.getState().kept): Promise<void> => {
  for (let i = 0; i < 200 && !until(); i++) await new Promise((r) => setTimeout(r, 10));
  expect(until()).toBe(true);
};

beforeEach(async () => {
  useDocument.getState().close();
  server = new FakeServer();
  await useDocument.getState().open('doc');
  expect(useDocument.getState().loading).toBe('all');
});

describe('the open document', () => {
  test('shows a change at once and keeps it; the server has the same', async () => {
    useDocument.getState().change([type('p1', 'x')]);
    expect([shown('p1'), useDocument.getState().kept]).toEqual(['xone', false]);
    await settle();
    expect(text(server.folio, 'p1')).toBe('xone');
  });

  test('keystrokes made while others travel arrive in order, once each', async () => {
    server.delay = 15;
    for (const c of 'abcdef') {
      useDocument.getState().change([type('p1', c)], 'burst');
      await new Promise((r) => setTimeout(r, 4));
    }
    await settle();
    expect([shown('p1'), text(server.folio, 'p1')]).toEqual(['fedcbaone', 'fedcbaone']);
  });

  test('what waits behind a change when the document is left arrives all the same, in order, once each', async () => {
    server.delay = 15;
    useDocument.getState().change([type('p1', 'a')], 'one');
    useDocument.getState().change([type('p1', 'b')], 'two');
    useDocument.getState().change([type('p1', 'c'), type('p2', 'd')], 'three');
    useDocument.getState().close();
    await settle(() => server.rows.length >= 4);
    await new Promise((r) => setTimeout(r, 50));
    expect(server.rows.map((r) => [r.group, r.base])).toEqual([
      ['one', 0],
      ['two', 1],
      ['three', 2],
      ['three', 2],
    ]);
    expect([text(server.folio, 'p1'), text(server.folio, 'p2')]).toEqual(['cbaone', 'dtwo']);
  });

  test('what others wrote before this window listened is taken over when it begins to', async () => {
    await server.take('ben', 'b', [type('p2', 'early ')], 0);
    expect(shown('p2')).toBe('two');
    server.streams.at(-1)!.connect();
    await settle(() => shown('p2') === 'early two');
  });

  test('what happened while the stream was cut off is taken over when it comes back', async () => {
    const stream = server.streams.at(-1)!;
    stream.connect();
    await settle();
    stream.readyState = 0;
    server.tell((await server.take('ben', 'b', [type('p2', 'missed ')], 0)).rows);
    expect(shown('p2')).toBe('two');
    stream.connect();
    await settle(() => shown('p2') === 'missed two');
  });

  test('a row that arrives after a gap brings what was in the gap', async () => {
    server.streams.at(-1)!.connect();
    await settle();
    await server.take('ben', 'b', [type('p2', 'first ')], 0);
    server.tell((await server.take('ben', 'c', [type('p2', 'second ')], 1)).rows);
    await settle(() => shown('p2') === 'second first two');
  });

  test('others’ rows go under one’s own that are still on their way', async () => {
    server.streams.at(-1)!.connect();
    await settle();
    server.delay = 30;
    useDocument.getState().change([type('p1', 'mine ')]);
    server.tell((await server.take('ben', 'b', [type('p2', 'theirs ')], 0)).rows);
    await settle(() => useDocument.getState().kept && shown('p2') === 'theirs two');
    expect([shown('p1'), text(server.folio, 'p1'), text(server.folio, 'p2')]).toEqual(['mine one', 'mine one', 'theirs two']);
  });

  test('a refused change gives way to what is there, and says so', async () => {
    await server.take('ben', 'b', [type('p1', 'theirs ')], 0);
    server.conflict = true;
    useDocument.getState().change([type('p1', 'mine ')]);
    await settle();
    expect([shown('p1'), useDocument.getState().notice]).toEqual(['theirs one', expect.stringMatching(/not taken over/)]);
  });

  test('a server that is away loses nothing: the change goes when it is back', async () => {
    server.online = false;
    useDocument.getState().change([type('p1', 'kept ')]);
    await settle(() => useDocument.getState().notice !== null);
    expect([shown('p1'), useDocument.getState().kept]).toEqual(['kept one', false]);
    server.online = true;
    await settle();
    expect(text(server.folio, 'p1')).toBe('kept one');
  });

  test('a change that is impossible is said and not kept', () => {
    useDocument.getState().change([type('none', 'x')]);
    expect(useDocument.getState().notice).toMatch(/There is no paragraph/);
    expect(useDocument.getState().folio).toBe(useDocument.getState().folio);
    expect(shown('p1')).toBe('one');
  });

  test('undo and redo take a burst as one', async () => {
    const burst = newBurst();
    for (const c of 'ab') useDocument.getState().change([type('p1', c)], burst);
    await settle();
    useDocument.getState().change([type('p2', 'later ')]);
    await settle();
    expect(useDocument.getState().undo).toHaveLength(2);
    await useDocument.getState().undoStep();
    expect([shown('p1'), shown('p2')]).toEqual(['baone', 'two']);
    await useDocument.getState().undoStep();
    expect([shown('p1'), useDocument.getState().undo, useDocument.getState().redo.length]).toEqual(['one', [], 2]);
    await useDocument.getState().redoStep();
    expect(shown('p1')).toBe('baone');
  });
});
