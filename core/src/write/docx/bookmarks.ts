import type { Xml } from '../shared/office/xml.ts';
import { all, el } from '../shared/office/xml.ts';

/** A bookmark's name: a letter or `_`, then letters, digits and `_`, up to forty of them (ISO/IEC 29500-1, 17.13.6.2). */
const NAME = /^[A-Za-z0-9_]{1,38}$/;

type Kind = 'p' | 'pg' | 'f';

/** Names by which paragraphs, pages and figures are found again in a text document. Unique whatever their capitals. */
export class Bookmarks {
  private readonly names = new Map<string, string>();
  private readonly taken = new Set<string>();
  private readonly used = new Set<string>();
  private ids = 0;

  name(kind: Kind, id: string): string {
    const key = `${kind}:${id}`;
    let name = this.names.get(key);
    if (name === undefined) {
      const wanted = `${kind}_${NAME.test(id) ? id : id.replace(/[^A-Za-z0-9]/g, '_').slice(0, 28)}`.slice(0, 40);
      name = wanted;
      for (let n = 2; this.taken.has(name.toLowerCase()); n++) name = `${wanted.slice(0, 34)}_${n}`;
      this.taken.add(name.toLowerCase());
      this.names.set(key, name);
    }
    return name;
  }

  /** What has a name, kind by kind, in the order in which it got it. */
  of(kind: Kind): { id: string; name: string }[] {
    return [...this.names].flatMap(([key, name]) => (key.startsWith(`${kind}:`) ? [{ id: key.slice(kind.length + 1), name }] : []));
  }

  /** A bookmark around content; what stands there again, such as rows that head a table, has it the first time. */
  around(kind: Kind, id: string, content: Xml): Xml {
    const name = this.name(kind, id);
    if (this.used.has(name)) return content;
    this.used.add(name);
    const at = this.ids++;
    return all(el('w:bookmarkStart', { 'w:id': at, 'w:name': name }), content, el('w:bookmarkEnd', { 'w:id': at }));
  }
}
