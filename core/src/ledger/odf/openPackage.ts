import type { ObservedFlow } from '../flow/observedFlow.ts';
import { childrenOf, readPart } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import { unzip } from '../../packages/unzip.ts';

/** A package of OpenDocument that was opened: its parts, and what is wrong with it as one. */
export interface OpenPackage {
  files: ReadonlyMap<string, Uint8Array>;
  problems: ObservedFlow['problems'];
  content: Node | undefined;
  styles: Node | undefined;
  meta: Node | undefined;
}

/** Opens a package from its bytes alone (part 2). */
export async function openPackage(bytes: Uint8Array): Promise<OpenPackage> {
  const files = await unzip(bytes);
  const problems: ObservedFlow['problems'] = [];
  const part = (path: string): Node | undefined => {
    try {
      return files.has(path) ? readPart(new TextDecoder().decode(files.get(path))) : undefined;
    } catch (error) {
      problems.push({ file: path, says: error instanceof Error ? error.message : 'it is no XML' });
      return undefined;
    }
  };
  const [content, styles, meta, manifest] = ['content.xml', 'styles.xml', 'meta.xml', 'META-INF/manifest.xml'].map(part);
  const listed = new Set(childrenOf(manifest, 'manifest:file-entry').map((e) => e.attributes['manifest:full-path'] ?? ''));
  for (const path of files.keys())
    if (!listed.has(path) && path !== 'mimetype' && !path.startsWith('META-INF/')) problems.push({ file: path, says: 'it is not listed' });
  for (const path of listed)
    if (!path.endsWith('/') && !files.has(path)) problems.push({ file: path, says: 'it is listed, and not there' });
  return { files, problems, content, styles, meta };
}
