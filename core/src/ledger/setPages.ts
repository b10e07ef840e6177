import type { Composition } from '../compose/marks.ts';
import type { Folio } from '../folio/folio.ts';
import { isMasterInstance } from '../folio/masters.ts';
import type { Table } from '../folio/story.ts';
import { pageOfItem } from '../folio/traverse.ts';
import type { SubjectInFolio } from './subjects.ts';

/**
 * The pages on which what a subject speaks of is seen: parts of a text only there where they are set, of all those that the text
 * goes through. What is set nowhere, as the end of a text without room, is told with all of them.
 */
export function pagesAsSet(folio: Folio, composition: Composition): (about: SubjectInFolio) => string[] {
  const ofParagraph = new Map<string, Set<string>>();
  for (const frame of composition.frames.values()) {
    const page = pageOfFrame(folio, frame.spread, frame.item);
    if (page === undefined) continue;
    for (const { paragraph } of frame.lines) {
      const pages = ofParagraph.get(paragraph);
      if (pages) pages.add(page);
      else ofParagraph.set(paragraph, new Set([page]));
    }
  }
  const ofTable = new Map<Table, Map<string, Set<string>>>();
  const cellsOf = (table: Table): Map<string, Set<string>> => {
    let cells = ofTable.get(table);
    if (!cells)
      ofTable.set(
        table,
        (cells = new Map(
          Object.values(table.cells).map((c) => [c.id, new Set(c.order.flatMap((id) => [...(ofParagraph.get(id) ?? [])]))]),
        )),
      );
    return cells;
  };
  const tableOfCell = new Map<string, Table>();
  for (const story of Object.values(folio.stories))
    for (const block of Object.values(story.blocks))
      if (block.kind === 'table') for (const id of Object.keys(block.cells)) tableOfCell.set(id, block);
  return ({ subject, pages, story, paragraph }) => {
    if (!story || pages.length < 2) return pages;
    const table = subject.kind === 'table' ? story.blocks[subject.id] : subject.kind === 'cell' ? tableOfCell.get(subject.id) : undefined;
    const set =
      paragraph !== undefined
        ? ofParagraph.get(paragraph)
        : table?.kind !== 'table'
          ? undefined
          : subject.kind === 'cell'
            ? cellsOf(table).get(subject.id)
            : new Set([...cellsOf(table).values()].flatMap((all) => [...all]));
    return set?.size ? [...set] : pages;
  };
}

function pageOfFrame(folio: Folio, spreadId: string, id: string): string | undefined {
  if (isMasterInstance(id)) return id.split('/')[0];
  const spread = folio.spreads[spreadId];
  const item = spread?.items[id];
  return spread && item && pageOfItem(spread, item).id;
}
