/** Spreads whose pictures are kept after they have been scrolled out of sight. */
const KEPT = 40;

/**
 * The spreads that were shown last. Window and typesetter each keep one and hear of the same spreads in the same order, so
 * that what the one forgets the other knows to be forgotten: the pictures of a long book would fill the memory.
 */
export class RecentSpreads {
  private readonly order = new Set<string>();

  constructor(private readonly most = KEPT) {}

  /** Takes in what is shown now; gives back what is let go for it. */
  show(ids: readonly string[]): string[] {
    for (const id of ids) {
      this.order.delete(id);
      this.order.add(id);
    }
    const gone: string[] = [];
    for (const id of this.order) {
      if (this.order.size <= Math.max(this.most, ids.length)) break;
      this.order.delete(id);
      gone.push(id);
    }
    return gone;
  }

  has(id: string): boolean {
    return this.order.has(id);
  }
}
