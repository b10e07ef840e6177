import { child } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';

/** What stands in a section of a text document, what is said of it, and the number printed on its first page. */
export interface WordSection {
  nodes: Node[];
  section: Node;
  number: number;
}

/** The sections of a document that has one for each page: numbers are counted on from where one says (ISO/IEC 29500-1, 17.6.12, 17.6.17). */
export function wordPages(body: Node | undefined): WordSection[] {
  const out: WordSection[] = [];
  let nodes: Node[] = [];
  let number = 0;
  for (const node of body?.children ?? []) {
    const section = node.name === 'w:sectPr' ? node : child(child(node, 'w:pPr'), 'w:sectPr');
    if (node.name !== 'w:sectPr') nodes.push(node);
    if (!section) continue;
    const begins = child(section, 'w:pgNumType')?.attributes['w:start'];
    number = begins === undefined ? number + 1 : Number(begins);
    out.push({ nodes, section, number });
    nodes = [];
  }
  return out;
}
