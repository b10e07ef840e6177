import { describe, expect, test } from '@jest/globals';
import { zipSync } from 'fflate';
import type { Folio } from '../../src/index.ts';
import {
  comingBack,
  composeStories,
  fitFindings,
  fromReadable,
  inEdition,
  isGood,
  isTakeable,
  readable,
  taken,
  unitsOf,
} from '../../src/language/index.ts';
import type { Inbound, InboundSegment, Returned } from '../../src/language/index.ts';
import { asSample, fontsOf } from '../support/samples.ts';
import { tinyFolio } from '../support/tinyFolio.ts';
import { backInto, readBytes, textsOf, withAll } from './support/exchanged.ts';
import { bold, codedFolio, plain, TAB } from './support/codedFolio.ts';

const FOLIO = codedFolio([
  [
    plain('Come '),
    bold('early'),
    plain(' to '),
    plain('our pages', { link: 'site' }),
    { type: 'field', id: 'f', field: 'pageNumber' },
    plain('.'),
  ],
  'It weighs 1,100.5 kilos.',
  'Is it open?',
]);

const segment = (
  unit: string,
  target: string | null,
  source: string | null = null,
  more: Partial<InboundSegment> = {},
): InboundSegment => ({
  unit,
  at: 0,
  source: source === null ? null : fromReadable(source),
  target: target === null ? null : fromReadable(target),
  state: 'translated',
  comments: [],
  ...more,
});
const inbound = (...segments: InboundSegment[]): Inbound => ({ document: 'tiny', source: 'en', target: 'de', segments, passedOver: [] });
const seen = (folio: Folio, ...segments: InboundSegment[]): Returned[] => comingBack(folio, inbound(...segments), 'de').segments;
const faults = (target: string, unit = 'p1'): string[] => seen(FOLIO, segment(unit, target))[0]!.findings.map((f) => f.fault);

describe('each kind of damage is told, and nothing else', () => {
  test.each([
    ['Kommen Sie {1}früh{/1} zu {2}unseren Seiten{/2}{3/}.', []],
    ['Zu {2}unseren Seiten{/2}{3/} kommen Sie {1}früh{/1}.', []],
    ['Kommen Sie früh zu {2}unseren Seiten{/2}{3/}.', ['codeMissing']],
    ['Kommen Sie {1}früh{/1} zu {2}unseren Seiten{/2}.', ['codeMissing']],
    ['Kommen Sie {1}früh{/1} zu {2}unseren Seiten{/2}{3/}{3/}.', ['codeDoubled']],
    ['Kommen Sie {1}früh{/1} zu {2}unseren Seiten{/2}{3/}{4/}.', ['codeUnknown']],
    ['Kommen Sie {1}früh zu {2}unseren{/1} Seiten{/2}{3/}.', ['codeOrder']],
    ['Kommen Sie {1}früh zu {2}unseren Seiten{/2}{3/}.', ['codeOrder']],
    ['Kommen Sie {1}früh{/1} zu {2}unseren\u0007 Seiten{/2}{3/}.', ['forbidden']],
    ['Kommen Sie {1}früh{/1} zu {2}unseren Seiten{/2}{3/}', ['punctuation']],
    ['Kommen Sie {1}früh{/1} zu {2}unseren Seiten{/2}{3/}. ', ['spaces']],
    ['Kommen Sie  {1}früh{/1} zu {2}unseren Seiten{/2}{3/}.', ['spaces']],
  ])('%j: %j', (target, expected) => expect(faults(target)).toEqual(expected));

  test.each([
    ['Es wiegt 1.100,5 Kilo.', []],
    ['Es wiegt 1\u00A0100,5 Kilo.', []],
    ['Es wiegt 1.200,5 Kilo.', ['numbers']],
    ['Es wiegt viel.', ['numbers']],
    ['Es wiegt 1,100.5 Kilo.', ['numbers']],
  ])('numbers, as the language writes them: %s', (target, expected) => expect(faults(target, 'p2')).toEqual(expected));

  test('marks of other scripts are the same marks', () => {
    const back = comingBack(FOLIO, { ...inbound(segment('p3', '開いていますか？')), target: 'ja' }, 'ja');
    expect(back.segments[0]!.findings).toEqual([]);
  });
});

describe('what comes back, against what is there', () => {
  test('new, changed, unchanged, empty and unknown', () => {
    const once = withAll(FOLIO, comingBack(FOLIO, inbound(segment('p2', 'Es wiegt 1.100,5 kg.'), segment('p3', 'Offen?')), 'de'));
    const again = seen(
      once,
      segment('p2', 'Es wiegt 1.100,5 kg.'),
      segment('p3', 'Ist offen?'),
      segment('p1', null),
      segment('gone', 'weg', 'Something quite different'),
    );
    expect(again.map((r) => [r.id, r.kind])).toEqual([
      ['p2', 'unchanged'],
      ['p3', 'changed'],
      ['p1', 'empty'],
      ['gone', 'unknown'],
    ]);
    expect(readable(again[1]!.before!)).toBe('Offen?');
  });

  test('a source that has changed since says so; a text that stands elsewhere now is found by its words', () => {
    const [changed] = seen(FOLIO, segment('p3', 'Ist sie offen?', 'Is the old one open?'));
    expect(changed!.findings.map((f) => f.fault)).toEqual(['sourceChanged']);
    const [moved] = seen(FOLIO, segment('was-here', 'Es wiegt 1.100,5 Kilo.', 'It weighs 1,100.5 kilos.'));
    expect([moved!.belongs, moved!.kind]).toEqual(['p2', 'new']);
  });

  test('good ones are those that need no look; what is taken keeps what was there', () => {
    const back = comingBack(FOLIO, inbound(segment('p1', 'ohne Codes'), segment('p2', 'Es wiegt 1.100,5 Kilo.')), 'de');
    expect(back.segments.filter(isGood).map((r) => r.id)).toEqual(['p2']);
    expect(back.segments.filter(isTakeable).map((r) => r.id)).toEqual(['p1', 'p2']);
    const first = taken(undefined, back, new Set(['p2']), 'agency', '2026-03-01');
    expect(Object.keys(first.units)).toEqual(['p2']);
    const folio = { ...FOLIO, editions: { de: first } };
    const second = taken(
      first,
      comingBack(folio, inbound(segment('p2', 'Es wiegt 1.100,5 kg.')), 'de'),
      new Set(['p2']),
      'reviewer',
      '2026-03-02',
    );
    const [now] = second.units['p2']!.segments;
    expect([readable(now!.target!), now!.by]).toEqual(['Es wiegt 1.100,5 kg.', 'reviewer']);
    expect(now!.history!.map((h) => [h.by, readable(h.target!)])).toEqual([['agency', 'Es wiegt 1.100,5 Kilo.']]);
  });

  test('whatever a translator broke, taking it loses no field and leaves no pair open', () => {
    const broken = withAll(FOLIO, comingBack(FOLIO, inbound(segment('p1', '{2}{1}Alles{/2} ohne\u0000 {9/}Ende')), 'de'));
    const block = inEdition(broken, 'de').stories['t']!.blocks['p1']!;
    expect(block.kind === 'paragraph' && block.content.filter((n) => n.type === 'field')).toHaveLength(1);
    expect(block.kind === 'paragraph' && block.content.map((n) => (n.type === 'span' ? n.text : '')).join('')).toBe('Alles ohne Ende');
  });

  test('what is locked stays: a segment, and a whole edition', () => {
    const once = withAll(FOLIO, comingBack(FOLIO, inbound(segment('p3', 'Offen?', null, { state: 'locked' })), 'de'));
    const [now] = seen(once, segment('p3', 'Zu?'));
    expect([now!.locked, isTakeable(now!)]).toEqual([true, false]);
    const locked = { ...once, editions: { de: { ...once.editions['de']!, locks: [{ did: 'locked' as const, by: 'a', at: 'b' }] } } };
    expect(() => seen(locked, segment('p3', 'Zu?'))).toThrow('locked');
  });

  test('segments between tabs come back one by one', () => {
    const folio = codedFolio([[plain('A day'), TAB, bold('31 hours')]]);
    const back = comingBack(folio, inbound(segment('p1', 'Ein Tag'), segment('p1', '31 Stunden', null, { at: 1 })), 'de');
    const made = inEdition(withAll(folio, back), 'de').stories['t']!.blocks['p1'];
    expect(made!.kind === 'paragraph' && made!.content).toEqual([plain('Ein Tag'), TAB, bold('31 Stunden')]);
  });
});

describe('only composing can tell', () => {
  test('a text that is longer than its frame, and signs that no font has', async () => {
    const folio = tinyFolio(['Short'], { width: 60, height: 30 });
    const fonts = await fontsOf(folio);
    const storyOf = new Map(unitsOf(folio).flatMap((u) => (u.story === undefined ? [] : [[u.id, u.story] as const])));
    const look = (target: string): string[] =>
      fitFindings(folio, comingBack(folio, inbound(segment('p1', target)), 'de'), fonts, storyOf).segments[0]!.findings.map((f) => f.fault);
    expect(look('Kurz')).toEqual([]);
    expect(look('Eine Übersetzung, die viel länger ist, als ihr Rahmen es erlaubt')).toEqual(['overflow']);
    expect(look('Kurz 𐎀')).toEqual(['glyphs']);
  });

  /** So many texts, each alone in its small frame. */
  function manySmall(count: number): Folio {
    const one = tinyFolio(['Short'], { width: 60, height: 30 });
    const numbers = Array.from({ length: count }, (_, i) => i + 1);
    const frame = one.spreads['s']!.items['f1']!;
    const items = Object.fromEntries(numbers.map((n) => [`f${n}`, { ...frame, id: `f${n}` }]));
    const stories = Object.fromEntries(
      numbers.map((n) => {
        const paragraph = { ...one.stories['t']!.blocks['p1']!, id: `p${n}` };
        return [
          `t${n}`,
          {
            ...one.stories['t']!,
            id: `t${n}`,
            blocks: { [`p${n}`]: paragraph },
            order: [`p${n}`],
            frames: [{ spread: 's', item: `f${n}` }],
          },
        ];
      }),
    );
    return {
      ...one,
      head: { ...one.head, storyOrder: Object.keys(stories) },
      spreads: { s: { ...one.spreads['s']!, items, order: Object.keys(items) } },
      stories,
    } as Folio;
  }
  const LONG = 'Eine Übersetzung, die viel länger ist, als ihr Rahmen es erlaubt';

  test('of more texts than are set at once, each is told of as if it came alone, wherever it stands', async () => {
    const folio = manySmall(150);
    const fonts = await fontsOf(folio);
    const storyOf = new Map(unitsOf(folio).flatMap((u) => (u.story === undefined ? [] : [[u.id, u.story] as const])));
    const wrong: Record<string, string> = { p1: LONG, p64: LONG, p65: 'Kurz 𐎀', p150: LONG };
    const segments = Array.from({ length: 150 }, (_, i) => segment(`p${i + 1}`, wrong[`p${i + 1}`] ?? 'Kurz'));
    const all = fitFindings(folio, comingBack(folio, inbound(...segments), 'de'), fonts, storyOf).segments;
    expect(all).toHaveLength(150);
    const told = all.flatMap((s) => s.findings.map((f) => [s.id, f.fault, f.says]));
    expect(told.map(([id, fault]) => [id, fault])).toEqual([
      ['p1', 'overflow'],
      ['p64', 'overflow'],
      ['p65', 'glyphs'],
      ['p150', 'overflow'],
    ]);
    const alone = fitFindings(folio, comingBack(folio, inbound(segment('p150', LONG)), 'de'), fonts, storyOf).segments[0]!;
    expect(told.at(-1)).toEqual(['p150', 'overflow', alone.findings[0]!.says]);
  });

  test('some texts set by themselves are set as in the whole document', async () => {
    const folio = manySmall(5);
    const fonts = await fontsOf(folio);
    const some = composeStories(folio, fonts, new Set(['t4', 't2', 'no such text']));
    expect([...some.stories.keys()]).toEqual(['t2', 't4']);
    const whole = composeStories(folio, fonts, new Set(Object.keys(folio.stories)));
    for (const [id, { frames }] of some.stories)
      expect(frames.map((f) => f.lines.map((l) => [l.baseline, l.width]))).toEqual(
        whole.stories.get(id)!.frames.map((f) => f.lines.map((l) => [l.baseline, l.width])),
      );
  });
});

describe('bad input is a clear word, and nothing is taken', () => {
  const xliff = (body: string, file = 'original="tiny" source-language="en" target-language="de"'): string =>
    `<xliff version="1.2" xmlns="urn:oasis:names:tc:xliff:document:1.2"><file ${file} datatype="x"><body>${body}</body></file></xliff>`;
  const unit = '<trans-unit id="p3"><source>Is it open?</source><target>Offen?</target></trans-unit>';
  const bad = async (name: string, text: string | Uint8Array): Promise<unknown> =>
    backInto(FOLIO, await readBytes(name, text), 'de').segments;

  test.each([
    ['a picture', 'back.png', 'x', /no kind that translations come back in/],
    ['a page', 'back.xlf', '<html/>', /not what its ending says/],
    ['half a file', 'back.xlf', xliff(unit).slice(0, 200), /cannot be read/],
    ['no text at all', 'back.xlf', xliff(''), /holds no text/],
    ['another document’s file', 'back.xlf', xliff(unit, 'original="other" source-language="en" target-language="de"'), /another document/],
    ['another language', 'back.xlf', xliff(unit, 'original="tiny" source-language="en" target-language="fr"'), /in “fr”, not in “de”/],
    ['from another language', 'back.xlf', xliff(unit, 'original="tiny" source-language="it" target-language="de"'), /translated from “it”/],
    ['entities of its own', 'back.xlf', `<!DOCTYPE xliff [<!ENTITY a "b">]>${xliff(unit)}`, /entities of its own/],
    ['an entity that is nowhere', 'back.xlf', xliff(unit.replace('Offen', '&nope;')), /cannot be read/],
    ['too deep', 'back.xlf', xliff(`${'<group id="g">'.repeat(300)}${unit}${'</group>'.repeat(300)}`), /more than 256 deep/],
    ['another encoding', 'back.csv', new Uint8Array([0x69, 0x64, 0x2c, 0xfc, 0xff]), /encoding/],
    ['a table without its columns', 'back.csv', 'a,b\n1,2\n', /no columns named/],
    ['a table that breaks off', 'back.csv', 'id,source,target\np3,"Is it open?', /breaks off/],
    ['no zip', 'back.xlsx', 'id', /cannot be opened|damaged|not a package/],
    ['another zip', 'back.xlsx', zipSync({ 'a.txt': new Uint8Array([1]) }), /no spreadsheet/],
    ['another document of words', 'back.docx', zipSync({ 'a.txt': new Uint8Array([1]) }), /no text document/],
  ])('%s', async (_, name, text, says) => {
    await expect(bad(name, text)).rejects.toThrow(says);
  });

  test('more rows than any document has', async () => {
    const rows = `id,source,target\n${'p,a,b\n'.repeat(200_020)}`;
    await expect(bad('back.csv', rows)).rejects.toThrow('200,000 rows');
  });

  test('processing instructions are passed over, and told', async () => {
    const read = await readBytes('back.xlf', xliff(`<?x y?>${unit}`));
    expect(read.passedOver).toEqual(['1 processing instruction, which no translation has']);
    expect(read.segments).toHaveLength(1);
  });

  test('formulas are never worked out: what a cell showed last is its text, and that is told', async () => {
    const sheet = (cells: string): Uint8Array =>
      zipSync({
        'xl/worksheets/sheet1.xml': new TextEncoder().encode(
          `<worksheet><sheetData><row><c t="inlineStr"><is><t>id</t></is></c><c t="inlineStr"><is><t>target</t></is></c></row>${cells}</sheetData></worksheet>`,
        ),
      });
    const read = await readBytes(
      'back.xlsx',
      sheet('<row><c t="inlineStr"><is><t>p3</t></is></c><c t="str"><f>HYPERLINK("http://x")</f><v>Offen?</v></c></row>'),
    );
    expect(read.segments.map((s) => readable(s.target!))).toEqual(['Offen?']);
    expect(read.passedOver[0]).toContain('formula');
  });

  test('a text that a spreadsheet program would run goes out so that none does', async () => {
    const folio = codedFolio(['=cmd|x!A1', "'=already", '@sum and -1 more']);
    const { bytes } = await textsOf(asSample(folio), 'csv', { target: 'de', targets: 'copies' });
    const text = new TextDecoder().decode(bytes);
    expect(text.split(/[\r\n,]+/).filter((cell) => /^"?[=@]/.test(cell))).toEqual([]);
    expect((await readBytes('texts.de.csv', bytes)).segments.map((s) => readable(s.target!))).toEqual([
      'Tiny',
      '=cmd|x!A1',
      "'=already",
      '@sum and -1 more',
    ]);
  });
});
