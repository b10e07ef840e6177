import type { Node } from 'prosemirror-model';
import type { EditorState, Transaction } from 'prosemirror-state';

/** Marks a transaction that follows the document: it is no change of one’s own. */
export const OUTSIDE = 'outside';

/**
 * A transaction that leads an editor to a document that was changed elsewhere, by as little as differs: the cursor and the selection
 * stay with their letters. Null where nothing differs.
 */
export function transactionTo(state: EditorState, doc: Node): Transaction | null {
  const { tr } = state;
  const before = state.doc;
  const sameParagraphs =
    before.childCount === doc.childCount && everyChild(before, (child, i) => child.attrs['id'] === doc.child(i).attrs['id']);
  if (!sameParagraphs) replaceDifference(tr, 0, before, doc);
  else {
    // From the end to the beginning: what is replaced does not move what is still to do.
    let at = before.content.size;
    for (let i = before.childCount - 1; i >= 0; i--) {
      const [old, fresh] = [before.child(i), doc.child(i)];
      at -= old.nodeSize;
      if (old.eq(fresh)) continue;
      replaceDifference(tr, at + 1, old, fresh);
      if (!old.hasMarkup(fresh.type, fresh.attrs)) tr.setNodeMarkup(at, undefined, fresh.attrs);
    }
  }
  return tr.docChanged ? tr.setMeta(OUTSIDE, true).setMeta('addToHistory', false) : null;
}

/** Replaces in the content of a node, which begins at `offset`, what is another there than in `fresh`. */
function replaceDifference(tr: Transaction, offset: number, old: Node, fresh: Node): void {
  const start = old.content.findDiffStart(fresh.content);
  if (start === null) return;
  let { a, b } = old.content.findDiffEnd(fresh.content)!;
  // What is alike at both ends may overlap: “aa” and “aaa”.
  const overlap = start - Math.min(a, b);
  if (overlap > 0) {
    a += overlap;
    b += overlap;
  }
  tr.replace(offset + start, offset + a, fresh.slice(start, b));
}

function everyChild(node: Node, is: (child: Node, i: number) => boolean): boolean {
  for (let i = 0; i < node.childCount; i++) if (!is(node.child(i), i)) return false;
  return true;
}
