import type { Doc } from './pdfkitParts.ts';

/** Pages that a node of the tree has at most. */
const MOST = 64;

interface Node {
  data: Record<string, unknown>;
  end(): void;
}

/**
 * The page tree (ISO 32000-1, 7.7.3.2), which readers go down to a page that is asked for. pdfkit makes one node of all pages,
 * through which some of them go page by page; here the first pages stand at the top, and all that follow under nodes of their own.
 */
export class PageTree {
  private readonly nodes: { node: Node; pages: unknown[] }[] = [];
  private readonly first: unknown[] = [];

  constructor(private readonly doc: Doc) {}

  /** Takes a page that was begun: its parent is written with it. */
  add(page: { data: Record<string, unknown> }): void {
    if (this.first.length < MOST) {
      this.first.push(page);
      return;
    }
    let last = this.nodes.at(-1);
    if (!last || last.pages.length === MOST) {
      const pages: unknown[] = [];
      last = { node: this.doc.ref({ Type: 'Pages', Parent: this.doc._root.data['Pages'], Kids: pages }), pages };
      this.nodes.push(last);
    }
    last.pages.push(page);
    page.data['Parent'] = last.node;
  }

  end(): void {
    if (!this.nodes.length) return;
    const top = this.doc._root.data['Pages'] as Node;
    top.data['Kids'] = [...this.first, ...this.nodes.map(({ node }) => node)];
    for (const { node, pages } of this.nodes) {
      node.data['Count'] = pages.length;
      node.end();
    }
  }
}
