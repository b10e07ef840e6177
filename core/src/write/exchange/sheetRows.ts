import type { ExchangeJob } from '../../language/exchange.ts';
import { readable } from '../../language/parts.ts';
import { placeOf } from './exchangeFormat.ts';

/** The columns of a table of texts, as a person sees them. */
export const COLUMNS = ['id', 'source', 'target', 'state', 'where', 'comments'] as const;
export type SheetRow = Record<(typeof COLUMNS)[number], string>;

/** The segments as rows: codes and wrap marks written out. */
export function* sheetRows({ units, translated, copySource }: ExchangeJob): Generator<SheetRow> {
  for (const unit of units)
    for (const segment of unit.segments) {
      const has = translated.get(segment.id);
      const target = has?.target ?? (copySource ? segment.source : null);
      yield {
        id: segment.id,
        source: readable(segment.source),
        target: target ? readable(target) : '',
        state: has?.state ?? 'initial',
        where: placeOf(unit),
        comments: (has?.comments ?? []).join('\n'),
      };
    }
}
