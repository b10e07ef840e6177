import { describe, expect, test } from '@jest/globals';
import { newEdition } from '../src/language/index.ts';
import fc from 'fast-check';
import { produce } from 'immer';
import { applyEdit, applyLogged, EDITS, Item, OpenFolio, TextEditError } from '../src/index.ts';
import type { Edit, Folio, Inline, Paragraph } from '../src/index.ts';
import { tinyFolio } from './support/tinyFolio.ts';

const folio: Folio = produce(tinyFolio(['one', 'two', '', 'four']), (d) => {
  (d.stories['t']!.blocks['p1'] as Paragraph).character = { fontWeight: 700 };
  d.head.paragraphStyles['q'] = { id: 'q', name: 'Quiet', paragraph: {}, character: {} };
  d.head.structure.pins['old'] = { id: 'old', item: 'f1', paragraph: 'p2', offset: 0, as: 'before' };
  d.spreads['s']!.items['f1']!.cues = { 'old-cue': { id: 'old-cue', trigger: { when: 'press' }, steps: [{ do: 'print', after: 0 }] } };
  d.spreads['s']!.items['sw'] = Item.parse({
    kind: 'switcher',
    id: 'sw',
    layer: 'l',
    transform: [1, 0, 0, 1, 0, 0],
    size: { width: 9, height: 9 },
    cards: [{ id: 'card', name: 'One', items: [] }],
  });
  d.spreads['s']!.items['box'] = Item.parse({ kind: 'shape', id: 'box', layer: 'l', transform: [1, 0, 0, 1, 5, 5], path: [] });
  d.spreads['s']!.order.push('box');
  d.spreads['s']!.grids = { old: { id: 'old', seeds: ['box'], rows: 1, columns: 1, dx: 0, dy: 0 } };
  d.editions['ja'] = newEdition('ja');
  d.recipes['r'] = { id: 'r', output: 'pdf', version: 1, name: 'Print', settings: {} };
});
const veil: Extract<Edit, { kind: 'part.set' }>['args']['item'] = {
  kind: 'veil',
  id: 'new',
  layer: 'l',
  transform: [1, 0, 0, 1, 0, 0],
  size: { width: 9, height: 9 },
  flakeSize: 3,
  action: 'Show',
};
const role = { element: 'h2' as const, startsSection: true, leaveOut: false };

/** One use of every edit: what it does, and what it touches. */
const USES: [Edit, (f: Folio) => unknown, unknown, string[]][] = [
  [
    {
      kind: 'text.replace',
      args: { story: 't', from: { paragraphId: 'p1', offset: 1 }, to: { paragraphId: 'p1', offset: 2 }, content: [[]], newIds: [] },
    },
    (f) => (f.stories['t']!.blocks['p1'] as { content: unknown }).content,
    [{ type: 'span', text: 'oe' }],
    ['p1'],
  ],
  [
    { kind: 'paragraph.style', args: { story: 't', paragraph: 'p2', style: 'q' } },
    (f) => (f.stories['t']!.blocks['p2'] as { style: string }).style,
    'q',
    ['p2'],
  ],
  [
    { kind: 'document.metadata', args: { title: 'New', language: 'de' } },
    (f) => [f.head.metadata.title, f.head.metadata.language, f.head.metadata.creators],
    ['New', 'de', []],
    ['metadata/language', 'metadata/title'],
  ],
  [{ kind: 'item.alt', args: { spread: 's', item: 'f1', alt: 'A frame' } }, (f) => f.spreads['s']!.items['f1']!.alt, 'A frame', ['f1']],
  [{ kind: 'item.decoration', args: { item: 'f1', decoration: true } }, (f) => f.head.structure.decorations, ['f1'], ['head/structure']],
  [
    { kind: 'words.language', args: { story: 't', paragraph: 'p4', from: 1, to: 3, language: 'de' } },
    (f) => (f.stories['t']!.blocks['p4'] as Paragraph).content,
    [
      { type: 'span', text: 'f' },
      { type: 'span', text: 'ou', overrides: { language: 'de' } },
      { type: 'span', text: 'r' },
    ],
    ['p4'],
  ],
  [
    {
      kind: 'cue.set',
      args: { spread: 's', holder: 'f1', cue: { id: 'c', trigger: { when: 'press' }, steps: [{ do: 'print' }] } },
    },
    (f) => Object.keys(f.spreads['s']!.items['f1']!.cues),
    ['old-cue', 'c'],
    ['f1'],
  ],
  [{ kind: 'cue.remove', args: { spread: 's', holder: 'f1', cue: 'old-cue' } }, (f) => f.spreads['s']!.items['f1']!.cues, {}, ['f1']],
  [
    { kind: 'pages.motion', args: { pages: ['pg'], transition: { style: 'wipe', direction: 90 }, advanceAfter: 4 } },
    (f) => [f.spreads['s']!.pages[0]!.transition?.style, f.spreads['s']!.pages[0]!.advanceAfter],
    ['wipe', 4],
    ['spreads/s'],
  ],
  [
    { kind: 'item.startsHidden', args: { spread: 's', item: 'f1', hidden: true } },
    (f) => f.spreads['s']!.items['f1']!.startsHidden,
    true,
    ['f1'],
  ],
  [
    {
      kind: 'switcher.make',
      args: { spread: 's', id: 'turns', name: 'In turn', cards: [{ id: 'turns-1', name: 'One', items: ['box'] }] },
    },
    (f) => [f.spreads['s']!.items['turns']?.kind, f.spreads['s']!.order],
    ['switcher', ['f1', 'turns']],
    ['s'],
  ],
  [
    {
      kind: 'items.paste',
      args: {
        spread: 's',
        page: 'pg',
        as: 'k1',
        clip: { items: { [veil.id]: veil }, order: [veil.id], stories: {}, targets: {}, media: {}, decorations: [], styles: {} },
      },
    },
    (f) => [f.spreads['s']!.items['new.k1-0']?.kind, f.spreads['s']!.order.at(-1)],
    ['veil', 'new.k1-0'],
    ['s'],
  ],
  [
    {
      kind: 'cues.paste',
      args: {
        spread: 's',
        holder: 'f1',
        as: 'k1',
        copied: { cues: [{ id: 'c', trigger: { when: 'press' }, steps: [{ do: 'print' }] }], targets: {} },
      },
    },
    (f) => Object.keys(f.spreads['s']!.items['f1']!.cues),
    ['old-cue', 'c.k1'],
    ['f1'],
  ],
  [
    { kind: 'document.opening', args: { fullScreen: true, zoom: 'width' } },
    (f) => f.head.opening,
    { fullScreen: true, zoom: 'width', view: 'page', showBookmarks: false, loop: false },
    ['head'],
  ],
  [
    {
      kind: 'media.add',
      args: { id: 'film', name: 'dome.mp4', file: 'media/film.mp4', mediaType: 'video/mp4', sha256: 'a'.repeat(64), bytes: 3 },
    },
    (f) => f.head.media['film']?.name,
    'dome.mp4',
    ['media'],
  ],
  [
    { kind: 'part.set', args: { spread: 's', item: veil } },
    (f) => [f.spreads['s']!.items['new']?.kind, f.spreads['s']!.order.at(-1)],
    ['veil', 'new'],
    ['s'],
  ],
  [
    { kind: 'grid.set', args: { spread: 's', grid: { id: 'g', seeds: ['box'], rows: 1, columns: 2, dx: 20, dy: 0 } } },
    (f) => [f.spreads['s']!.items['box.g-0-1']?.transform, f.spreads['s']!.order],
    [
      [1, 0, 0, 1, 25, 5],
      ['f1', 'box', 'box.g-0-1'],
    ],
    ['s'],
  ],
  [{ kind: 'grid.remove', args: { spread: 's', grid: 'old' } }, (f) => f.spreads['s']!.grids, undefined, ['s']],
  [
    { kind: 'part.remove', args: { spread: 's', item: 'sw' } },
    (f) => [f.spreads['s']!.items['sw'], f.spreads['s']!.order],
    [undefined, ['f1', 'box']],
    ['s'],
  ],
  [{ kind: 'item.figure', args: { item: 'f1', figure: true } }, (f) => f.head.structure.figures, ['f1'], ['head/structure']],
  [{ kind: 'style.role', args: { style: 'p', role } }, (f) => f.head.paragraphStyles['p']!.role, role, ['paragraphStyles/p']],
  [
    { kind: 'styles.roles', args: { paragraph: { p: role }, character: {} } },
    (f) => f.head.paragraphStyles['p']!.role,
    role,
    ['paragraphStyles/p'],
  ],
  [
    { kind: 'path.order', args: { spread: 's', order: ['f1'] } },
    (f) => f.head.structure.strands.map((s) => s.entries),
    [[{ spread: 's', item: 'f1' }]],
    ['head/structure'],
  ],
  [{ kind: 'item.leftOut', args: { item: 'f1', leftOut: true } }, (f) => f.head.structure.leftOut, ['f1'], ['head/structure']],
  [
    { kind: 'paragraph.sectionStart', args: { paragraph: 'p2', starts: true } },
    (f) => f.head.structure.sectionStarts,
    ['p2'],
    ['head/structure'],
  ],
  [
    { kind: 'path.strands', args: { strands: [{ id: 'a', name: 'A', entries: [{ spread: 's', item: 'f1' }], together: true }] } },
    (f) => f.head.structure.strands.map((s) => [s.name, s.together]),
    [['A', true]],
    ['head/structure'],
  ],
  [
    { kind: 'outline.entry', args: { paragraph: 'p2', entry: { text: 'Other words' } } },
    (f) => f.head.structure.outline,
    { p2: { text: 'Other words', leaveOut: false } },
    ['head/structure'],
  ],
  [{ kind: 'caption.link', args: { caption: 'f1', figure: 'f2' } }, (f) => f.head.structure.captions, { f1: 'f2' }, ['head/structure']],
  [
    { kind: 'paragraph.language', args: { story: 't', paragraphs: ['p1'], language: 'de' } },
    (f) => (f.stories['t']!.blocks['p1'] as Paragraph).character,
    { fontWeight: 700, language: 'de' },
    ['p1'],
  ],
  [
    { kind: 'pin.set', args: { id: 'new', item: 'f1', paragraph: 'p2', offset: 1, as: 'after' } },
    (f) => f.head.structure.pins['new']?.as,
    'after',
    ['head/structure'],
  ],
  [{ kind: 'pin.remove', args: { pin: 'old' } }, (f) => Object.keys(f.head.structure.pins), [], ['head/structure']],
  [{ kind: 'layer.visible', args: { layer: 'l', visible: false } }, (f) => f.head.layers['l']!.visible, false, ['layers/l']],
  [
    { kind: 'recipe.set', args: { id: 'w', output: 'html', version: 1, name: 'Web', settings: { gap: 3 } } },
    (f) => f.recipes['w']?.settings,
    { gap: 3 },
    ['recipes/w'],
  ],
  [
    { kind: 'styles.nameLooks', args: {} },
    (f) => [(f.stories['t']!.blocks['p1'] as { style: string }).style, Object.values(f.head.paragraphStyles).at(-1)!.name],
    ['p-look-3', 'Text, bold'],
    ['paragraphStyles/p-look-3', 'p1'],
  ],
  [
    { kind: 'styles.merge', args: { keep: 'q', others: ['p'] } },
    (f) => Object.keys(f.head.paragraphStyles),
    ['q'],
    ['paragraphStyles/p', 'p2'],
  ],
  [
    { kind: 'text.closeUp', args: { story: 't' } },
    (f) => [f.stories['t']!.order, (f.stories['t']!.blocks['p2'] as { overrides?: unknown }).overrides],
    [['p1', 'p2', 'p4'], { spaceAfter: 12 }],
    ['p2', 'p3', 'stories/t/order'],
  ],
  [{ kind: 'pages.lay', args: { lay: 'pairs' } }, (f) => [f.head.facingPages, f.head.spreadOrder], [true, ['s']], ['head/facingPages']],
  [{ kind: 'pages.bleed', args: { bleed: 9 } }, (f) => f.spreads['s']!.pages[0]!.bleed, 9, ['spreads/s/pages']],
  [
    { kind: 'font.standIn', args: { family: 'Marrowby Sans', by: 'Arimo' } },
    (f) => f.head.standIns,
    { 'marrowby sans': 'Arimo' },
    ['head/standIns'],
  ],
  [{ kind: 'recipe.remove', args: { recipe: 'r' } }, (f) => Object.keys(f.recipes), [], ['recipes/r']],
  [{ kind: 'edition.make', args: { language: 'de-AT', basedOn: 'de' } }, (f) => f.editions['de-AT']!.basedOn, 'de', ['editions/de-AT']],
  [{ kind: 'edition.remove', args: { language: 'ja' } }, (f) => Object.keys(f.editions), [], ['editions/ja']],
  [
    { kind: 'words.translate', args: { story: 't', paragraph: 'p4', from: 1, to: 3, translate: false } },
    (f) => (f.stories['t']!.blocks['p4'] as Paragraph).content,
    [
      { type: 'span', text: 'f' },
      { type: 'span', text: 'ou', translate: false },
      { type: 'span', text: 'r' },
    ],
    ['p4'],
  ],
  [
    { kind: 'paragraph.translate', args: { story: 't', paragraph: 'p2', translate: false } },
    (f) => (f.stories['t']!.blocks['p2'] as Paragraph).translate,
    false,
    ['p2'],
  ],
  [
    { kind: 'style.translate', args: { of: 'paragraph', style: 'q', translate: false } },
    (f) => f.head.paragraphStyles['q']!.translate,
    false,
    ['q'],
  ],
  [
    { kind: 'list.alphabetical', args: { list: 'words', story: 't', entries: ['p1', 'p2', 'gone'] } },
    (f) => f.head.structure.alphabetical,
    { words: { story: 't', entries: ['p1', 'p2'] } },
    ['structure/alphabetical'],
  ],
  [
    { kind: 'edition.units', args: { language: 'ja', units: { p1: { segments: [{ source: [], target: [], state: 'final' }] } } } },
    (f) => f.editions['ja']!.units['p1']!.segments[0]!.state,
    'final',
    ['editions/ja/p1'],
  ],
  [
    { kind: 'edition.lock', args: { language: 'ja', lock: { did: 'locked', by: 'me', at: 'now' } } },
    (f) => f.editions['ja']!.locks.map((l) => l.did),
    ['locked'],
    ['editions/ja/locks'],
  ],
  [
    { kind: 'edition.settings', args: { language: 'ja', overrides: { italics: 'bold' } } },
    (f) => [f.editions['ja']!.overrides.italics, f.editions['ja']!.overrides.fonts],
    ['bold', {}],
    ['editions/ja/overrides'],
  ],
];

describe('named edits', () => {
  test('the list here has every edit there is', () => {
    expect(new Set(USES.map(([e]) => e.kind))).toEqual(new Set(EDITS.map((e) => e.kind)));
  });

  test.each(USES.map((u) => [u[0].kind, ...u] as const))('%s does what it says and can be taken back', (_, edit, look, result, touched) => {
    const before = JSON.stringify(folio);
    const applied = applyEdit(folio, edit);
    expect(look(applied.folio)).toEqual(result);
    expect(applied.touched.map((t) => t.split('/').slice(0, 2).join('/'))).toEqual(
      expect.arrayContaining(touched.map((t) => expect.stringContaining(t.split('/')[0]!))),
    );
    expect(JSON.stringify(folio)).toBe(before);
    expect(applyLogged(applied.folio, applied.inverse)).toEqual(folio);
    expect(applyLogged(folio, applied.patches)).toEqual(applied.folio);
  });

  test.each([
    ['an edit that does not exist', { kind: 'item.fly', args: {} }],
    ['a style that is gone', { kind: 'paragraph.style', args: { story: 't', paragraph: 'p1', style: 'none' } }],
    ['a paragraph that is gone', { kind: 'paragraph.style', args: { story: 't', paragraph: 'none', style: 'p' } }],
    ['an item that is gone', { kind: 'item.alt', args: { spread: 's', item: 'none', alt: '' } }],
    ['a layer that is gone', { kind: 'layer.visible', args: { layer: 'none', visible: true } }],
    [
      'an offset below zero',
      {
        kind: 'text.replace',
        args: { story: 't', from: { paragraphId: 'p1', offset: -1 }, to: { paragraphId: 'p1', offset: 1 }, content: [[]], newIds: [] },
      },
    ],
    ['a language that is none', { kind: 'document.metadata', args: { language: 'not a language!' } }],
    ['a role that is none', { kind: 'style.role', args: { style: 'p', role: { element: 'marquee' } } }],
  ])('%s throws and changes nothing', (_, edit) => {
    const before = JSON.stringify(folio);
    expect(() => applyEdit(folio, edit as Edit)).toThrow();
    expect(JSON.stringify(folio)).toBe(before);
  });

  test('any row of edits, taken back in reverse, leads to the beginning; patches alone lead a copy along', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: USES.length - 1 }), { maxLength: 12 }), (choices) => {
        let now = folio;
        let copy = folio;
        const inverses = [];
        for (const i of choices) {
          try {
            const { folio: next, inverse, patches } = applyEdit(now, USES[i]![0]);
            now = next;
            copy = applyLogged(copy, patches);
            inverses.push(inverse);
          } catch (error) {
            // Styles that became one with others are gone for what names them; nothing else may be refused.
            expect(error).toBeInstanceOf(TextEditError);
          }
        }
        expect(copy).toEqual(now);
        for (const inverse of inverses.reverse()) now = applyLogged(now, inverse);
        expect(now).toEqual(folio);
      }),
      { numRuns: 40 },
    );
  });

  test('a document that is typed into is put together as if each letter had been applied to all of it', () => {
    const place = fc.record({
      kind: fc.constantFrom('p1', 'p2', 'p4', 'style', 'split'),
      at: fc.nat(8),
      text: fc.string({ maxLength: 3 }),
    });
    fc.assert(
      fc.property(fc.array(place, { maxLength: 12 }), (steps) => {
        let open = OpenFolio.of(folio);
        let now = folio;
        steps.forEach(({ kind, at, text }, i) => {
          const paragraphId = kind.startsWith('p') ? kind : 'p2';
          const places = { from: { paragraphId, offset: at }, to: { paragraphId, offset: at } };
          const content: Inline[][] = [text ? [{ type: 'span', text }] : []];
          const edit: Edit =
            kind === 'style'
              ? { kind: 'paragraph.style', args: { story: 't', paragraph: 'p1', style: i % 2 ? 'p' : 'q' } }
              : kind === 'split'
                ? { kind: 'text.replace', args: { story: 't', ...places, content: [...content, []], newIds: [`n${i}`] } }
                : { kind: 'text.replace', args: { story: 't', ...places, content, newIds: [] } };
          const { folio: next, ...applied } = applyEdit(now, edit);
          const { open: further, ...same } = open.apply(edit);
          expect(same).toEqual(applied);
          now = next;
          open = further;
          if (at === 0) expect(open.folio).toEqual(now);
        });
        expect(open.folio).toEqual(now);
        expect(open.title).toBe(now.head.metadata.title);
      }),
      { numRuns: 100 },
    );
  });
});
