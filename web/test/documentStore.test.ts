import { beforeEach, describe, expect, test } from '@jest/globals';
import type { WaitingEdit } from '@elastic-folio/core';
import { useDocument } from '../src/document/documentStore.ts';
import { newBurst } from '../src/document/identity.ts';
import { FakeServer, START, textOf, typed } from './support/fakeServer.ts';

class FakeStream {
  static readonly OPEN = 1;
  readyState = 0;
  onopen: (() => void) | null = null;
  onmessage: ((e: { data: string }) => void) | null = null;
  constructor() {
    streams.push(this);
  }
  connect(): void {
    this.readyState = 1;
    this.onopen?.();
  }
  tell(event: object): void {
    this.onmessage?.({ data: JSON.stringify(event) });
  }
  close(): void {
    this.readyState = 2;
  }
}

// One story stands aside: it is in no list of the document, as speakers’ notes are.
const NOTES = { ...START.stories['t']!, id: 'notes', order: ['n1'], blocks: { n1: { ...START.stories['t']!.blocks['p1']!, id: 'n1' } } };
const DOCUMENT = { ...START, stories: { ...START.stories, notes: NOTES as (typeof START.stories)[string] } };

let server: FakeServer;
let streams: FakeStream[] = [];
let online = true;
const stored = new Map<string, string>();
const messages: { type: string }[] = [];

async function answer(url: string, init: { body?: string } = {}): Promise<Response> {
  if (!online) throw new TypeError('offline');
  const json = (body: unknown, status = 200): Response => new Response(JSON.stringify(body), { status });
  const body = init.body ? (JSON.parse(init.body) as never) : null;
  try {
    if (url.includes('/fonts')) return json([]);
    if (url.includes('/parts')) {
      const { paths } = body! as { paths: string[] };
      const parts = {
        'spreads/s.json': server.folio.spreads['s'],
        'stories/t.json': server.folio.stories['t'],
        'stories/notes.json': server.folio.stories['notes'],
      };
      return json({ parts: Object.fromEntries(paths.map((p) => [p, parts[p as keyof typeof parts]])) });
    }
    if (url.includes('/edits?since=')) return json({ ...server.since(Number(url.split('since=')[1])), missed: [], refused: [] });
    if (url.endsWith('/edits')) return json(await server.edit(body!));
    if (url.endsWith('/undo')) return json(await server.undo(body!));
    const { head, editions, recipes, spreads, stories } = server.folio;
    const history = { undo: [], redo: [] };
    return json({
      id: 'doc',
      seq: server.rows.length,
      head,
      recipes,
      editions,
      spreads: Object.keys(spreads),
      stories: Object.keys(stories),
      history,
    });
  } catch (e) {
    const { status, message } = e as { status: number; message: string };
    return json({ code: 'x', message, advice: '' }, status);
  }
}

Object.assign(globalThis, {
  EventSource: FakeStream,
  Worker: class {
    postMessage(message: { type: string }): void {
      messages.push(message);
    }
    terminate(): void {}
  },
  localStorage: new Proxy(
    {
      getItem: (k: string) => stored.get(k) ?? null,
      setItem: (k: string, v: string) => void stored.set(k, v),
      removeItem: (k: string) => void stored.delete(k),
    },
    { ownKeys: () => [...stored.keys()], getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }) },
  ),
  fetch: answer,
});

const shown = (id: string): string => textOf(useDocument.getState().folio!, id);
const settle = async (until: () => boolean = () => useDocument.getState().kept): Promise<void> => {
  for (let i = 0; i < 300 && !until(); i++) await new Promise((r) => setTimeout(r, 10));
  expect(until()).toBe(true);
};
const unsent = (): string[] => [...stored.keys()].filter((k) => k.startsWith('folio.unsent.'));
const change = (text: string): void => useDocument.getState().change([typed('p1', text)], newBurst());

beforeEach(async () => {
  online = true;
  useDocument.getState().close();
  await new Promise((r) => setTimeout(r, 5));
  stored.clear();
  streams = [];
  messages.length = 0;
  server = new FakeServer(DOCUMENT);
  await useDocument.getState().open('doc');
  expect(useDocument.getState().loading).toBe('all');
});

describe('the open document', () => {
  test('has every text there is, those that stand aside as well', () => {
    expect(Object.keys(useDocument.getState().folio!.stories)).toEqual(['t', 'notes']);
  });

  test('a change is shown at once, sent, and undone', async () => {
    change('x');
    expect([shown('p1'), useDocument.getState().kept]).toEqual(['xone', false]);
    await settle();
    expect(textOf(server.folio, 'p1')).toBe('xone');
    await useDocument.getState().undoStep();
    expect(shown('p1')).toBe('one');
  });

  test('a step over texts that stand aside is undone and brought back', async () => {
    useDocument.getState().change([{ kind: 'styles.merge', args: { keep: 'p', others: ['q'] } }]);
    change('x');
    await settle();
    await useDocument.getState().undoStep();
    await useDocument.getState().redoStep();
    expect(useDocument.getState().notice).toBeNull();
    expect(shown('p1')).toBe('xone');
  });

  test('what others write is taken in: from the stream, after a gap, and when the stream says to ask again', async () => {
    const stream = streams.at(-1)!;
    stream.connect();
    await settle();
    const write = (text: string) => server.edit({ base: 0, actor: 'ben', edits: [{ uid: text, burst: 'b', edit: typed('p2', text) }] });
    await write('a');
    stream.tell({ type: 'edits', folio: 'doc', seq: 1, rows: server.since(0).rows });
    expect(shown('p2')).toBe('atwo');
    await write('b');
    await write('c');
    stream.tell({ type: 'edits', folio: 'doc', seq: 3, rows: server.since(2).rows });
    await settle(() => shown('p2') === 'abctwo');
    await write('d');
    stream.tell({ type: 'again' });
    await settle(() => shown('p2') === 'abcdtwo');
    await write('e');
    stream.connect();
    await settle(() => shown('p2') === 'abcdetwo');
    expect(messages.filter((m) => m.type === 'patches')).toHaveLength(4);
  });

  test('what was typed in a window that ended without a word is sent when the document is opened again', async () => {
    const edits: WaitingEdit[] = [{ uid: 'left', burst: 'x', edit: typed('p1', 'left ') }];
    useDocument.getState().close();
    stored.set('folio.unsent.doc.gone', JSON.stringify({ base: 0, edits }));
    stored.set('folio.unsent.doc.broken', '{');
    await useDocument.getState().open('doc');
    streams.at(-1)!.connect();
    await settle(() => textOf(server.folio, 'p1') === 'left one' && unsent().length === 0);
    useDocument.getState().close();
    // The same once more, as if the answer had not come through: nothing is there twice.
    stored.set('folio.unsent.doc.gone', JSON.stringify({ base: 0, edits }));
    await useDocument.getState().open('doc');
    await settle(() => unsent().length === 0);
    expect(textOf(server.folio, 'p1')).toBe('left one');
  });

  test('while the server is away what is typed is kept in the browser, and let go once it has arrived', async () => {
    online = false;
    change('kept ');
    await settle(() => useDocument.getState().notice !== null);
    expect(unsent()).toHaveLength(1);
    expect(JSON.parse(stored.get(unsent()[0]!)!)).toMatchObject({ base: 0, edits: [{ edit: typed('p1', 'kept ') }] });
    online = true;
    await settle();
    expect([textOf(server.folio, 'p1'), unsent()]).toEqual(['kept one', []]);
  });

  test('what is on its way when the document is left arrives, once', async () => {
    server.delay = 20;
    change('a');
    change('b');
    useDocument.getState().close();
    await settle(() => server.rows.length >= 2);
    await new Promise((r) => setTimeout(r, 80));
    expect([textOf(server.folio, 'p1'), server.rows.length, unsent()]).toEqual(['baone', 2, []]);
  });
});
