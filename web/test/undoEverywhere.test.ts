import { afterAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EDITS, same } from '@elastic-folio/core';
import type { Edit, Folio } from '@elastic-folio/core';
import { editsOfEveryKind } from '../../core/test/support/editsOfEveryKind.ts';
import { sample, SAMPLES } from '../../core/test/support/samples.ts';
import { readBytes } from '../../core/test/odf/support/flatFile.ts';
import { foundFiles } from '../../core/test/odf/support/foundFiles.ts';
import { FakeServer, FakeWindow } from './support/fakeServer.ts';

/** Documents from elsewhere that each bring something else: notes, many pages, drawings, tables. */
const found = (await foundFiles()).filter(({ bytes }, i) => bytes.length < 2_000_000 && i % 2 === 0).slice(0, 8);
const documents: [string, () => Promise<Folio>][] = [
  ...SAMPLES.map((id) => [id, async () => (await sample(id)).folio] as [string, () => Promise<Folio>]),
  ...found.map(
    ({ name, bytes }) =>
      [
        name,
        async () => {
          const { folio, done } = await readBytes(name, bytes);
          await done();
          return folio;
        },
      ] as [string, () => Promise<Folio>],
  ),
];

const used = new Set<string>();
const alike = (what: string, a: Folio, b: Folio): void => {
  if (!same(a, b)) expect([what, a]).toEqual([what, b]);
};

/** Numbers that look random and are the same for the same seed (Park and Miller, 1988). */
function randomly(seed: number): (of: number) => number {
  let state = (seed % 2_147_483_646) + 1;
  return (of) => (state = (state * 48_271) % 2_147_483_647) % of;
}

describe.each(documents)('undo and redo in %s', (_, open) => {
  test('of every kind of edit: the window, the server and the replayed log agree at each step', async () => {
    const folio = JSON.parse(JSON.stringify(await open())) as Folio;
    await fc.assert(
      fc.asyncProperty(fc.nat(), async (seed) => {
        const server = new FakeServer(folio);
        const window = new FakeWindow(server, 'anna');
        const pick = randomly(seed);
        let n = 0;
        // The second time round there is what the first has made, to be taken away again.
        for (const kind of [...EDITS, ...EDITS].map((e) => e.kind)) {
          // Made for the document as it is now: what came before may have taken away what it names.
          const edit = editsOfEveryKind(window.session.folio, pick, `s${n++}`).find((e) => e.kind === kind);
          const before = window.session.folio;
          if (!edit || !window.session.change([edit], `burst ${n}`)) continue;
          await window.session.flush();
          const after = window.session.folio;
          if (n % 4 === 0) alike(`server after ${kind}`, after, server.folio);
          if (after === before) continue;
          used.add(kind);
          await window.session.takeBack('undo');
          alike(`undo of ${kind}`, window.session.folio, before);
          await window.session.takeBack('redo');
          alike(`redo of ${kind}`, window.session.folio, after);
        }
        while (window.state.undo!.length) await window.session.takeBack('undo');
        alike('undo of all', window.session.folio, folio);
        alike('the log', server.replayed(), server.folio);
        // What cannot be done is refused with a sentence; nothing is set aside.
        expect(window.notices.filter((w) => !/any more|locked|cannot be|nothing to/.test(w))).toEqual([]);
        expect(window.state.setAside ?? []).toEqual([]);
      }),
      { numRuns: 1, endOnFailure: true },
    );
  });
});

afterAll(() => {
  const never = EDITS.map((e) => e.kind).filter((kind) => !used.has(kind));
  const skipped: Edit['kind'][] = documents.length > SAMPLES.length ? [] : ['styles.nameLooks', 'text.closeUp'];
  expect(never.filter((kind) => !skipped.includes(kind))).toEqual([]);
});
