import type { NotTaken } from '../../check/notTaken.ts';

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
