import { beforeAll, describe, expect, test } from '@jest/globals';
import type { Sample } from '@elastic-folio/demo';
import { applyEdit, Folio } from '../../src/index.ts';
import type { LogRow, TranslatedUnit } from '../../src/index.ts';
import { Composer } from '../../src/compose/index.ts';
import {
  afterwards,
  ChoiceOfTexts,
  comingBack,
  fromReadable,
  goesOut,
  Memory,
  newEdition,
  onlyOfJob,
  progressOf,
  readable,
  reachOf,
  rowsOfJob,
  signaturesOf,
  standingsOf,
  translatedByService,
  translatorsUnits,
} from '../../src/language/index.ts';
import { longWords } from './support/words.ts';
import { fontsOf, sample } from '../support/samples.ts';

let almanac: Sample;
let job: { language: string; units: string[] };
beforeAll(async () => {
  almanac = await sample('marrowby-almanac');
  const composition = new Composer(await fontsOf(almanac.folio)).compose(almanac.folio);
  const { units } = goesOut(almanac.folio, ChoiceOfTexts.parse({ pages: '2-3' }), composition);
  job = { language: 'de', units: units.map((u) => u.id) };
});

describe('what a translator sees of a document', () => {
  test('is a document of its own that holds together, with as many pages under their numbers', () => {
    const shown = Folio.parse(onlyOfJob(almanac.folio, job));
    expect(shown.head.spreadOrder).toEqual(almanac.folio.head.spreadOrder);
    expect(reachOf(almanac.folio, job).pages).toEqual(expect.arrayContaining([2, 3]));
    expect(reachOf(almanac.folio, job).pages.length).toBeLessThan(16);
  });
  test('has the texts of the job, each as it is', () => {
    const shown = standingsOf(onlyOfJob(almanac.folio, job), 'de', new Set(job.units));
    const whole = standingsOf(almanac.folio, 'de', new Set(job.units));
    expect(shown.map(({ unit, standing }) => [unit.id, readable(unit.parts), unit.pages, standing?.target ?? null])).toEqual(
      whole.map(({ unit, standing }) => [unit.id, readable(unit.parts), unit.pages, standing?.target ?? null]),
    );
    expect(progressOf(shown)).toEqual(progressOf(whole));
  });
  test('holds no word of what is beyond its spreads, no picture of theirs, no other language and no output', () => {
    const { pages, spreads, stories } = reachOf(almanac.folio, job);
    const text = JSON.stringify(onlyOfJob({ ...almanac.folio, editions: { ...almanac.folio.editions, fr: newEdition('fr') } }, job));
    const beyond = Object.values(almanac.folio.stories).filter((s) => !stories.has(s.id));
    expect(beyond.length).toBeGreaterThan(5);
    for (const story of beyond) for (const words of longWords(story)) expect(text).not.toContain(JSON.stringify(words).slice(1, -1));
    const shown = onlyOfJob(almanac.folio, job);
    expect(Object.keys(shown.head.media).length).toBeLessThan(Object.keys(almanac.folio.head.media).length);
    expect(Object.entries(shown.spreads).flatMap(([id, s]) => (spreads.has(id) ? [] : Object.keys(s.items)))).toEqual([]);
    expect([Object.keys(shown.editions), shown.recipes, pages.includes(12)]).toEqual([['de'], {}, false]);
  });
  test('shows what stands beside the job as it is said now, without who said it and what was remarked', () => {
    const de = almanac.folio.editions['de']!;
    const asked = new Set(job.units);
    const said = { by: 'Ada', at: AT, comments: [{ by: 'Ada', at: AT, text: 'between us' }], history: [] };
    const units = Object.fromEntries(
      Object.entries(de.units).map(([id, u]) => [id, { ...u, segments: u.segments.map((s) => ({ ...s, ...said })) }]),
    );
    const overrides = { ...de.overrides, links: { 'diary-text/toKeeper': 'mailto:elsewhere@marrowby.example' } };
    const shown = onlyOfJob({ ...almanac.folio, editions: { de: { ...de, units, overrides } } }, job).editions['de']!;
    const remarked = Object.entries(shown.units).filter(([, u]) => u.segments.some((s) => s.comments ?? s.by));
    expect(remarked.length).toBeGreaterThan(3);
    expect(remarked.filter(([id]) => !asked.has(id))).toEqual([]);
    // The feature goes on to pages 4 and 5, of which other texts are seen.
    expect(shown.units['map-caption-text-1']!.segments[0]!.target).not.toBeNull();
    expect(shown.units['diary-text-2']).toBeUndefined();
    expect(JSON.stringify(shown)).not.toMatch(/elsewhere@/);
    expect(Object.keys(shown.overrides.tightened)).toEqual([]);
  });
  test('shows the pictures that stand in for others where they are seen, on master pages as well, and no others', () => {
    const de = almanac.folio.editions['de']!;
    const pictures = { 'telescope-picture': { media: 'moon1' }, emblem: { media: 'moon2' }, 'walk-picture': { media: 'moon3' } };
    const inner = almanac.folio.head.masterPages['inner']!;
    const emblem = { ...almanac.folio.spreads['s2']!.items['telescope-picture']!, id: 'emblem' };
    const masterPages = { inner: { ...inner, items: { ...inner.items, emblem } } };
    const shown = onlyOfJob(
      {
        ...almanac.folio,
        head: { ...almanac.folio.head, masterPages },
        editions: { de: { ...de, overrides: { ...de.overrides, pictures } } },
      },
      job,
    );
    expect(Object.keys(shown.editions['de']!.overrides.pictures)).toEqual(['telescope-picture', 'emblem']);
    expect(Object.keys(shown.head.media)).toEqual(expect.arrayContaining(['moon1', 'moon2']));
  });
  test('hears of changes to its own texts and to nothing else', () => {
    const row = (folio: Folio, edit: Parameters<typeof applyEdit>[1]): LogRow => {
      const { patches, inverse, touched } = applyEdit(folio, edit);
      return { seq: 1, base: 0, actor: 'anna', at: '', group: 'g', edit, patches, inverse, touched };
    };
    const typed = (story: string, paragraph: string) =>
      row(almanac.folio, {
        kind: 'text.replace',
        args: {
          story,
          from: { paragraphId: paragraph, offset: 0 },
          to: { paragraphId: paragraph, offset: 0 },
          content: [[{ type: 'span', text: 'secret ' }]],
          newIds: [],
        },
      });
    const says = (id: string, target: string) =>
      ({ kind: 'edition.units', args: { language: 'de', units: { [id]: unit(target) } } }) as const;
    const { stories } = reachOf(almanac.folio, job);
    const mine = [...stories].find((id) => almanac.folio.stories[id]!.order.length > 0)!;
    const other = Object.values(almanac.folio.stories).find((s) => !stories.has(s.id) && s.blocks[s.order[0]!]?.kind === 'paragraph')!;
    const heard = rowsOfJob(almanac.folio, job, [
      typed(mine, almanac.folio.stories[mine]!.order[0]!),
      typed(other.id, other.order[0]!),
      row(almanac.folio, { kind: 'document.metadata', args: { title: 'secret title' } }),
      row(
        almanac.folio,
        says(
          job.units.find((id) => id.startsWith('dome-feature'))!,
          'heard',
        ),
      ),
      row(almanac.folio, says('diary-text-1', 'secret words')),
    ]);
    expect(heard.map((r) => r.patches.length > 0)).toEqual([true, false, false, true, false]);
    expect(JSON.stringify(heard)).not.toMatch(/anna|secret title|secret words/);
    expect(heard.every((r) => !('inverse' in r) && !r.touched.length)).toBe(true);
  });
});

const unit = (target: string | null, more: Partial<TranslatedUnit['segments'][number]> = {}): TranslatedUnit => ({
  segments: [{ source: fromReadable('Come early.'), target: target === null ? null : fromReadable(target), state: 'translated', ...more }],
  codes: {},
});
const ILSE = { name: 'Ilse', units: new Set(['p1']), reviews: false };
const AT = '2026-03-06T12:00:00.000Z';

describe('what a translator may write', () => {
  test('is signed with their name, and what stood there before is in its history', () => {
    const before = unit('Kommt früh.', { by: 'anna', at: '2026-03-01T00:00:00.000Z' });
    const made = translatorsUnits({ units: { p1: before } }, { p1: unit('Kommen Sie früh.', { by: 'somebody else' }) }, ILSE, AT);
    expect(made['p1']!.segments[0]).toMatchObject({ by: 'Ilse', at: AT, history: [{ by: 'anna', target: fromReadable('Kommt früh.') }] });
    const again = translatorsUnits({ units: made }, { p1: unit('Kommen Sie früh.') }, ILSE, '2026-03-07T00:00:00.000Z');
    expect(again).toEqual(made);
  });
  test('loses nothing of comments, whatever is sent', () => {
    const said = { text: 'Formal, please', by: 'anna', at: AT };
    const before = { units: { p1: unit('Kommt früh.', { comments: [said] }) } };
    const silent = translatorsUnits(before, { p1: unit('Kommen Sie früh.') }, ILSE, AT);
    expect(silent['p1']!.segments[0]!.comments).toEqual([said]);
    const more = unit('Kommen Sie früh.', { comments: [said, { text: 'Done', by: 'anna', at: '' }] });
    expect(translatorsUnits(before, { p1: more }, ILSE, AT)['p1']!.segments[0]!.comments).toEqual([
      said,
      { text: 'Done', by: 'Ilse', at: AT },
    ]);
  });
  test('parts a text without losing what it was', () => {
    const before = { units: { p1: unit('Kommt früh.', { by: 'anna', at: AT }) } };
    const parted: TranslatedUnit = {
      segments: [
        { source: fromReadable('Come'), target: null, state: 'initial', glue: fromReadable(' ') },
        { source: fromReadable('early.'), target: null, state: 'initial' },
      ],
      codes: {},
    };
    expect(translatorsUnits(before, { p1: parted }, ILSE, AT)['p1']!.segments[0]!.history).toMatchObject([
      { target: fromReadable('Kommt früh.') },
    ]);
  });
  test.each([
    ['another text', { p2: unit('x') }, {}, /not part of the job/],
    ['a state that is not theirs', { p1: unit('x', { state: 'final' }) }, {}, /not a translator’s/],
    ['a review that they were not asked for', { p1: unit('x', { state: 'reviewed' }) }, {}, /not a translator’s/],
    ['what is locked', { p1: unit('x') }, { p1: unit('y', { state: 'locked' }) }, /locked/],
  ])('%s is refused', (_, sent, units, says) => {
    expect(() =>
      translatorsUnits({ units: units as Record<string, TranslatedUnit> }, sent as Record<string, TranslatedUnit>, ILSE, AT),
    ).toThrow(says);
  });
  test('who was asked to review may say so', () => {
    const made = translatorsUnits({ units: {} }, { p1: unit('x', { state: 'reviewed' }) }, { ...ILSE, reviews: true }, AT);
    expect(made['p1']!.segments[0]!.state).toBe('reviewed');
  });
  test('a text that is said once more has what it was once in its history, not twice', () => {
    const first = unit('Kommt früh.', { by: 'anna', at: AT });
    const second = translatorsUnits({ units: { p1: first } }, { p1: unit('Kommen Sie früh.') }, ILSE, AT)['p1']!;
    // As the desk sends it: with its own history.
    const sent = {
      ...second,
      segments: [afterwards({ ...second.segments[0]!, target: fromReadable('Früh kommen.') }, second.segments[0], { by: 'Ilse', at: AT })],
    };
    expect(translatorsUnits({ units: { p1: second } }, { p1: sent }, ILSE, AT)['p1']!.segments[0]!.history).toHaveLength(2);
  });
});

describe('the simulated service', () => {
  test('sends what the memory has, and a pseudo-translation of all else, in every text', async () => {
    const { folio } = await sample('open-dome-night');
    const { units } = goesOut(folio, ChoiceOfTexts.parse({}));
    const known = units.find((u) => readable(u.parts) === 'What to bring')!;
    const memory = new Memory([{ source: known.parts, target: fromReadable('Bitte mitbringen') }]);
    const made = translatedByService(units, memory, 'de', { breaksCodes: false });
    expect(Object.keys(made)).toEqual(units.map((u) => u.id));
    expect(readable(made[known.id]!.segments[0]!.target!)).toBe('Bitte mitbringen');
    const back = comingBack(folio, asInbound(made), 'de');
    expect(back.segments.flatMap((s) => s.findings.map((f) => f.fault)).filter((f) => f.startsWith('code'))).toEqual([]);
    expect(back.segments.every((s) => s.after !== null)).toBe(true);
  });
  test('loses a code in every third text that has any, where it was told to', async () => {
    const { folio } = await sample('open-dome-night');
    const { units } = goesOut(folio, ChoiceOfTexts.parse({}));
    const coded = units.filter((u) => u.codes.length && u.segments.some((s) => s.source.some((p) => 'code' in p)));
    const made = translatedByService(units, new Memory(), 'de', { breaksCodes: true });
    const lost = comingBack(folio, asInbound(made), 'de').segments.filter((s) => s.findings.some((f) => f.fault === 'codeMissing'));
    expect(lost).toHaveLength(Math.ceil(coded.length / 3));
    expect(signaturesOf(coded[0]!.codes)).toEqual(made[coded[0]!.id]!.codes);
  });
});

const asInbound = (made: Record<string, TranslatedUnit>) => ({
  document: 'open-dome-night',
  source: 'en',
  target: 'de',
  passedOver: [],
  segments: Object.entries(made).flatMap(([unitId, u]) =>
    u.segments.map((s, at) => ({ unit: unitId, at, source: s.source, target: s.target, state: s.state, comments: [] })),
  ),
});
