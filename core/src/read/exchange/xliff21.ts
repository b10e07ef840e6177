import type { TextPart } from '../../folio/edition.ts';
import { emptyInbound } from '../../language/exchange.ts';
import type { Inbound, InboundSegment } from '../../language/exchange.ts';
import { joined } from '../../language/parts.ts';
import { stateOf } from '../../language/states.ts';
import { FolioError } from '../../ports/ports.ts';
import { readerOfText } from './exchangeReader.ts';
import { inlineParts } from './inlineParts.ts';
import { childNode, childNodes, passedOver, textIn, walkXml } from '../../packages/walkXml.ts';
import type { XmlNode } from '../../packages/walkXml.ts';

/** XLIFF 2.0 and 2.1. */
export const xliff21Reader = readerOfText(
  {
    id: 'xliff-2.1',
    extensions: ['.xlf', '.xliff'],
    isOfThis: (beginning) => /<xliff[^>]*\sversion\s*=\s*["']2\./.test(beginning),
  },
  readXliff21,
);

function readXliff21(text: string): Inbound {
  const out = emptyInbound();
  const { instructions } = walkXml(text, 'The XLIFF file', {
    whole: new Set(['unit']),
    opened(name, attributes) {
      if (name === 'xliff') {
        out.source = attributes['srcLang'] ?? null;
        out.target = attributes['trgLang'] ?? null;
      }
      if (name === 'file') out.document ??= attributes['original'] ?? null;
    },
    taken: (unit) => {
      for (const one of segmentsOf(unit)) out.segments.push(one);
    },
  });
  for (const one of passedOver(instructions)) out.passedOver.push(one);
  return out;
}

/** The segments of a unit, in the order of their targets’ text; what stands between two of them goes with the first. */
function segmentsOf(unit: XmlNode): InboundSegment[] {
  const id = unit.attributes['id'] ?? '';
  const { translate } = unit.attributes;
  const wraps = new Set<string>();
  const comments = childNodes(childNode(unit, 'notes'), 'note')
    .filter((n) => n.attributes['category'] !== 'place')
    .map(textIn);
  const segments: InboundSegment[] = [];
  let before: TextPart[] = [];
  for (const child of childNodes(unit)) {
    if (child.name !== 'segment' && child.name !== 'ignorable') continue;
    const [source, target] = ['source', 'target'].map((n) => childNode(child, n));
    if (target?.attributes['order'] !== undefined && Number(target.attributes['order']) !== segments.length + 1 && child.name === 'segment')
      throw new FolioError(
        'exchange.order',
        `The segments of “${id}” are in another order than in the document.`,
        'Ask for a file whose segments stand in the order of their sources.',
      );
    const parts = source ? partsOf(source, wraps) : [];
    if (child.name === 'ignorable') {
      const last = segments[segments.length - 1];
      if (last) last.glue = joined([...(last.glue ?? []), ...parts]);
      else before = joined([...before, ...parts]);
      continue;
    }
    const said = target ? partsOf(target, wraps) : [];
    segments.push({
      unit: id,
      at: segments.length,
      source: parts,
      target: said.length ? said : null,
      state: stateOf(child.attributes['state'], { translate }),
      comments: segments.length ? [] : comments,
      ...(!segments.length && before.length && { before }),
    });
  }
  return segments;
}

/** Words, codes (section 4.7), and marks around words, which are passed over. `wraps`: ids of wrap marks of the unit. */
const partsOf = (node: XmlNode, wraps: Set<string>): TextPart[] =>
  inlineParts(node, ({ name, attributes: { id = '', startRef, subType, hex } }) => {
    const code = Number(/^\d+$/.exec(startRef ?? id)?.[0] ?? NaN);
    switch (name) {
      case 'pc':
        return { is: 'pair', code };
      case 'ph':
        if (subType !== 'xlf:lb' && !wraps.has(id)) return { is: 'code', code };
        wraps.add(id);
        return { is: 'wrap' };
      case 'sc':
        return { is: 'open', code };
      case 'ec':
        return { is: 'close', code };
      case 'mrk':
        return { is: 'around' };
      case 'cp':
        // A sign that XML cannot hold (4.2.3.1): it is brought on, and told as one that no text may hold.
        return /^[0-9A-Fa-f]{1,6}$/.test(hex ?? '')
          ? { is: 'text', text: String.fromCodePoint(Math.min(parseInt(hex!, 16), 0x10ffff)) }
          : null;
      default:
        return null;
    }
  });
