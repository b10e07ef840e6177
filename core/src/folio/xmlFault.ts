/** What parsers of XML say (saxes), and what people are told instead. The first that fits holds. */
const SAID: readonly [RegExp, string][] = [
  [/undefined entity/, 'it names an entity that it does not define'],
  [/inside one another/, 'elements stand inside one another too deep'],
  [/entity/, 'an entity is written wrongly'],
  [/closing tag|close tag|unclosed tag/, 'an element is not closed where it should be'],
  [/namespace prefix|malformed name/, 'a name has a prefix that nothing declares'],
  [/duplicate attribute/, 'an attribute is there twice'],
  [/outside of root|only one root|before root/, 'something stands outside its outermost element'],
  [/unexpected end|root element/, 'it ends too early'],
  [/XML declaration|must match|expected (one of|the name)|name\/value pairs|doctype/, 'its declaration is wrong'],
  [/comment|processing instruction|CDATA/i, 'a comment or an instruction in it is written wrongly'],
  [/attribute|value|whitespace required/, 'an attribute is written wrongly'],
  [/character/, 'it holds a character that XML does not allow there'],
];

/** Why XML could not be read, in plain words (well-formedness: XML 1.0, fifth edition; names: Namespaces in XML 1.0). */
export const xmlFault = ({ message }: Error): string => SAID.find(([said]) => said.test(message))?.[1] ?? 'it is no well-formed XML';
