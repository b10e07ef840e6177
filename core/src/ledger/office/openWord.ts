import { openParts } from '../../packages/officeParts.ts';
import type { Node, OpenPackage } from '../../packages/officeParts.ts';
import { WordLabels } from './wordLabels.ts';
import { WordLooks } from './wordLooks.ts';

/** A text document that was opened: its body, and how words in it look and are counted. */
export interface OpenWord extends OpenPackage {
  document: Node | undefined;
  /** The part of a kind that the document relates to, with its path. */
  related(type: string): { path: string; root: Node | undefined };
  looks: WordLooks;
  labels: WordLabels;
}

export async function openWord(bytes: Uint8Array): Promise<OpenWord> {
  const pack = await openParts(bytes);
  const related = (type: string): { path: string; root: Node | undefined } => {
    const path = [...pack.relations(pack.main).values()].find((r) => r.type === type)?.target ?? '';
    return { path, root: path ? pack.part(path) : undefined };
  };
  return {
    ...pack,
    document: pack.part(pack.main),
    related,
    looks: new WordLooks(related('styles').root),
    labels: new WordLabels(related('numbering').root),
  };
}
