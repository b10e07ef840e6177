import type { Composition } from '../compose/marks.ts';
import type { Folio } from '../folio/folio.ts';
import { isMasterInstance } from '../folio/masters.ts';
import { pageOfItem } from '../folio/traverse.ts';
import type { SubjectInFolio } from './subjects.ts';

/**
 * The pages on which what a subject speaks of is seen: parts of a text only there where they are set, of all those that the text
 * goes through. What is set nowhere, as the end of a text without room, is told with all of them.
 */
export function pagesAsSet(folio: Folio, composition: Composition): (about: SubjectInFolio) => string[] {
  const ofParagraph = new Map<string, Set<string>>();
  for (const { spread, item, lines } of composition.frames.values()) {
    const page = pageOfFrame(folio, spread, item);
    if (page !== undefined)
      for (const { paragraph } of lines) ofParagraph.set(paragraph, (ofParagraph.get(paragraph) ?? new Set()).add(page));
  }
  const ofTable = new Map<string, Set<string>>();
  const ofCell = new Map<string, Set<string>>();
  for (const story of Object.values(folio.stories))
    for (const block of Object.values(story.blocks)) {
      if (block.kind !== 'table') continue;
      for (const cell of Object.values(block.cells))
        ofCell.set(cell.id, new Set(cell.order.flatMap((id) => [...(ofParagraph.get(id) ?? [])])));
      ofTable.set(block.id, new Set(Object.keys(block.cells).flatMap((id) => [...(ofCell.get(id) ?? [])])));
    }
  return ({ subject, pages, story, paragraph }) => {
    if (!story) return pages;
    const { kind, id } = subject;
    const set = kind === 'table' ? ofTable.get(id) : kind === 'cell' ? ofCell.get(id) : paragraph && ofParagraph.get(paragraph);
    return set && set.size ? [...set] : pages;
  };
}

function pageOfFrame(folio: Folio, spreadId: string, id: string): string | undefined {
  if (isMasterInstance(id)) return id.split('/')[0];
  const spread = folio.spreads[spreadId];
  const item = spread?.items[id];
  return spread && item && pageOfItem(spread, item).id;
}
