import type { Folio } from '../folio/folio.ts';

/** Whether two states of a document have all in common, texts and frames apart, that decides how text is set. */
export const sameHead = (a: Folio, b: Folio): boolean =>
  a.head.paragraphStyles === b.head.paragraphStyles &&
  a.head.characterStyles === b.head.characterStyles &&
  a.head.listStyles === b.head.listStyles &&
  a.head.tableStyles === b.head.tableStyles &&
  a.head.cellStyles === b.head.cellStyles &&
  a.head.fallbacks === b.head.fallbacks &&
  a.head.standIns === b.head.standIns &&
  a.head.baselineGrid === b.head.baselineGrid &&
  a.head.metadata === b.head.metadata &&
  a.head.layers === b.head.layers &&
  a.head.masterPages === b.head.masterPages &&
  a.head.spreadOrder === b.head.spreadOrder;
