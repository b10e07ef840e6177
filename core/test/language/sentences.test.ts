import { describe, expect, test } from '@jest/globals';
import { readSrx, sentenceBreaks, SHIPPED_SRX, shippedRules } from '../../src/language/index.ts';

/** A text with `|` where sentences are parted, before the white space. */
const parted = (text: string, language: string, rules = shippedRules()): string => {
  const breaks = new Set(sentenceBreaks(text, language, rules));
  return [...text].map((c, i) => (breaks.has(i) ? `|${c}` : c)).join('');
};

describe('sentences by the shipped rules (SRX 2.0)', () => {
  test.each([
    ['en', 'The dome turns. It ticks.'],
    ['en', 'Dr. Lark came at 7 p.m. sharp.'],
    ['en', 'See Fig. 3. It shows the slit.'],
    ['en', 'It weighs 3.5 tons. That is much.'],
    ['en', 'Really?! Yes. “No.” And so on … and on.'],
    ['en', 'J. R. Lark wrote it. Then he left.'],
    ['en', 'Bring gloves, e.g. woollen ones. Or none.'],
    ['de', 'Am 6. März um sieben. Danach Tee.'],
    ['de', 'Das kostet z. B. nichts. Sie kommen ca. um acht.'],
    ['de', 'Siehe Abb. 3. Dort ist sie.'],
    ['fr', 'M. Lark est là. Il attend, p. ex. dehors.'],
    ['es', 'El Sr. Lark llega. ¿Quién? Él.'],
    ['it', 'Il Sig. Lark arriva. Ecco.'],
    ['ja', '空を見る。「星だ。」と言う。終わり'],
    ['zh', '看天空。真的吗？是的。'],
  ])('%s: %s', (language, text) => {
    const expected: Record<string, string> = {
      'The dome turns. It ticks.': 'The dome turns.| It ticks.',
      'Dr. Lark came at 7 p.m. sharp.': 'Dr. Lark came at 7 p.m. sharp.',
      'See Fig. 3. It shows the slit.': 'See Fig. 3.| It shows the slit.',
      'It weighs 3.5 tons. That is much.': 'It weighs 3.5 tons.| That is much.',
      'Really?! Yes. “No.” And so on … and on.': 'Really?!| Yes.| “No.”| And so on … and on.',
      'J. R. Lark wrote it. Then he left.': 'J. R. Lark wrote it.| Then he left.',
      'Bring gloves, e.g. woollen ones. Or none.': 'Bring gloves, e.g. woollen ones.| Or none.',
      'Am 6. März um sieben. Danach Tee.': 'Am 6. März um sieben.| Danach Tee.',
      'Das kostet z. B. nichts. Sie kommen ca. um acht.': 'Das kostet z. B. nichts.| Sie kommen ca. um acht.',
      // A number with a stop is an ordinal in German; a sentence that ends with one stays with the next.
      'Siehe Abb. 3. Dort ist sie.': 'Siehe Abb. 3. Dort ist sie.',
      'M. Lark est là. Il attend, p. ex. dehors.': 'M. Lark est là.| Il attend, p. ex. dehors.',
      'El Sr. Lark llega. ¿Quién? Él.': 'El Sr. Lark llega.| ¿Quién?| Él.',
      'Il Sig. Lark arriva. Ecco.': 'Il Sig. Lark arriva.| Ecco.',
      '空を見る。「星だ。」と言う。終わり': '空を見る。|「星だ。」|と言う。|終わり',
      '看天空。真的吗？是的。': '看天空。|真的吗？|是的。',
    };
    expect(parted(text, language)).toBe(expected[text]);
  });
});

const srx = (rules: string, maps: string, cascade = 'no'): string =>
  `<srx xmlns="http://www.lisa.org/srx20" version="2.0"><header segmentsubflows="yes" cascade="${cascade}"/><body><languagerules>${rules}</languagerules><maprules>${maps}</maprules></body></srx>`;
const rule = (breaks: string, before: string, after: string): string =>
  `<rule break="${breaks}"><beforebreak>${before}</beforebreak><afterbreak>${after}</afterbreak></rule>`;

describe('a file of rules (SRX 2.0)', () => {
  // The order of rules decides, as the standard's own example of exceptions before breaks says (section on `rule`).
  test('the first rule that fits a place decides', () => {
    const exceptions = rule('no', '\\betc\\.', '\\s');
    const stops = rule('yes', '\\.', '\\s');
    const map = '<languagemap languagepattern=".*" languagerulename="a"/>';
    expect(
      parted('One etc. Two. Three', 'en', readSrx(srx(`<languagerule languagerulename="a">${exceptions}${stops}</languagerule>`, map))),
    ).toBe('One etc. Two.| Three');
    expect(
      parted('One etc. Two. Three', 'en', readSrx(srx(`<languagerule languagerulename="a">${stops}${exceptions}</languagerule>`, map))),
    ).toBe('One etc.| Two.| Three');
  });

  test('maps are taken in their order; with cascading, all that fit', () => {
    const rules = `<languagerule languagerulename="x">${rule('no', 'Nr\\.', '\\s')}</languagerule><languagerule languagerulename="y">${rule('yes', '\\.', '\\s')}</languagerule>`;
    const maps = '<languagemap languagepattern="de.*" languagerulename="x"/><languagemap languagepattern=".*" languagerulename="y"/>';
    expect(parted('Nr. 1. Da', 'de', readSrx(srx(rules, maps)))).toBe('Nr. 1. Da');
    expect(parted('Nr. 1. Da', 'de', readSrx(srx(rules, maps, 'yes')))).toBe('Nr. 1.| Da');
    expect(parted('Nr. 1. Da', 'en', readSrx(srx(rules, maps, 'yes')))).toBe('Nr.| 1.| Da');
  });

  test('expressions of ICU that JavaScript has otherwise are understood', () => {
    const rules = `<languagerule languagerulename="a">${rule('yes', '\\Q...\\E', '\\h+\\p{Lu}')}</languagerule>`;
    expect(parted('Well... Then. no', 'en', readSrx(srx(rules, '<languagemap languagepattern=".*" languagerulename="a"/>')))).toBe(
      'Well...| Then. no',
    );
  });

  test.each([
    ['an expression that is none', srx(`<languagerule languagerulename="a">${rule('yes', '(', '')}</languagerule>`, '')],
    ['a map that names nothing', srx('', '<languagemap languagepattern=".*" languagerulename="b"/>')],
    ['entities of its own', `<!DOCTYPE srx [<!ENTITY a "b">]>${srx('', '')}`],
    ['another file', '<html/>'],
    ['a broken file', '<srx><body>'],
  ])('%s is refused in words', (_, text) => expect(() => readSrx(text)).toThrow(/rules for sentences cannot be used/));

  test('the shipped rules are such a file', () => expect(readSrx(SHIPPED_SRX).maps.length).toBe(7));
});
