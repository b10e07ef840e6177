import type { z } from 'zod';
import type { Metadata } from '../../folio/head.ts';
import { Language } from '../../folio/ids.ts';
import { childOf, childrenOf, textOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

/** Title (else the file's name), people, subjects and language of `office:meta` (OpenDocument 1.3 part 3, 4.3). */
export function readMetadata(root: XmlElement | null, language: string, fileName: string): z.input<typeof Metadata> {
  const meta = childOf(root ?? undefined, 'office:meta');
  const of = (name: string): string => {
    const found = meta && childOf(meta, name);
    return found ? textOf(found).trim() : '';
  };
  const said = Language.safeParse(of('dc:language'));
  const creator = of('meta:initial-creator') || of('dc:creator');
  const keywords = meta ? childrenOf(meta, 'meta:keyword').map((k) => textOf(k).trim()) : [];
  const subjects = [of('dc:subject'), ...keywords].filter(Boolean);
  return {
    title: of('dc:title') || fileName,
    language: said.success ? said.data : language,
    ...(creator && { creators: [creator] }),
    ...(of('dc:description') && { description: of('dc:description') }),
    ...(subjects.length && { subjects }),
  };
}
