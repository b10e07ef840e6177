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
  edit: Edit | { kind: 'undo'; args: { rows: number[] } } | { kind: 'newerVersion'; args: { source: string } };
  patches: Patch[];
  inverse: Patch[];
  touched: string[];
}

/** Rows that came after `base` and changed something the given ids name: an edit that meets one is refused. */
export function meets(rows: readonly Pick<LogRow, 'seq' | 'touched'>[], base: number, touched: readonly string[]): number[] {
  const mine = new Set(touched);
  return rows.filter((row) => row.seq > base && row.touched.some((id) => mine.has(id))).map((row) => row.seq);
}

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
