import type { Origin } from '../../ports/origin.ts';
import { unzip } from '../../packages/unzip.ts';
import { childrenOf, readXml } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

/** A source of OpenDocument, opened once more for going on from it. */
export interface OriginalParts {
  content: XmlElement;
  /** The same tree as `content` in a flat file. */
  styles: XmlElement;
  /** Files beside its XML, by their paths. */
  files: ReadonlyMap<string, Uint8Array>;
  /** What its manifest says that files and folders are. */
  mediaTypes: ReadonlyMap<string, string>;
}

/** The parts of a document’s source; null where it is of another format. */
export async function originalParts({ format, ending, bytes }: Origin): Promise<OriginalParts | null> {
  if (format !== 'odf') return null;
  const source = await bytes();
  if (ending.startsWith('.f')) {
    const root = readXml(new TextDecoder().decode(source), 'the original');
    return { content: root, styles: root, files: new Map(), mediaTypes: new Map() };
  }
  const files = await unzip(source);
  const part = (path: string): XmlElement | null => (files.has(path) ? readXml(new TextDecoder().decode(files.get(path)), path) : null);
  const [content, styles, manifest] = ['content.xml', 'styles.xml', 'META-INF/manifest.xml'].map(part);
  if (!content) return null;
  const entries = childrenOf(manifest ?? undefined, 'manifest:file-entry').map((e) => e.attributes);
  return {
    content,
    styles: styles ?? content,
    files,
    mediaTypes: new Map(entries.map((a) => [a['manifest:full-path'] ?? '', a['manifest:media-type'] ?? ''])),
  };
}

/** The element at a path of indexes from the root down; nothing where the source has none there. */
export function elementAt(root: XmlElement, path: string): XmlElement | undefined {
  let at: XmlElement | undefined = root;
  for (const index of path.split('/').filter(Boolean)) at = childrenOf(at)[Number(index)];
  return at;
}
