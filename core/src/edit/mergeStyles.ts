import type { Folio } from '../folio/folio.ts';
import { paragraphsOf } from '../folio/traverse.ts';

/** Uses one paragraph style where several that look the same were used; the others are no more. Works in place. */
export function mergeStyles(folio: Folio, keep: string, others: readonly string[]): void {
  const { head } = folio;
  const gone = new Set(others.filter((id) => id !== keep && head.paragraphStyles[id]));
  const kept = head.paragraphStyles[keep]!;
  const put = (id: string | undefined): string | undefined => (id !== undefined && gone.has(id) ? keep : id);
  for (const id of gone) kept.role ??= head.paragraphStyles[id]!.role;
  if (!kept.role) delete kept.role;
  // What it was based on may be one of those that go: then it stands on what that stood on, which looks the same.
  while (kept.basedOn !== undefined && gone.has(kept.basedOn)) {
    const above = head.paragraphStyles[kept.basedOn]!;
    kept.paragraph = { ...above.paragraph, ...kept.paragraph };
    kept.character = { ...above.character, ...kept.character };
    if (above.basedOn === undefined) delete kept.basedOn;
    else kept.basedOn = above.basedOn;
  }
  for (const story of Object.values(folio.stories)) for (const p of paragraphsOf(story)) if (gone.has(p.style)) p.style = keep;
  for (const style of Object.values(head.paragraphStyles)) {
    if (style.basedOn !== undefined && style.id !== keep) style.basedOn = put(style.basedOn);
    if (style.next !== undefined) style.next = put(style.next);
  }
  for (const style of Object.values(head.cellStyles))
    if (style.paragraphStyle !== undefined) style.paragraphStyle = put(style.paragraphStyle);
  for (const id of gone) delete head.paragraphStyles[id];
}
