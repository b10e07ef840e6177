import { OBJECT } from '../../folio/text.ts';

/** An element of any tree of OpenDocument, as far as its words are asked for. */
interface Worded {
  name: string;
  attributes: Record<string, string>;
}

/**
 * The words of a paragraph as programs that show slides have them, those of fields with them: white space folded (part 3, 6.1.2 to
 * 6.1.5), one OBJECT for what is worked out anew. Writing down what was said and reading what is there must agree on this.
 */
export function saidWords<E extends Worded>(around: E, inside: (element: E) => readonly (E | string)[]): string {
  const said = (part: E | string): string => {
    if (typeof part === 'string') return part.replace(/[ \t\r\n]+/g, ' ');
    switch (part.name) {
      case 'text:s':
        return ' '.repeat(Number(part.attributes['text:c'] ?? 1));
      case 'text:tab':
        return '\t';
      case 'text:line-break':
        return '\n';
      case 'text:page-number':
      case 'text:title':
        return OBJECT;
      case 'text:ruby-text':
      case 'office:annotation':
        return '';
      default:
        return saidWords(part, inside);
    }
  };
  return inside(around).map(said).join('');
}
