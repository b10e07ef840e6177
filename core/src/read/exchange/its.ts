import type { TextPart } from '../../folio/edition.ts';
import { emptyInbound } from '../../language/exchange.ts';
import type { Inbound } from '../../language/exchange.ts';
import { stateOf } from '../../language/states.ts';
import { FolioError } from '../../ports/ports.ts';
import { unitOfSegment } from '../../language/unit.ts';
import { readerOfText } from './exchangeReader.ts';
import { inlineParts } from './inlineParts.ts';
import { childNode, childNodes, passedOver, textIn, walkXml } from '../../packages/walkXml.ts';
import type { XmlNode } from '../../packages/walkXml.ts';

/** Our plain XML with rules of ITS 2.0. */
export const xmlReader = readerOfText(
  {
    id: 'xml',
    extensions: ['.xml'],
  },
  readTexts,
);

function readTexts(text: string): Inbound {
  const out = emptyInbound();
  let isTexts = false;
  const { instructions } = walkXml(text, 'The XML file', {
    whole: new Set(['text', 'rules']),
    opened(name, attributes, depth) {
      if (name !== 'texts' || depth) return;
      isTexts = true;
      out.document = attributes['document'] ?? null;
      out.source = attributes['source'] ?? null;
      out.target = attributes['target'] ?? null;
    },
    taken(node) {
      if (node.name === 'rules') return;
      const [source, target] = ['source', 'target'].map((n) => childNode(node, n));
      const said = target ? partsOf(target) : [];
      out.segments.push({
        ...unitOfSegment(node.attributes['id'] ?? ''),
        source: source ? partsOf(source) : null,
        target: said.length ? said : null,
        state: stateOf(node.attributes['state']),
        comments: childNodes(node, 'comment').map(textIn),
      });
    },
  });
  if (!isTexts)
    throw new FolioError(
      'exchange.kind',
      'The file is XML, and none of the texts that went out.',
      'Choose the file that the translator sent back.',
    );
  for (const one of passedOver(instructions)) out.passedOver.push(one);
  return out;
}

const partsOf = (node: XmlNode): TextPart[] =>
  inlineParts(node, ({ name, attributes: { n, at } }) => {
    if (name === 'wrap') return { is: 'wrap' };
    if (name === 'pair') return { is: 'pair', code: Number(n) };
    if (name !== 'code') return { is: 'around' };
    return { is: at === 'start' ? 'open' : at === 'end' ? 'close' : 'code', code: Number(n) };
  });
