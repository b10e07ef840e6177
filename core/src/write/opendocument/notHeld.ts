/** What a document has and the format cannot hold, each once, with how often it occurs. */
export class NotHeld {
  private readonly counts = new Map<string, number>();

  add(what: string): void {
    this.counts.set(what, (this.counts.get(what) ?? 0) + 1);
  }

  lines(): string[] {
    return [...this.counts].map(([what, n]) => (n > 1 ? `${what} (${n} times)` : what));
  }
}
