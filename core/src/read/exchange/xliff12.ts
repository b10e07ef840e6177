import type { TextPart } from '../../folio/edition.ts';
import { emptyInbound } from '../../language/exchange.ts';
import type { Inbound } from '../../language/exchange.ts';
import { stateOf } from '../../language/states.ts';
import { unitOfSegment } from '../../language/unit.ts';
import { readerOfText } from './exchangeReader.ts';
import { inlineParts } from './inlineParts.ts';
import { childNode, childNodes, passedOver, textIn, walkXml } from '../../packages/walkXml.ts';
import type { XmlNode } from '../../packages/walkXml.ts';

/** XLIFF 1.2, as tools for translators write it. */
export const xliff12Reader = readerOfText(
  {
    id: 'xliff-1.2',
    extensions: ['.xlf', '.xliff'],
    isOfThis: (beginning) => /<xliff[^>]*\sversion\s*=\s*["']1\./.test(beginning),
  },
  readXliff12,
);

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
  for (const one of passedOver(instructions)) out.passedOver.push(one);
  return out;
}

/** Words, codes (section 2.4), and marks around words, which are passed over. */
const partsOf = (node: XmlNode): TextPart[] =>
  inlineParts(node, ({ name, attributes: { id = '', rid, ctype } }) => {
    const code = Number(/\d+/.exec(rid ?? id)?.[0] ?? NaN);
    switch (name) {
      case 'g':
        return { is: 'pair', code };
      case 'x':
      case 'ph':
      case 'it':
        return ctype === 'lb' ? { is: 'wrap' } : { is: 'code', code };
      case 'bpt':
      case 'bx':
        return { is: 'open', code };
      case 'ept':
      case 'ex':
        return { is: 'close', code };
      case 'mrk':
      case 'sub':
        return { is: 'around' };
      default:
        return null;
    }
  });
