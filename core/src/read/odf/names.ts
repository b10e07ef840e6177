/** Ids for what the original calls by any name: its own word where that is a valid id and free, else one that is counted. */
export class Names {
  private readonly taken = new Set<string>(Object.getOwnPropertyNames(Object.prototype));
  /** The next number to try for a stem: thousands of items share one. */
  private readonly next = new Map<string, number>();

  /** A free id made of a name, or of a prefix and a number. */
  free(prefix: string, name?: string): string {
    const wanted = name === undefined ? '' : idOf(name);
    if (wanted && !this.taken.has(wanted)) return this.take(wanted);
    const stem = wanted || prefix;
    for (let n = this.next.get(stem) ?? (wanted ? 2 : 1); ; n++) {
      const id = `${stem}-${n}`;
      if (this.taken.has(id)) continue;
      this.next.set(stem, n + 1);
      return this.take(id);
    }
  }

  private take(id: string): string {
    this.taken.add(id);
    return id;
  }
}

/** Letters, digits and hyphens of a name; empty where nothing of it can stand in an id. */
export const idOf = (name: string): string => (PLAIN.test(name) ? name : madeIdOf(name));
const PLAIN = /^(?=.{1,48}$)[A-Za-z0-9]+(?:-[A-Za-z0-9]+)*$/;

const madeIdOf = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 48)
    .replace(/-$/, '');
