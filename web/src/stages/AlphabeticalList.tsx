import { Select } from 'antd';
import { paragraphsOf } from '@elastic-folio/core';
import type { Story } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';

/** Whether a text is a list in alphabetical order, by the style that its entries begin in: other languages sort it anew. */
export function AlphabeticalList({ story }: { story: Story }) {
  const head = useDocument((s) => s.folio!.head);
  const change = useDocument((s) => s.change);
  const list = `list-${story.id}`;
  const known = head.structure.alphabetical?.[list];
  const top = story.order.flatMap((id) => story.blocks[id] ?? []);
  const styles = [...new Set(top.flatMap((b) => (b.kind === 'paragraph' ? [b.style] : [])))];
  const entriesIn = (style: string): string[] => top.flatMap((b) => (b.kind === 'paragraph' && b.style === style ? [b.id] : []));
  // A list has more than one entry.
  const possible = styles.filter((s) => entriesIn(s).length > 1);
  if (!possible.length || [...paragraphsOf(story)].length < 3) return null;
  const now = known && styles.find((s) => entriesIn(s).includes(known.entries[0]!));
  return (
    <label className="alphabetical">
      <span className="soft">In alphabetical order; entries begin in</span>
      <Select
        size="small"
        allowClear
        aria-label="Entries of an alphabetical list begin in"
        placeholder="it is no such list"
        value={now ?? null}
        onChange={(style: string | null) =>
          change([{ kind: 'list.alphabetical', args: { list, story: story.id, entries: style ? entriesIn(style) : null } }], newBurst())
        }
        options={possible.map((s) => ({ value: s, label: head.paragraphStyles[s]?.name ?? s }))}
      />
    </label>
  );
}
