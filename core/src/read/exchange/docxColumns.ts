import { emptyInbound } from '../../language/exchange.ts';
import type { Inbound } from '../../language/exchange.ts';
import { fromReadable } from '../../language/parts.ts';
import { FolioError } from '../../ports/ports.ts';
import { collect, readArchive } from '../../packages/archive.ts';
import type { ArchiveLimits } from '../../packages/limits.ts';
import { unitOfSegment } from '../../language/unit.ts';
import type { ExchangeReader } from './exchangeReader.ts';
import { childNodes, walkXml } from '../../packages/walkXml.ts';
import type { XmlNode } from '../../packages/walkXml.ts';

export const docxColumnsReader: ExchangeReader = { id: 'docx-columns', extensions: ['.docx'], read: readColumns };

/** The document of two columns as a reviewer sends it back: rows of three cells, the first of which begins with a name. */
async function readColumns(file: string, limits: ArchiveLimits): Promise<Inbound> {
  for await (const entry of readArchive(file, limits))
    if (entry.path === 'word/document.xml')
      return columnsOf((await collect(await entry.open(), limits.partBytes, entry.path)).toString('utf8'));
  throw new FolioError('exchange.kind', 'The file is no text document.', 'Choose a file ending in .docx.');
}

function columnsOf(xml: string): Inbound {
  const out = emptyInbound();
  let isFirst = true;
  walkXml(xml, 'The text document', {
    whole: new Set(['p', 'tr']),
    taken(node) {
      if (node.name === 'p') {
        const [, document, source, target] = /document=([^;]*); source=([^;]*); target=([^;]*)$/.exec(textOf(node).trim()) ?? [];
        if (document !== undefined) Object.assign(out, { document, source, target });
        return;
      }
      const cells = childNodes(node, 'tc').map((c) => childNodes(c, 'p').map(textOf));
      if (cells.length < 3) return;
      const id = cells[0]![0]?.trim() ?? '';
      if (isFirst && id === 'id') return void (isFirst = false);
      const [source, target] = [cells[1]!, cells[2]!].map((c) => c.join('\n').trim());
      if (!id) return;
      out.segments.push({
        ...unitOfSegment(id),
        source: source ? fromReadable(source) : null,
        target: target ? fromReadable(target) : null,
        // A reviewer has looked at what comes back.
        state: 'reviewed',
        comments: [],
      });
    },
  });
  return out;
}

/** The words of a paragraph as they stand now: what was struck out with changes tracked is gone (17.13.5.14), what was put in is there. */
function textOf(node: XmlNode): string {
  return childNodes(node)
    .map((child): string => {
      if (child.name === 'del' || child.name === 'moveFrom' || child.name === 'pPr' || child.name === 'rPr') return '';
      if (child.name === 't') return child.children.filter((c) => typeof c === 'string').join('');
      if (child.name === 'br' || child.name === 'cr') return '\n';
      if (child.name === 'tab') return '\t';
      if (child.name === 'noBreakHyphen') return '\u2011';
      if (child.name === 'softHyphen') return '\u00AD';
      return textOf(child);
    })
    .join('');
}
