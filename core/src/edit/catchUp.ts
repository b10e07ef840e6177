import type { Folio } from '../folio/folio.ts';
import { applyLogged } from './apply.ts';
import type { Edit } from './edits.ts';
import type { HeardRow } from './log.ts';
import { rebaseEdits } from './rebase.ts';

/** An edit on its way into the log. `uid` is its own for good: sent twice, it is written once. */
export interface WaitingEdit {
  uid: string;
  burst: string;
  edit: Edit;
}

/** An edit that could not be put on top of what others changed, and what it would have written. */
export interface RefusedEdit {
  uid: string;
  edit: Edit;
  text: string;
  /** The rows that it met. */
  by: number[];
}

export interface CaughtUp {
  /** `base` with the rows. */
  folio: Folio;
  /** The edits that still wait, for that document. */
  waiting: WaitingEdit[];
  refused: RefusedEdit[];
}

/**
 * Leads edits that wait on top of `base` along the rows that were added to it. Rows of others go under them; a row that is one of
 * them says that it has arrived. The same function runs on both sides, so that a window knows what the server will make of it.
 */
export function catchUp(base: Folio, waiting: readonly WaitingEdit[], rows: readonly HeardRow[]): CaughtUp {
  let folio = base;
  let list: readonly WaitingEdit[] = waiting;
  const refused: RefusedEdit[] = [];
  let foreign: HeardRow[] = [];
  const takeForeign = (): void => {
    if (!foreign.length) return;
    const { outcomes } = rebaseEdits(
      folio,
      foreign,
      list.map((w) => w.edit),
    );
    folio = foreign.reduce((f, r) => applyLogged(f, r.patches), folio);
    list = list.flatMap((w, i) => {
      const outcome = outcomes[i]!;
      if (outcome.outcome === 'kept') return outcome.edits.map(({ edit }, k) => ({ ...w, uid: pieceOf(w.uid, k), edit }));
      refused.push({ uid: w.uid, edit: w.edit, text: outcome.text, by: outcome.by });
      return [];
    });
    foreign = [];
  };
  for (const row of rows) {
    const own = row.uid === undefined ? -1 : list.findIndex((w) => w.uid === row.uid);
    if (own < 0) foreign.push(row);
    else {
      takeForeign();
      folio = applyLogged(folio, row.patches);
      list = list.filter((w) => w.uid !== row.uid);
    }
  }
  takeForeign();
  return { folio, waiting: [...list], refused };
}

/** An edit in whose middle others wrote becomes several, each with a name of its own. */
const pieceOf = (uid: string, k: number): string => (k ? `${uid}~${k}` : uid);
/** The edit that a piece was part of. */
export const wholeOf = (uid: string): string => uid.replace(/~.*/, '');
