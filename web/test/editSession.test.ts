import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { canonicalJson } from '@elastic-folio/core';
import type { Edit, Folio } from '@elastic-folio/core';
import { FakeServer, FakeWindow, problem, textOf, typed } from './support/fakeServer.ts';

const title = (t: string): Edit => ({ kind: 'document.metadata', args: { title: t } });
const cut = (paragraphId: string, from: number, to: number): Edit => ({
  kind: 'text.replace',
  args: { story: 't', from: { paragraphId, offset: from }, to: { paragraphId, offset: to }, content: [[]], newIds: [] },
});
const join = (first: string, at: number, second: string, to: number): Edit => ({
  kind: 'text.replace',
  args: { story: 't', from: { paragraphId: first, offset: at }, to: { paragraphId: second, offset: to }, content: [[]], newIds: [] },
});
const alike = (a: Folio, b: Folio): void => expect(canonicalJson(a)).toBe(canonicalJson(b));

describe('one window', () => {
  test('shows a change at once and keeps it; the server has the same', async () => {
    const server = new FakeServer();
    const window = new FakeWindow(server, 'anna');
    window.type('p1', 'x');
    expect([window.text('p1'), window.state.kept]).toEqual(['xone', false]);
    await window.session.flush();
    expect([textOf(server.folio, 'p1'), window.state.kept]).toEqual(['xone', true]);
  });

  test('keystrokes made while others travel arrive in order, once each, in few requests', async () => {
    const server = new FakeServer();
    const window = new FakeWindow(server, 'anna');
    for (const [i, c] of 'abcdef'.split('').entries()) window.type('p1', c, i);
    await window.session.flush();
    expect([window.text('p1'), textOf(server.folio, 'p1'), server.requests.length]).toEqual(['abcdefone', 'abcdefone', 2]);
  });

  test('an edit that changes nothing is neither sent nor a step', async () => {
    const server = new FakeServer();
    const window = new FakeWindow(server, 'anna');
    expect(window.session.change([title('Doc'), cut('p1', 1, 1)], 'a')).toBe(true);
    await window.session.flush();
    expect([server.requests, window.state.undo ?? []]).toEqual([[], []]);
  });

  test('a change that is impossible is said and not kept', async () => {
    const window = new FakeWindow(new FakeServer(), 'anna');
    expect(window.session.change([typed('p1', 'x'), typed('none', 'x')], 'a')).toBe(false);
    await Promise.resolve();
    expect([window.notices, window.text('p1')]).toEqual([[expect.stringMatching(/There is no paragraph/)], 'one']);
  });

  test.each(['away', 'lost', 'failed'] as const)(
    'a server that is %s for a while: what was typed arrives once, and what was typed meanwhile',
    async (fault) => {
      const server = new FakeServer();
      server.faults = [fault, fault];
      const window = new FakeWindow(server, 'anna');
      window.type('p1', 'a');
      const arriving = window.session.flush();
      window.type('p1', 'b', 1);
      await arriving;
      expect([window.text('p1'), textOf(server.folio, 'p1'), server.rows.length]).toEqual(['abone', 'abone', 2]);
      expect(window.notices).toHaveLength(1);
      expect(window.kept.edits).toEqual([]);
    },
  );

  test('a request that the server refuses holds up nothing else, and what was typed can be had back', async () => {
    const server = new FakeServer();
    const window = new FakeWindow(server, 'anna');
    // The first is on its way; the others go together, and then one by one.
    server.faults = ['none', 'refused', 'refused'];
    window.type('p3', 'first ', 0, 'zero');
    window.type('p1', 'bad', 0, 'one');
    window.type('p2', 'good', 0, 'two');
    await window.session.flush();
    expect([window.text('p1'), window.text('p2'), textOf(server.folio, 'p2')]).toEqual(['one', 'goodtwo', 'goodtwo']);
    expect(window.state.setAside).toMatchObject([{ text: 'bad', why: 'It answered 422. Try again.' }]);
    window.session.dismissAside(window.state.setAside![0]!.id);
    await Promise.resolve();
    expect(window.state.setAside).toEqual([]);
  });

  test('undo and redo take a burst as one', async () => {
    const server = new FakeServer();
    const window = new FakeWindow(server, 'anna');
    window.type('p1', 'a', 0, 'one');
    window.type('p1', 'b', 0, 'one');
    await window.session.flush();
    window.type('p2', 'later ', 0, 'two');
    await window.session.flush();
    expect(window.state.undo).toHaveLength(2);
    await window.session.takeBack('undo');
    expect([window.text('p1'), window.text('p2')]).toEqual(['baone', 'two']);
    await window.session.takeBack('undo');
    expect([window.text('p1'), window.state.undo, window.state.redo!.length]).toEqual(['one', [], 2]);
    await window.session.takeBack('redo');
    await window.session.takeBack('redo');
    expect([window.text('p1'), window.text('p2'), window.state.redo]).toEqual(['baone', 'later two', []]);
    alike(window.session.folio, server.replayed());
  });

  test('undo waits for what is on its way; asked twice because its answer got lost, it is done once', async () => {
    const server = new FakeServer();
    const window = new FakeWindow(server, 'anna');
    window.type('p1', 'a');
    await window.session.flush();
    server.faults = ['lost'];
    await window.session.takeBack('undo');
    expect([window.text('p1'), server.rows.length, window.state.redo!.length]).toEqual(['one', 2, 1]);
  });

  test('without a server, what was never sent is taken back and brought back here', async () => {
    const server = new FakeServer();
    let online = false;
    const window = new FakeWindow(server, 'anna', true, {
      send: async (request) => {
        if (!online) throw problem(0);
        return server.edit(request);
      },
      pause: () => new Promise((r) => setTimeout(r, 1)),
    });
    window.type('p1', 'sent', 0, 'one');
    await new Promise((r) => setTimeout(r, 10));
    window.type('p1', 'new', 0, 'two');
    await window.session.takeBack('undo');
    expect(window.text('p1')).toBe('sentone');
    await window.session.takeBack('redo');
    expect(window.text('p1')).toBe('newsentone');
    online = true;
    await window.session.flush();
    alike(window.session.folio, server.folio);
  });

  test('what has not arrived when the document is left is handed over, under the names that it was sent under', async () => {
    const server = new FakeServer();
    server.delay = 5;
    const window = new FakeWindow(server, 'anna');
    window.type('p1', 'a', 0, 'one');
    window.type('p1', 'b', 0, 'two');
    const rest = window.close();
    expect(rest.edits.map((e) => e.burst)).toEqual(['one', 'two']);
    // The one that is on its way arrives as well: nothing is there twice.
    await server.edit({ base: rest.base, actor: 'anna', edits: rest.edits });
    await new Promise((r) => setTimeout(r, 30));
    expect([textOf(server.folio, 'p1'), server.rows.length]).toEqual(['baone', 2]);
  });
});

describe('two windows', () => {
  test('in one paragraph: what both typed is there, in both, and nothing is refused', async () => {
    const server = new FakeServer();
    const [a, b] = [new FakeWindow(server, 'anna'), new FakeWindow(server, 'ben')];
    a.type('p1', 'AAA', 3);
    b.type('p1', 'bbb', 3);
    b.type('p1', 'ccc', 0);
    await Promise.all([a.session.flush(), b.session.flush()]);
    expect([a.text('p1'), b.text('p1'), textOf(server.folio, 'p1')]).toEqual(Array(3).fill('ccconeAAAbbb'));
    expect([a.state.setAside ?? [], b.state.setAside ?? []]).toEqual([[], []]);
  });

  test('what meets is set aside; what does not is kept, however much of it waits', async () => {
    const server = new FakeServer();
    const [a, b] = [new FakeWindow(server, 'anna'), new FakeWindow(server, 'ben', false)];
    a.session.change([title('Anna’s')], 'a');
    await a.session.flush();
    b.session.change([title('Ben’s')], 'b1');
    b.type('p2', 'kept ', 0, 'b2');
    b.session.change([title('Ben’s own')], 'b3');
    await b.session.flush();
    expect([b.session.folio.head.metadata.title, b.text('p2'), textOf(server.folio, 'p2')]).toEqual(['Anna’s', 'kept two', 'kept two']);
    expect(b.state.setAside!.map((s) => s.edit)).toEqual([title('Ben’s'), title('Ben’s own')]);
  });

  test('what was typed into a paragraph that is gone is one text to be had back', async () => {
    const server = new FakeServer();
    const [a, b] = [new FakeWindow(server, 'anna'), new FakeWindow(server, 'ben', false)];
    a.session.change([join('p1', 3, 'p2', 3)], 'a');
    await a.session.flush();
    for (const [i, c] of 'lost words'.split('').entries()) b.type('p2', c, i, 'b');
    b.type('p3', 'kept ', 0, 'c');
    await b.session.flush();
    expect(b.state.setAside!.map((s) => s.text)).toEqual(['lost words']);
    expect([b.text('p1'), b.text('p3')]).toEqual(['one', 'kept three']);
    alike(b.session.folio, server.folio);
  });

  test('one that hears late, or of rows with a gap, catches up', async () => {
    const server = new FakeServer();
    const [a, b] = [new FakeWindow(server, 'anna'), new FakeWindow(server, 'ben', false)];
    a.type('p1', '1');
    await a.session.flush();
    a.type('p1', '2', 1);
    await a.session.flush();
    b.session.hear(2, server.since(1).rows);
    await b.session.flush();
    expect(b.text('p1')).toBe('12one');
    // Rows that are too large for the stream come without themselves.
    a.type('p1', '3', 2);
    await a.session.flush();
    b.session.hear(3, undefined);
    await b.session.flush();
    expect(b.text('p1')).toBe('123one');
  });

  test('what does not fit what is here is fetched anew; what waits goes on top of it', async () => {
    const server = new FakeServer();
    const window = new FakeWindow(server, 'ben', false, { send: () => new Promise(() => undefined) });
    window.type('p2', 'mine ');
    await server.edit({ base: 0, actor: 'anna', edits: [{ uid: 'a', burst: 'a', edit: typed('p1', 'x') }] });
    const [row] = server.since(0).rows;
    window.session.hear(1, [{ ...row!, patches: [{ op: 'replace', path: ['stories', 'none', 'blocks', 'p', 'content'], value: [] }] }]);
    await new Promise((r) => setTimeout(r, 5));
    expect([window.text('p1'), window.text('p2')]).toEqual(['xone', 'mine two']);
  });

  test('a server that makes something else of an edit has the last word', async () => {
    const server = new FakeServer();
    const window = new FakeWindow(server, 'guest', true, {
      send: ({ edits, ...request }) => server.edit({ ...request, edits: edits.map((e) => ({ ...e, edit: typed('p1', 'DONE ') })) }),
    });
    window.type('p1', 'x');
    await window.session.flush();
    expect(window.text('p1')).toBe('DONE one');
    alike(window.session.folio, server.folio);
  });
});

/** What somebody does: types, deletes, splits, joins, sets a title, undoes, redoes, or lets what is on its way arrive. */
const step = fc.record({
  who: fc.nat(2),
  what: fc.constantFrom('type', 'type', 'type', 'cut', 'split', 'join', 'title', 'undo', 'redo', 'arrive', 'fault'),
  a: fc.nat(50),
  b: fc.nat(50),
});

describe('whatever three people do', () => {
  test('all windows, the server and its log say the same in the end; what was typed is there, or set aside', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 3, maxLength: 25 }), async (steps) => {
        const server = new FakeServer();
        const windows = ['anna', 'ben', 'cleo'].map((name, i) => new FakeWindow(server, name, i > 0));
        let n = 0;
        for (const { who, what, a, b } of steps) {
          const window = windows[who]!;
          const { order } = window.session.folio.stories['t']!;
          const id = order[a % order.length]!;
          const text = window.text(id);
          const at = b % (text.length + 1);
          const burst = `${window.actor}-${Math.floor(n++ / 3)}`;
          const change = (edit: Edit): boolean => window.session.change([edit], burst);
          if (what === 'type') change(typed(id, `${window.actor[0]}${n}`, at));
          else if (what === 'cut') change(cut(id, at, Math.min(text.length, at + 3)));
          else if (what === 'split')
            change({
              kind: 'text.replace',
              args: {
                story: 't',
                from: { paragraphId: id, offset: at },
                to: { paragraphId: id, offset: at },
                content: [[], []],
                newIds: [`n${n}`],
              },
            });
          else if (what === 'join') {
            const next = order[(a % order.length) + 1];
            if (next) change(join(id, text.length, next, 0));
          } else if (what === 'title') change(title(`Title ${n}`));
          else if (what === 'undo' || what === 'redo') await window.session.takeBack(what);
          else if (what === 'arrive') await window.session.flush();
          else server.faults.push(a % 2 ? 'lost' : 'away');
        }
        for (const w of windows) {
          w.session.lookForMissed();
          await w.session.flush();
        }
        for (const w of windows) {
          w.session.lookForMissed();
          await w.session.flush();
        }
        alike(server.folio, server.replayed());
        for (const w of windows) alike(w.session.folio, server.folio);
      }),
      { numRuns: 120 },
    );
  });
});
