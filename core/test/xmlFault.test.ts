import { describe, expect, test } from '@jest/globals';
import { readXml } from '../src/packages/xmlTree.ts';

/** What is not well-formed by XML 1.0 (fifth edition), one rule each. */
const BROKEN: readonly [rule: string, xml: string, says: RegExp][] = [
  ['4.1 entity declared', '<a>&b;</a>', /names an entity that it does not define/],
  ['4.1 reference', '<a>&;</a>', /an entity is written wrongly/],
  ['3 element type match', '<a><b></a>', /not closed where it should be/],
  ['3.1 no end', '<a><b>', /not closed where it should be/],
  ['3.1 unique attributes', '<a b="1" b="2"/>', /an attribute is there twice/],
  ['3.1 attribute value', '<a b=1/>', /an attribute is written wrongly/],
  ['2.1 one root', '<a/><b/>', /outside its outermost element/],
  ['2.1 nothing there', '', /ends too early/],
  ['2.2 characters', '<a>\u0001</a>', /a character that XML does not allow there/],
  ['2.5 comments', '<a><!-- a -- b --></a>', /a comment or an instruction/],
  ['2.8 declaration', '<?xml encoding="UTF-8"?><a/>', /its declaration is wrong/],
];

describe('XML that cannot be read', () => {
  test.each(BROKEN)('%s: is said in plain words', (_, xml, says) => {
    expect(() => readXml(xml, 'content.xml')).toThrow(says);
    expect(() => readXml(xml, 'content.xml')).not.toThrow(/undefined|unexpected|disallowed|malformed|\bnull\b/);
  });
});
