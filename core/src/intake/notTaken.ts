import { z } from 'zod';

/** Something of the original that the document does not hold, or holds in another way. */
export const NotTaken = z.object({
  /** What it is, in words: “Hatched fill”. */
  what: z.string(),
  /** What became of it. */
  outcome: z.enum(['leftOut', 'changed']),
  reason: z.string(),
  page: z.number().int().optional(),
  item: z.string().optional(),
  /** How often the same was met on the page. */
  times: z.number().int(),
});
export type NotTaken = z.infer<typeof NotTaken>;

/** Collects what is not taken over; the same thing on one page is one entry. */
export class NotTakenList {
  private readonly entries = new Map<string, NotTaken>();
  page: number | undefined;

  add(outcome: NotTaken['outcome'], what: string, reason: string, item?: string): void {
    const key = `${this.page ?? ''} ${what} ${reason}`;
    const known = this.entries.get(key);
    if (known) known.times++;
    else
      this.entries.set(key, {
        what,
        outcome,
        reason,
        ...(this.page !== undefined && { page: this.page }),
        ...(item !== undefined && { item }),
        times: 1,
      });
  }

  all(): NotTaken[] {
    return [...this.entries.values()];
  }
}
