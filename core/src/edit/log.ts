import { z } from 'zod';
import type { Patch } from 'immer';
import { EditSchema } from './edits.ts';
import type { Edit } from './edits.ts';

const PatchSchema = z.object({
  op: z.enum(['replace', 'remove', 'add']),
  path: z.array(z.union([z.string(), z.number()])),
  value: z.unknown().optional(),
}) as unknown as z.ZodType<Patch>;

/** One row of the log. A row that undoes others names them in `undoes`; undoing that row brings them back. */
export const LogRow = z.object({
  seq: z.number().int().positive(),
  base: z.number().int().min(0),
  actor: z.string(),
  at: z.string(),
  /** Rows of one group are undone together: a burst of keystrokes. */
  group: z.string(),
  /** The name that the edit was sent under; rows from before edits had names have none. */
  uid: z.string().optional(),
  edit: z.union([
    EditSchema,
    z.object({ kind: z.literal('undo'), args: z.object({ rows: z.array(z.number().int()) }) }),
    z.object({ kind: z.literal('newerVersion'), args: z.object({ source: z.string() }) }),
  ]),
  patches: z.array(PatchSchema),
  inverse: z.array(PatchSchema),
  touched: z.array(z.string()),
});
export interface LogRow {
  seq: number;
  base: number;
  actor: string;
  at: string;
  group: string;
  uid?: string | undefined;
  edit: Edit | { kind: 'undo'; args: { rows: number[] } } | { kind: 'newerVersion'; args: { source: string } };
  patches: Patch[];
  inverse: Patch[];
  touched: string[];
}

/** A row as other windows hear of it: they never take it back themselves. */
export type HeardRow = Omit<LogRow, 'inverse'>;
export const HeardRow = LogRow.omit({ inverse: true });
export function heardRow({ inverse, ...row }: LogRow): HeardRow {
  void inverse;
  return row;
}

/** Rows that came after `base` and changed something that the given paths name, hold or lie in: `p1` meets `p1/content`. */
export function meets(rows: readonly Pick<LogRow, 'seq' | 'touched'>[], base: number, touched: readonly string[]): number[] {
  const mine = new Set(touched);
  const holders = new Set(touched.flatMap(holdersOf));
  const met = (path: string): boolean => mine.has(path) || holders.has(path) || holdersOf(path).some((holder) => mine.has(holder));
  return rows.filter((row) => row.seq > base && row.touched.some(met)).map((row) => row.seq);
}

/** The paths above a path. */
const holdersOf = (path: string): string[] => path.split('/').flatMap((_, i, parts) => (i ? [parts.slice(0, i).join('/')] : []));

export interface History {
  /** Groups of row numbers that can be undone, oldest first. */
  undo: number[][];
  /** Groups that can be brought back, oldest first. */
  redo: number[][];
}

/** What one person can undo and redo, worked out from the log alone, so that it survives reopening. */
export function historyOf(rows: readonly LogRow[], actor: string): History {
  const undo: { group: string; rows: number[] }[] = [];
  const redo: { group: string; rows: number[] }[] = [];
  for (const row of rows) {
    if (row.actor !== actor) continue;
    if (row.edit.kind !== 'undo') {
      redo.length = 0;
      const top = undo[undo.length - 1];
      if (top && top.group === row.group) top.rows.push(row.seq);
      else undo.push({ group: row.group, rows: [row.seq] });
      continue;
    }
    const target = row.edit.args.rows[0];
    const taken = { group: row.group, rows: [row.seq] };
    const [from, to] = undo[undo.length - 1]?.rows.includes(target!) ? [undo, redo] : [redo, undo];
    if (!from[from.length - 1]?.rows.includes(target!)) continue;
    from.pop();
    to.push(taken);
  }
  return { undo: undo.map((e) => e.rows), redo: redo.map((e) => e.rows) };
}
