import { beforeAll, describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import type { Program } from '../../../player/src/program.ts';
import { Composer } from '../../src/compose/index.ts';
import { Folio } from '../../src/index.ts';
import { fieldNames } from '../../src/motion/fieldNames.ts';
import { motionProgram } from '../../src/motion/motionProgram.ts';
import { scopeOf } from '../../src/write/scope.ts';
import { asSample, fontsOf, make, readBack, writeOnly } from '../support/samples.ts';
import { motionFolio } from '../support/motionFolio.ts';

let folio: Folio;
let fonts: Awaited<ReturnType<typeof fontsOf>>;
beforeAll(async () => {
  folio = motionFolio();
  fonts = await fontsOf(folio);
});

function programOf(of: Folio): Program {
  const scope = scopeOf(of, new Composer(fonts).compose(of), { pages: '', hiddenLayers: 'out' });
  return motionProgram(of, scope.pages, {
    elementOf: (page) => `at-${page}`,
    addressOf: (page) => `#at-${page}`,
    fileOf: (media) => (of.head.media[media] ? `media/${media}` : undefined),
    targets: scope.targets,
    shown: scope.shown,
    language: 'de-AT',
  });
}
const altered = (change: (draft: Folio) => void): Folio => Folio.parse(produce(folio, change));

describe('the program of a document', () => {
  test('has its cues on their items and pages, groups as their members, links not at all', () => {
    const { cues, hidden } = programOf(folio);
    expect(cues.map((c) => [c.id, c.on, c.when, c.steps.map((s) => s.do)])).toEqual([
      ['q-shown', 'at-pg', 'pageShown', ['animate']],
      ['q-next', 'later', 'press', ['card']],
      ['q-both', 'both', 'press', ['toggle', 'send']],
    ]);
    expect(cues[2]!.steps[0]).toEqual({ do: 'toggle', items: ['dot', 'hint'], after: 0.5 });
    expect(hidden).toEqual(['hint']);
  });
  test('has cards, times and flakes, lengths in px, and the words of its language', () => {
    const { switchers, veils, words, transitions, advance } = programOf(folio);
    expect(switchers['sw']).toMatchObject({ cards: ['c1', 'c2'], names: ['One', 'Two'], advance: { seconds: [2, 5], loop: true } });
    expect(veils['veil']).toMatchObject({ size: 48, pitch: 46, rows: [[0], [0, 1]], rest: 0.5, action: 'Show it', fill: '#ff0000' });
    expect(words.next).toBe('Weiter');
    expect(transitions).toEqual({ 'at-pg': { style: 'wipe', seconds: 0.4, direction: 180, axis: 'horizontal', motion: 'inward' } });
    expect(advance).toEqual({ 'at-pg': 6 });
  });
  test('leaves out steps whose targets are gone, and cues of nothing but such', () => {
    const without = altered((d) => {
      delete (d.spreads['s']!.items as Record<string, unknown>)['sw'];
      d.spreads['s']!.order = d.spreads['s']!.order.filter((id) => id !== 'sw');
    });
    expect(programOf(without).cues.map((c) => c.id)).not.toContain('q-next');
  });
  test('sends answers and opens pages only at addresses that are safe', () => {
    const bad = altered((d) => {
      const item = d.spreads['s']!.items['both']!;
      item.cues['q-both']!.steps = [
        { do: 'sendForm', href: 'javascript:alert(1)', after: 0 },
        { do: 'go', destination: { to: 'address', href: 'javascript:alert(1)', window: 'same' }, after: 0 },
      ];
    });
    expect(programOf(bad).cues.map((c) => c.id)).not.toContain('q-both');
  });
});

test('what has controls of its own is pressed itself: no button lies over it', async () => {
  const pressed = altered((d) => {
    for (const id of ['tick', 'sw', 'veil'])
      d.spreads['s']!.items[id]!.cues = { [`q-${id}`]: { id: `q-${id}`, trigger: { when: 'press' }, steps: [{ do: 'print', after: 0 }] } };
  });
  const { ledger, read } = await make(asSample(pressed), 'html', {}, pressed);
  const html = new TextDecoder().decode(await read('index.html'));
  for (const id of ['tick', 'sw', 'veil']) {
    expect(html).toMatch(new RegExp(`<div[^>]*data-item="${id}" data-press="${id}"`));
    expect(html).not.toMatch(new RegExp(`<button[^>]*data-press="${id}"`));
    expect(ledger.find((e) => e.subject.id === `q-${id}`)).toMatchObject({ outcome: 'kept', check: 'confirmed' });
  }
});

test('names of fields used twice are counted on, groups share theirs, dots nest nothing', () => {
  const twice = altered((d) => {
    const box = d.spreads['s']!.items['tick']!;
    for (const [id, name] of [
      ['t2', 'a.b'],
      ['t3', 'tick'],
    ] as const)
      d.spreads['s']!.items[id] = { ...(box as object), id, fieldName: name } as never;
  });
  expect(Object.fromEntries(fieldNames(twice))).toEqual({ tick: 'tick', pick: 'colour', words: 'words', t2: 'a_b', t3: 'tick-2' });
});

describe('outputs that move', () => {
  test.each(['html', 'epub-fixed', 'pdf'])('%s says of each part what becomes of it, and reading back bears it out', async (id) => {
    const { ledger, valid } = await make(asSample(folio), id, {}, folio);
    expect(ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
    expect(valid).toBe(true);
    const of = (kind: string, subject: string, aspect: string): string => {
      const e = ledger.find((x) => x.subject.kind === kind && x.subject.id === subject && x.subject.aspect === aspect)!;
      return `${e.code} ${e.check}`;
    };
    const asked = [
      of('item', 'sw', 'motion'),
      of('item', 'veil', 'motion'),
      of('cue', 'q-next', 'motion'),
      of('item', 'tick', 'field'),
      of('page', 'pg', 'transition'),
    ];
    expect(asked).toEqual(
      {
        html: ['kept confirmed', 'kept confirmed', 'kept confirmed', 'kept confirmed', 'kept confirmed'],
        'epub-fixed': ['kept confirmed', 'kept confirmed', 'kept confirmed', 'kept confirmed', 'transition.none confirmed'],
        pdf: ['switcher.layers uncheckable', 'veil.lifted uncheckable', 'kept confirmed', 'kept confirmed', 'kept confirmed'],
      }[id],
    );
    if (id === 'pdf') expect(of('item', 'second', 'place')).toMatch(/^kept/);
  });

  test.each<[string, string, RegExp, string]>([
    ['a field that is another', 'item tick field', /type="checkbox"/, 'type="radio"'],
    ['a card that is gone', 'item sw motion', /data-card="c2"/, 'data-x="c2"'],
    ['a veil with other flakes', 'item veil motion', /"rows":\[\[0\]/, '"rows":[[0,1]'],
    ['a button that is gone', 'cue q-next motion', /data-press="later"/, 'data-x="later"'],
    ['a transition that is another', 'page pg transition', /"style":"wipe"/, '"style":"fade"'],
    ['a switcher elsewhere', 'item sw place', /(data-item="sw"[^>]*?left:)[\d.]+px/, '$13px'],
  ])('reading back finds %s', async (_, key, from, to) => {
    const files = await writeOnly(asSample(folio), 'html', {}, folio);
    const text = new TextDecoder().decode(files.get('index.html'));
    expect(text).toMatch(from);
    files.set('index.html', new TextEncoder().encode(text.replace(from, to)));
    const evidence = await readBack(asSample(folio), 'html', files);
    const bad = evidence.filter((e) => !e.agrees).map((e) => `${e.subject.kind} ${e.subject.id} ${e.subject.aspect}`);
    expect(bad).toContain(key);
  });
});
