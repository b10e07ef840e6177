import type { TextPart } from '../../folio/edition.ts';
import { joined } from '../../language/parts.ts';
import type { XmlNode } from '../../packages/walkXml.ts';

/** What an element in a text is: a code of some kind, the mark of a line’s end, words, or something around words that is passed over. */
type InlineRole =
  { is: 'pair' | 'code' | 'open' | 'close'; code: number } | { is: 'wrap' } | { is: 'around' } | { is: 'text'; text: string } | null;

/** What stands in a text of XML, by what its format says of each element; a code without a number is none. */
export function inlineParts(node: XmlNode, roleOf: (child: XmlNode) => InlineRole): TextPart[] {
  const partsIn = (children: XmlNode['children']): TextPart[] =>
    children.flatMap((child): TextPart[] => {
      if (typeof child === 'string') return [{ type: 'text', text: child }];
      const role = roleOf(child);
      if (!role) return [];
      if (role.is === 'around') return partsIn(child.children);
      if (role.is === 'wrap') return [{ type: 'wrap' }];
      if (role.is === 'text') return [{ type: 'text', text: role.text }];
      const { is, code } = role;
      const isNumbered = Number.isInteger(code) && code > 0;
      if (is !== 'pair') return isNumbered ? [{ type: is, code }] : [];
      const inside = partsIn(child.children);
      return isNumbered ? [{ type: 'open', code }, ...inside, { type: 'close', code }] : inside;
    });
  return joined(partsIn(node.children));
}
