import type { TextPart } from '../../folio/edition.ts';
import { emptyInbound } from '../../language/exchange.ts';
import type { Inbound } from '../../language/exchange.ts';
import { primary } from '../../language/goesOut.ts';
import type { MemoryUnit } from '../../language/memory.ts';
import { joined } from '../../language/parts.ts';
import { stateOf } from '../../language/states.ts';
import { FolioError } from '../../ports/ports.ts';
import { unitOfSegment } from '../../language/unit.ts';
import { readerOfText } from './exchangeReader.ts';
import { childNode, childNodes, passedOver, textIn, walkXml } from '../../packages/walkXml.ts';
import type { XmlNode } from '../../packages/walkXml.ts';

/** TMX 1.4b as a file of a document’s segments. */
export const tmxReader = readerOfText(
  {
    id: 'tmx',
    extensions: ['.tmx'],
  },
  readTmx,
);

/** Each unit with its languages, one after another. */
function walkTmx(
  text: string,
  taken: (tu: XmlNode, texts: { language: string; seg: XmlNode }[]) => void,
): { srclang: string | null; instructions: number } {
  let srclang: string | null = null;
  let isTmx = false;
  const { instructions } = walkXml(text, 'The memory', {
    whole: new Set(['tu']),
    opened(name, attributes) {
      if (name === 'tmx') isTmx = true;
      if (name === 'header') srclang = attributes['srclang'] ?? null;
    },
    taken: (tu) =>
      taken(
        tu,
        childNodes(tu, 'tuv').flatMap((tuv) => {
          const seg = childNode(tuv, 'seg');
          const language = tuv.attributes['xml:lang'] ?? tuv.attributes['lang'];
          return seg && language !== undefined ? [{ language, seg }] : [];
        }),
      ),
  });
  if (!isTmx) throw new FolioError('exchange.kind', 'The file is no memory in the TMX format.', 'Choose a file ending in .tmx.');
  return { srclang, instructions };
}

function readTmx(text: string): Inbound {
  const out = emptyInbound();
  const { srclang, instructions } = walkTmx(text, (tu, texts) => {
    const [first, second] = texts;
    if (!first || !second) return;
    out.source ??= first.language;
    out.target ??= second.language;
    out.document ??= propOf(tu, 'x-document') ?? null;
    const target = partsOf(second.seg);
    out.segments.push({
      ...unitOfSegment(tu.attributes['tuid'] ?? ''),
      source: partsOf(first.seg),
      target: target.length ? target : null,
      state: stateOf(propOf(tu, 'x-state')),
      comments: [],
    });
  });
  if (srclang !== null && srclang !== '*all*') out.source = srclang;
  for (const one of passedOver(instructions)) out.passedOver.push(one);
  return out;
}

/** What a memory holds from one language into another; what it holds in others is counted. */
export function readMemory(text: string, source: string, target: string): { units: MemoryUnit[]; others: number } {
  const units: MemoryUnit[] = [];
  let others = 0;
  walkTmx(text, (tu, texts) => {
    const find = (language: string) =>
      texts.find((t) => t.language.toLowerCase() === language.toLowerCase()) ??
      texts.find((t) => primary(t.language) === primary(language));
    const [from, to] = [find(source), find(target)];
    const said = from && to && from !== to ? { source: partsOf(from.seg), target: partsOf(to.seg) } : null;
    if (!said?.source.length || !said.target.length) return void others++;
    const at = tu.attributes['changedate'] ?? tu.attributes['creationdate'];
    const by = tu.attributes['changeid'] ?? tu.attributes['creationid'];
    const [before, after, where] = ['x-before', 'x-after', 'x-from'].map((name) => propOf(tu, name));
    units.push({
      ...said,
      ...(before !== undefined && { before }),
      ...(after !== undefined && { after }),
      ...(where !== undefined && { from: where }),
      ...(by !== undefined && { by }),
      ...(at !== undefined &&
        /^\d{8}T\d{6}Z$/.test(at) && { at: at.replace(/^(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z$/, '$1-$2-$3T$4:$5:$6Z') }),
    });
  });
  return { units, others };
}

const propOf = (tu: XmlNode, type: string): string | undefined => {
  const prop = childNodes(tu, 'prop').find((p) => p.attributes['type'] === type);
  return prop && textIn(prop);
};

/** What stands in a segment (TMX 1.4b, “Content Markup”): codes are known by `x`, else by `i`, else by their order. */
function partsOf(seg: XmlNode): TextPart[] {
  const out: TextPart[] = [];
  const open = new Map<string, number>();
  let next = 1000;
  const numberOf = (node: XmlNode): number => {
    const n = Number(node.attributes['x'] ?? node.attributes['i']);
    return Number.isInteger(n) && n > 0 ? n : ++next;
  };
  for (const child of seg.children) {
    if (typeof child === 'string') out.push({ type: 'text', text: child });
    else if (child.name === 'hi') for (const one of partsOf(child)) out.push(one);
    else if (child.name === 'ph' && child.attributes['type'] === 'lb') out.push({ type: 'wrap' });
    else if (child.name === 'ph' || child.name === 'ut') out.push({ type: 'code', code: numberOf(child) });
    else if (child.name === 'it') out.push({ type: child.attributes['pos'] === 'end' ? 'close' : 'open', code: numberOf(child) });
    else if (child.name === 'bpt') {
      const code = numberOf(child);
      open.set(child.attributes['i'] ?? '', code);
      out.push({ type: 'open', code });
    } else if (child.name === 'ept') out.push({ type: 'close', code: open.get(child.attributes['i'] ?? '') ?? numberOf(child) });
  }
  return joined(out);
}
