import type { TextPart } from '../../folio/edition.ts';
import { emptyInbound } from '../../language/exchange.ts';
import type { Inbound } from '../../language/exchange.ts';
import { joined } from '../../language/parts.ts';
import { stateOf } from '../../language/states.ts';
import { textOfFile, unitOfSegment } from './exchangeReader.ts';
import type { ExchangeReader } from './exchangeReader.ts';
import { childNode, childNodes, passedOver, textIn, walkXml } from './walkXml.ts';
import type { XmlNode } from './walkXml.ts';

/** XLIFF 1.2, as tools for translators write it. */
export const xliff12Reader: ExchangeReader = {
  id: 'xliff-1.2',
  extensions: ['.xlf', '.xliff'],
  isOfThis: (beginning) => /<xliff[^>]*\sversion\s*=\s*["']1\./.test(beginning),
  async read(file, limits) {
    return readXliff12(await textOfFile(file, limits));
  },
};

function readXliff12(text: string): Inbound {
  const out = emptyInbound();
  const { instructions } = walkXml(text, 'The XLIFF file', {
    whole: new Set(['trans-unit', 'header']),
    opened(name, attributes) {
      if (name !== 'file') return;
      out.document ??= attributes['original'] ?? null;
      out.source ??= attributes['source-language'] ?? null;
      out.target ??= attributes['target-language'] ?? null;
    },
    taken(node) {
      if (node.name === 'header') return;
      const id = node.attributes['id'] ?? '';
      const target = childNode(node, 'target');
      const source = childNode(node, 'source');
      const said = target ? partsOf(target) : [];
      const { approved, translate } = node.attributes;
      out.segments.push({
        ...unitOfSegment(id),
        ...{ source: source ? partsOf(source) : null, target: said.length ? said : null },
        state: stateOf(target?.attributes['state'], { approved, translate }),
        // Ours say where a text stands; others are by people.
        comments: childNodes(node, 'note')
          .filter((n) => n.attributes['from'] !== 'designer')
          .map(textIn),
      });
    },
  });
  out.passedOver.push(...passedOver(instructions));
  return out;
}

/** What stands in a source or target: words, codes (section 2.4), and marks around words, which are passed over. */
function partsOf(node: XmlNode): TextPart[] {
  const out: TextPart[] = [];
  const walk = (children: XmlNode['children']): void => {
    for (const child of children) {
      if (typeof child === 'string') {
        out.push({ type: 'text', text: child });
        continue;
      }
      const { id = '', rid, ctype } = child.attributes;
      const n = Number(/\d+/.exec(rid ?? id)?.[0] ?? NaN);
      switch (child.name) {
        case 'g':
          if (!(n > 0)) walk(child.children);
          else {
            out.push({ type: 'open', code: n });
            walk(child.children);
            out.push({ type: 'close', code: n });
          }
          break;
        case 'x':
        case 'ph':
        case 'it':
          if (ctype === 'lb') out.push({ type: 'wrap' });
          else if (n > 0) out.push({ type: 'code', code: n });
          break;
        case 'bpt':
        case 'bx':
          if (n > 0) out.push({ type: 'open', code: n });
          break;
        case 'ept':
        case 'ex':
          if (n > 0) out.push({ type: 'close', code: n });
          break;
        case 'mrk':
        case 'sub':
          walk(child.children);
          break;
      }
    }
  };
  walk(node.children);
  return joined(out);
}
