import { emptyInbound } from '../../language/exchange.ts';
import type { Inbound } from '../../language/exchange.ts';
import { fromReadable } from '../../language/parts.ts';
import { stateOf } from '../../language/states.ts';
import { FolioError } from '../../ports/ports.ts';
import { unitOfSegment } from '../../language/unit.ts';

/** Rows beyond this are no document’s. */
const MOST_ROWS = 200_000;

/** Takes the rows of a table of texts, one after another: the first that names columns says which is which, in whatever order. */
export class Rows {
  readonly inbound: Inbound = emptyInbound();
  private columns: Map<string, number> | null = null;
  private count = 0;
  private formulas = 0;

  /** Gives whether more are wanted. `formula`: some cell of the row holds one; what it once showed is what counts. */
  take(cells: readonly string[], formula = false): void {
    if (++this.count > MOST_ROWS + 10)
      throw new FolioError(
        'exchange.rows',
        `The table has more than ${MOST_ROWS.toLocaleString('en')} rows.`,
        'Ask for it in several files, or delete empty rows.',
      );
    if (formula) this.formulas++;
    if (!this.columns) {
      const names = cells.map((c) => c.trim().toLowerCase());
      if (names.includes('id') && names.includes('target')) this.columns = new Map(names.map((n, i) => [n, i]));
      return;
    }
    const cell = (name: string): string | undefined => {
      const at = this.columns!.get(name);
      return at === undefined ? undefined : cells[at];
    };
    const id = cell('id')?.trim() ?? '';
    if (!id) return;
    if (id.startsWith('#')) {
      for (const fact of cells) {
        const [, name, value] = /^#(document|source|target)=(.*)$/.exec(fact.trim()) ?? [];
        if (name) this.inbound[name as 'document'] = value!;
      }
      return;
    }
    const [source, target] = [cell('source'), cell('target')];
    this.inbound.segments.push({
      ...unitOfSegment(id),
      source: source === undefined || source === '' ? null : fromReadable(source),
      target: target?.trim() ? fromReadable(target) : null,
      state: stateOf(cell('state')),
      comments: (cell('comments') ?? '')
        .split('\n')
        .map((c) => c.trim())
        .filter(Boolean),
    });
  }

  done(): Inbound {
    if (!this.columns)
      throw new FolioError(
        'exchange.columns',
        'The table has no columns named “id” and “target”.',
        'Choose the table that went out, with its first row as it was.',
      );
    if (this.formulas)
      this.inbound.passedOver.push(
        `${this.formulas} ${this.formulas === 1 ? 'formula' : 'formulas'}, which are never worked out: what they showed last was taken`,
      );
    return this.inbound;
  }
}
