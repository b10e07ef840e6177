import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { applyEdit, Edition } from '../../src/index.ts';
import type { Folio, Inline, Paragraph } from '../../src/index.ts';
import {
  byConventions,
  fixedTextIn,
  fromReadable,
  inEdition,
  newEdition,
  pseudoTranslation,
  readable,
  unitsFromParagraphs,
  wordsOf,
} from '../../src/language/index.ts';
import { editionsOfBefore } from '../../src/language/index.ts';
import { sample } from '../support/samples.ts';
import { bold, codedFolio, plain, TAB } from './support/codedFolio.ts';

const p1 = (folio: Folio): Paragraph => folio.stories['t']!.blocks['p1'] as Paragraph;
const words = (folio: Folio, id = 'p1'): string =>
  (folio.stories['t']!.blocks[id] as Paragraph).content.map((n) => (n.type === 'span' ? n.text : `<${n.type}>`)).join('');

/** A document with an edition made of paragraphs. */
const translated = (
  folio: Folio,
  texts: Record<string, Inline[]>,
  language = 'de',
  more: Partial<Parameters<typeof Edition.parse>[0] & object> = {},
): Folio => ({
  ...folio,
  editions: {
    ...folio.editions,
    [language]: Edition.parse({ ...newEdition(language), units: unitsFromParagraphs(folio, texts), ...more }),
  },
});

describe('an edition', () => {
  const folio = codedFolio([[plain('Come '), bold('early'), plain(' to '), plain('our pages', { link: 'site' })], 'Second']);
  const german = translated(folio, { p1: [plain('Kommen Sie '), bold('früh'), plain(' zu '), plain('unseren Seiten', { link: 'site' })] });

  test('has its texts in the looks of the source, its language, and everything else as it is', () => {
    const made = inEdition(german, 'de');
    expect(p1(made)).toMatchObject({ style: 'p', character: { language: 'de' } });
    expect(p1(made).content).toEqual([plain('Kommen Sie '), bold('früh'), plain(' zu '), plain('unseren Seiten', { link: 'site' })]);
    expect(made.head.metadata.language).toBe('de');
    expect(made.stories['t']!.blocks['p2']).toBe(folio.stories['t']!.blocks['p2']);
    expect(made.spreads).toBe(german.spreads);
    expect(() => inEdition(german, 'fr')).toThrow('no edition in “fr”');
  });

  test('locked, it does not change, whoever asks', () => {
    const lock = { kind: 'edition.lock' as const, args: { language: 'de', lock: { did: 'locked' as const, by: 'me', at: 'now' } } };
    const locked = applyEdit(german, lock).folio;
    expect(() => applyEdit(locked, { kind: 'edition.units', args: { language: 'de', units: {} } })).toThrow('locked');
    expect(() => applyEdit(locked, { kind: 'edition.settings', args: { language: 'de', name: 'x' } })).toThrow('locked');
  });

  test('a change of the look or the layout reaches it; nothing is lost', () => {
    const changed = produce(german, (d) => {
      const p = d.stories['t']!.blocks['p1']!;
      if (p.kind === 'paragraph') p.content[1] = plain('early', { overrides: { fontWeight: 900, fontStyle: 'italic' } });
      d.spreads['s']!.items['f1']!.transform = [1, 0, 0, 1, 99, 99];
    });
    const made = inEdition(changed, 'de');
    expect(p1(made).content[1]).toEqual(plain('früh', { overrides: { fontWeight: 900, fontStyle: 'italic' } }));
    expect(made.spreads['s']!.items['f1']!.transform[4]).toBe(99);
  });

  test('a source whose words have changed keeps the translation that there is, until there is another', () => {
    const changed = produce(german, (d) => {
      const p = d.stories['t']!.blocks['p1']!;
      if (p.kind === 'paragraph') p.content[0] = plain('Do come ');
    });
    expect(words(inEdition(changed, 'de'))).toBe('Kommen Sie früh zu unseren Seiten');
  });

  test('variants build on their base', () => {
    const both = translated(german, { p2: [plain('Jänner')] }, 'de-AT', { basedOn: 'de' });
    const made = inEdition(both, 'de-AT');
    expect([words(made), words(made, 'p2')]).toEqual(['Kommen Sie früh zu unseren Seiten', 'Jänner']);
    expect(p1(made).character).toEqual({ language: 'de-AT' });
    // Two that are based on each other end where they repeat.
    const round = { ...both, editions: { ...both.editions, de: { ...both.editions['de']!, basedOn: 'de-AT' } } };
    expect(words(inEdition(round, 'de'))).toBe('Kommen Sie früh zu unseren Seiten');
  });

  test('a passage in a third language stays in it; one in the language of the source does not', () => {
    const f = codedFolio([
      [
        plain('Say '),
        plain('bonjour', { overrides: { language: 'fr' } }),
        plain(' or '),
        plain('hello', { overrides: { language: 'en-GB', fontWeight: 700 } }),
      ],
    ]);
    const made = inEdition(
      translated(f, {
        p1: [
          plain('Sagt '),
          plain('bonjour', { overrides: { language: 'fr' } }),
          plain(' oder '),
          plain('hallo', { overrides: { language: 'en-GB', fontWeight: 700 } }),
        ],
      }),
      'de',
    );
    expect(p1(made).content.map((n) => (n.type === 'span' ? n.overrides : null))).toEqual([
      undefined,
      { language: 'fr' },
      undefined,
      { fontWeight: 700 },
    ]);
  });

  test('languages that are written from the right turn their paragraphs', () => {
    const made = inEdition(translated(folio, { p2: [plain('שני')] }, 'he'), 'he');
    expect((made.stories['t']!.blocks['p2'] as Paragraph).overrides).toEqual({ direction: 'rtl', align: 'right' });
  });

  test('titles, alt texts, form fields, links and cues have their words', async () => {
    const { folio: almanac } = await sample('marrowby-almanac');
    const one = (text: string) => ({
      segments: [{ source: fromReadable(text), target: fromReadable(`»${text}«`), state: 'translated' as const }],
      codes: {},
    });
    const [cover] = Object.values(almanac.spreads)
      .flatMap((s) => Object.values(s.items))
      .filter((i) => i.id === 'cover-picture');
    const units = { 'meta:title': one(almanac.head.metadata.title), 'alt:cover-picture': one(cover!.alt!) };
    const made = inEdition({ ...almanac, editions: { fr: Edition.parse({ language: 'fr', units }) } }, 'fr');
    expect(made.head.metadata.title).toBe('»The Marrowby Almanac«');
    expect(
      Object.values(made.spreads)
        .flatMap((s) => Object.values(s.items))
        .find((i) => i.id === 'cover-picture')!.alt,
    ).toBe(`»${cover!.alt!}«`);
  });
});

describe('what is otherwise in one language', () => {
  const folio = codedFolio([
    [plain('One '), plain('slanted', { overrides: { fontStyle: 'italic' } }), plain(' word'), plain(' link', { link: 'site' })],
  ]);
  const overrides = (o: object): Folio =>
    inEdition(
      translated(
        folio,
        { p1: [plain('Ein '), plain('Wort', { overrides: { fontStyle: 'italic' } }), plain(' und'), plain(' Link', { link: 'site' })] },
        'de',
        { overrides: o } as never,
      ),
      'de',
    );

  test('typefaces, with their size beside those they stand in for', () => {
    const made = overrides({ fonts: { 'Work Sans': { family: 'Arimo', scale: 0.9 } } });
    expect(made.head.paragraphStyles['p']!.character).toMatchObject({ fontFamily: 'Arimo', size: 9 });
  });
  test('slanted letters become bold ones where a script has none', () => {
    expect(p1(overrides({ italics: 'bold' })).content[1]).toEqual(plain('Wort', { overrides: { fontStyle: 'normal', fontWeight: 700 } }));
    expect(p1(overrides({ italics: 'upright' })).content[1]).toEqual(plain('Wort', { overrides: { fontStyle: 'normal' } }));
  });
  test('styles and links', () => {
    const made = overrides({
      paragraphStyles: { p: { character: { tracking: -5 }, paragraph: { align: 'right' } } },
      links: { 't/site': 'https://marrowby.example/de' },
    });
    expect(made.head.paragraphStyles['p']).toMatchObject({ character: { tracking: -5 }, paragraph: { align: 'right' } });
    expect(made.stories['t']!.links['site']!.destination).toMatchObject({ to: 'address', href: 'https://marrowby.example/de' });
  });
  test('texts that are set tighter, each by so much; the layout is as it was', () => {
    const made = overrides({ tightened: { t: { tracking: -10, wordSpace: 0.9, size: 0.95, leading: 0.9 } } });
    expect(p1(made).character).toMatchObject({ size: 9.5, tracking: -10 });
    expect(p1(made).character!.leading).toBeCloseTo(10.8, 9);
    expect(p1(made).overrides!.wordSpace!.ideal).toBe(0.9);
    expect(folio.head.paragraphStyles['p']!.character).toMatchObject({ size: 10, leading: 12 });
  });
});

describe('lists, numbers and marks by language', () => {
  test('alphabetical lists are sorted anew (UTS 10), what follows an entry goes with it', () => {
    const folio = codedFolio(['Words', 'Zenith', 'the point above', 'Ångström', 'a length', 'Orbit', 'a path', 'After'], (d) => {
      d.head.structure.alphabetical = { words: { story: 't', entries: ['p2', 'p4', 'p6'] } };
    });
    const order = (language: string): string[] => inEdition(translated(folio, {}, language), language).stories['t']!.order;
    // In German Å is an A with a mark; in Swedish it comes after Z.
    expect(order('de')).toEqual(['p1', 'p4', 'p5', 'p6', 'p7', 'p2', 'p3', 'p8']);
    expect(order('sv')).toEqual(['p1', 'p6', 'p7', 'p2', 'p3', 'p4', 'p5', 'p8']);
  });

  test('words before automatic numbers are taken from a table, not translated', () => {
    expect([
      fixedTextIn('Figure {n}', 'en', 'de'),
      fixedTextIn('Chapter {1}.{n}', 'en', 'fr'),
      fixedTextIn('Fig. {n}:', 'en', 'de'),
    ]).toEqual(['Abbildung {n}', 'Chapitre {1}.{n}', 'Abb. {n}:']);
    expect(fixedTextIn('Figurehead {n}', 'en', 'de')).toBe('Figurehead {n}');
    const folio = codedFolio(['A'], (d) => {
      d.head.listStyles['l'] = {
        id: 'l',
        name: 'Figures',
        levels: [{ kind: 'number', text: 'Figure {n}', texts: { ja: '図版{n}' }, format: 'decimal', indent: 0 }],
      };
    });
    const texts = (language: string): string | undefined =>
      inEdition(translated(folio, {}, language), language).head.listStyles['l']!.levels[0]!.texts[language];
    expect([texts('de'), texts('ja')]).toEqual(['Abbildung {n}', '図版{n}']);
  });

  test.each([
    // CLDR: German „…“, French « … » with narrow no-break spaces, Japanese 「…」.
    ['Er sagt “ja” und "nein".', 'de', 'Er sagt „ja“ und „nein“.'],
    ['Il dit “oui”.', 'fr', 'Il dit «\u202Foui\u202F».'],
    ['「はい」と“いいえ”', 'ja', '「はい」と「いいえ」'],
    ['It’s 3.5 °C', 'de', 'It’s 3,5 °C'],
    ['um 19.30.15 und 1.2.3', 'de', 'um 19.30.15 und 1.2.3'],
  ])('%s in %s', (text, language, expected) => {
    expect(wordsOf(byConventions([{ type: 'text', text }], { quotes: true, decimals: true }, 'en', language))).toBe(expected);
    expect(wordsOf(byConventions([{ type: 'text', text }], { quotes: false, decimals: false }, 'en', language))).toBe(text);
  });

  test('a pseudo-translation is longer, keeps codes and numbers, and can be read', () => {
    const source = fromReadable('Come {1}early{/1}{wrap}at 7.30{2/}');
    expect(readable(pseudoTranslation(source, 'de'))).toMatch(/^Čömë+ \{1\}ë+á+rlÿ\{\/1\}\{wrap\}á+t 7\.30\{2\/\}$/);
    expect(wordsOf(pseudoTranslation(source, 'de')).length).toBeGreaterThan(wordsOf(source).length * 1.2);
    expect(readable(pseudoTranslation(fromReadable('Look up'), 'ja'))).toMatch(/^[ア-ン]+$/);
  });
});

test('documents with editions of before are read as of today', () => {
  const folio = codedFolio([[plain('A '), bold('b'), TAB, plain('c')]]);
  const old = { de: { language: 'de', name: 'German', targets: { p1: [plain('Ein '), bold('B'), TAB, plain('C')] }, overrides: {} } };
  const editions = editionsOfBefore(folio, old);
  expect(editions['de']!.name).toBe('German');
  expect(words(inEdition({ ...folio, editions }, 'de'))).toBe('Ein B<tab>C');
  expect(editionsOfBefore(folio, editions)).toEqual({});
});
