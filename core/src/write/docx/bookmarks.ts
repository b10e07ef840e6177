import type { Xml } from '../assets/xml.ts';
import { all, el } from '../assets/xml.ts';

/** A bookmark's name: a letter or `_`, then letters, digits and `_`, up to forty of them (ISO/IEC 29500-1, 17.13.6.2). */
const NAME = /^[A-Za-z0-9_]{1,38}$/;

/** Of paragraphs, pages, figures; of words that stand for something that is no text, and of those that are none of the text’s. */
type Kind = 'p' | 'pg' | 'f' | 'n' | 'x';

/** Names by which paragraphs, pages and figures are found again in a text document. Unique whatever their capitals. */
export class Bookmarks {
  private readonly names = new Map<string, string>();
  private readonly taken = new Set<string>();
  private readonly used = new Set<string>();
  private ids = 0;
  private readonly parts = new Map<string, { id: string; from: number; to: number }>();

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
  of(kind: Kind): { id: string; name: string; from?: number; to?: number }[] {
    return [...this.names].flatMap(([key, name]) =>
      key.startsWith(`${kind}:`) ? [{ id: key.slice(kind.length + 1), ...this.parts.get(key), name }] : [],
    );
  }

  /** A bookmark around a paragraph, or around the part of one that stands in a box; what stands there again is told to. */
  paragraph(id: string, part: { from: number; to: number } | null, content: Xml): Xml {
    const own = part ? `${id} ${part.from}` : id;
    if (part) this.parts.set(`p:${own}`, { id, ...part });
    return this.used.has(this.name('p', own)) ? this.aside(content) : this.around('p', own, content);
  }

  /** Around words that are none of the text’s. */
  aside(content: Xml): Xml {
    return this.around('x', String(this.ids), content);
  }

  /** A bookmark around content; what stands there again has it the first time. */
  around(kind: Kind, id: string, content: Xml): Xml {
    const name = this.name(kind, id);
    if (this.used.has(name)) return content;
    this.used.add(name);
    const at = this.ids++;
    return all(el('w:bookmarkStart', { 'w:id': at, 'w:name': name }), content, el('w:bookmarkEnd', { 'w:id': at }));
  }
}
