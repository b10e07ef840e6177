import { describe, expect, test } from '@jest/globals';
import { Folio } from '../src/index.ts';
import { subjectKey } from '../src/ledger/index.ts';
import type { LedgerEntry } from '../src/ledger/index.ts';
import { COMMON_SENTENCES, plannedLedger, readSettings, WRITERS, writerById } from '../src/write/index.ts';
import { adapted, dropped, excluded, kept, together } from '../src/write/treatments.ts';
import { ofToday } from './support/ofToday.ts';
import { asSample, fontsOf, make, portsFor, sample } from './support/samples.ts';
import type { Sample } from '@elastic-folio/demo';
import { tinyFolio } from './support/tinyFolio.ts';

async function planOf(s: Sample, output: string, settings: Record<string, unknown> = {}): Promise<LedgerEntry[]> {
  const writer = writerById(output)!;
  const read = readSettings(writer, { version: writer.version, name: writer.label, settings });
  return plannedLedger(s.folio, writer, read, portsFor(s, await fontsOf(s.folio)));
}
const said = ({ subject, pages, outcome, code, values, also }: LedgerEntry) => ({
  subject: subjectKey(subject),
  pages,
  outcome,
  code,
  values,
  also,
});

describe('what an output will keep is known before it is made', () => {
  test.each(
    ofToday(
      WRITERS.map((w) => w.id),
      4,
      (id) => id,
    ),
  )('%s: its ledger is the plan, confirmed or contradicted by reading back', async (output) => {
    const s = await sample('open-dome-night');
    const settings = writerById(output)!.view === 'texts' ? { target: 'fr' } : {};
    const [plan, made] = [await planOf(s, output, settings), await make(s, output, settings)];
    expect(plan.map(said)).toEqual(made.ledger.map(said));
    expect(new Set(plan.map((e) => e.check))).toEqual(new Set(['planned']));
    const { sentences } = writerById(output)!;
    for (const e of plan) for (const { code } of [e, ...(e.also ?? [])]) expect({ ...COMMON_SENTENCES, ...sentences }[code]).toBeTruthy();
  });

  test('one thing has all its reasons: that a colour is turned into RGB hides no longer that it does not mix', async () => {
    const plain = JSON.parse(JSON.stringify(tinyFolio(['Words']))) as { spreads: Record<string, { items: object; order: string[] }> };
    const spread = Object.values(plain.spreads)[0]!;
    Object.assign(spread.items, {
      box: {
        id: 'box',
        kind: 'shape',
        layer: 'l',
        path: [['M', 0, 0], ['L', 10, 0], ['L', 10, 10], ['Z']],
        transform: [1, 0, 0, 1, 20, 20],
        blend: 'multiply',
        fill: { type: 'colour', colour: { space: 'cmyk', c: 1, m: 0, y: 0, k: 0 } },
      },
    });
    spread.order.push('box');
    const folio = Folio.parse(plain);
    for (const output of ['pptx', 'odp']) {
      const look = (await planOf(asSample(folio), output, { blends: 'plain' })).find((e) => subjectKey(e.subject) === 'item:box:look')!;
      expect([look.code, ...(look.also ?? []).map((r) => r.code)]).toEqual(['colour.rgb', 'blend.normal']);
    }
  });
});

describe('treatments of one subject', () => {
  test('what takes most away stands first, the rest beside it, none twice', () => {
    expect(together<string>(kept, kept)).toEqual(kept);
    expect(together<string>(kept, adapted('a', { n: 1 }))).toEqual(adapted('a', { n: 1 }));
    expect(together<string>(adapted('a'), dropped('b'), adapted('a'), excluded('c'))).toEqual({
      ...excluded('c'),
      also: [
        { code: 'b', values: {} },
        { code: 'a', values: {} },
      ],
    });
    expect(together<string>(together<string>(adapted('a'), adapted('b')), adapted('b')).also).toEqual([{ code: 'b', values: {} }]);
  });
});
