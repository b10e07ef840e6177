import { describe, expect, test } from '@jest/globals';
import { sample } from '../support/samples.ts';
import { textsOf } from './support/exchanged.ts';
import { broken, XLIFF_12, XLIFF_21 } from './support/xliffRules.ts';

const unit21 = (inside: string, more = 'id="u"'): string => `<unit ${more}>${inside}</unit>`;
const seg = (source: string, target = '', more = 'id="s1"'): string => `<segment ${more}><source>${source}</source>${target}</segment>`;
const file21 = (inside: string, file = '<file id="f">', root = 'version="2.1" srcLang="en" trgLang="de"'): string =>
  `<xliff xmlns="urn:oasis:names:tc:xliff:document:2.0" xmlns:slr="urn:oasis:names:tc:xliff:sizerestriction:2.0" xmlns:mda="urn:oasis:names:tc:xliff:metadata:2.0" ${root}>${file}${inside}</file></xliff>`;

/** For each rule of XLIFF 2.1 a file that breaks it, and nothing else. */
const BROKEN_21: string[] = [
  file21(unit21(seg('a')), undefined, 'version="2.0" srcLang="en"'),
  file21(unit21(seg('a', '<target>b</target>')), undefined, 'version="2.1" srcLang="en"'),
  file21('', '<file id="f"><notes><note>x</note></notes>'),
  file21(`<skeleton href="a">x</skeleton>${unit21(seg('a'))}`),
  file21(unit21('<notes><note>x</note></notes>')),
  file21(unit21(`${seg('a')}<notes><note>x</note></notes>`)),
  file21(unit21('<segment><target>b</target></segment>')),
  file21(unit21(seg('a'), 'id="a b"')),
  file21(unit21(seg('a')) + unit21(seg('b'))),
  file21(unit21(seg('a') + seg('b'))),
  file21(unit21(seg('<ph id="1"/>') + seg('<ph id="1"/>', '', 'id="s2"'))),
  file21(unit21(`<notes><note id="a">x</note><note id="a">y</note></notes>${seg('a')}`)),
  file21(unit21(seg('a', '', 'id="s1" state="final"'))),
  file21(unit21(seg('a', '<target>b</target>', 'id="s1" state="done"'))),
  file21(unit21(seg('a', '', 'id="s1" subState="x:y"'))),
  file21(unit21(seg('<ph id="1" subType="my:x"/>'))),
  file21(unit21(seg('<ph id="1" type="other" subType="xlf:lb"/>'))),
  file21(unit21(seg('<ph id="1" type="picture"/>'))),
  file21(unit21(seg('<ec startRef="1"/>'))),
  file21(unit21(seg('<sc id="1"/>'))),
  file21(unit21(seg('a<ph id="1" canDelete="no"/>', '<target>b</target>'))),
  file21(unit21(seg('a'), 'id="u" slr:sizeRestriction="9"')),
  file21(`<mda:metadata><mda:meta type="a">b</mda:meta></mda:metadata>${unit21(seg('a'))}`),
];

const tu = (inside: string, more = 'id="1"'): string => `<trans-unit ${more}>${inside}</trans-unit>`;
const file12 = (body: string, file = 'original="a" source-language="en" datatype="xml"', header = '', root = 'version="1.2"'): string =>
  `<xliff xmlns="urn:oasis:names:tc:xliff:document:1.2" ${root}><file ${file}>${header}<body>${body}</body></file></xliff>`;

const BROKEN_12: string[] = [
  file12(tu('<source>a</source>'), undefined, '', 'version="1.1"'),
  file12(tu('<source>a</source>'), 'original="a" source-language="en"'),
  file12(tu('<source>a</source>'), undefined, '<header/><header/>'),
  file12(tu('<source>a</source>'), undefined, '<header><note>a</note><skl/></header>'),
  file12(tu('<source>a</source>') + tu('<source>b</source>')),
  file12(tu('<target>b</target><source>a</source>')),
  file12(tu('<source>a</source><target state="done">b</target>')),
  file12(tu('<source>a</source>', 'id="1" maxwidth="9"')),
  file12(tu('<source><x id="1" ctype="lineBreak"/></source>')),
  file12(tu('<source><x id="1"/><g id="1">a</g></source>')),
  file12(tu('<source><bpt id="1" rid="1"/>a</source>')),
  file12(tu('<source>a</source>'), 'original="a" source-language="en" datatype="xml" tool-id="t"'),
];

describe.each([
  ['XLIFF 2.1', XLIFF_21, BROKEN_21],
  ['XLIFF 1.2', XLIFF_12, BROKEN_12],
] as const)('the rules of %s', (_, rules, files) => {
  test.each(rules.map((rule, i) => [rule.section, rule.says, files[i]!] as const))('%s: %s', (section, says, file) =>
    expect(broken(file, rules)).toContain(`${section}: ${says}`),
  );
  test('there is a file for each, and most break it alone', () => {
    expect(files).toHaveLength(rules.length);
    expect(files.filter((f) => broken(f, rules).length === 1).length).toBeGreaterThan(rules.length * 0.6);
  });
});

describe.each(['marrowby-almanac', 'observers-handbook'] as const)('%s keeps them', (id) => {
  test.each([
    ['xliff-2.1', { target: 'de', cut: 'sentences', targets: 'copies' }, XLIFF_21],
    ['xliff-2.1', { target: 'de', hiddenLayers: 'in', linkTargets: 'in' }, XLIFF_21],
    ['xliff-1.2', { target: 'de', cut: 'sentences', targets: 'copies' }, XLIFF_12],
    ['xliff-1.2', { target: 'de', hiddenLayers: 'in', linkTargets: 'in' }, XLIFF_12],
  ] as const)('%s with %j', async (format, settings, rules) => {
    const { bytes } = await textsOf(await sample(id), format, settings);
    expect(broken(new TextDecoder().decode(bytes), rules)).toEqual([]);
  });
});
