import { Switch } from 'antd';
import { pagesOf, paragraphRole, paragraphsOf, readText } from '@elastic-folio/core';
import { newBurst, useDocument } from '../document/documentStore.ts';

/** The document's headings, as every output lists them, with the sections that begin at them. */
export function OutlineList({ onSelect }: { onSelect: (item: string) => void }) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const { sectionStarts } = folio.head.structure;
  const rank = new Map(pagesOf(folio).map((p, i) => [p.spread.id, i]));
  const headings = folio.head.storyOrder
    .flatMap((id) => {
      const story = folio.stories[id];
      const first = story?.frames[0];
      if (!story || !first || !rank.has(first.spread)) return [];
      return [...paragraphsOf(story)].flatMap((p) => {
        const role = paragraphRole(folio.head, p.style);
        const level = Number(/^h([1-6])$/.exec(role.element)?.[1] ?? 0);
        const text = readText(p).trim();
        return level && text && !role.leaveOut ? [{ id: p.id, level, text, frame: first, begins: role.startsSection }] : [];
      });
    })
    .sort((a, b) => (rank.get(a.frame.spread) ?? 0) - (rank.get(b.frame.spread) ?? 0));
  return (
    <>
      <h2>Outline</h2>
      <p className="soft">
        {headings.length
          ? 'Headings as readers jump by them. A section begins anew: in an e-book, on a page of its own.'
          : 'No style is a heading yet.'}
      </p>
      <ul className="outline">
        {headings.map((h) => (
          <li key={h.id} style={{ paddingLeft: (h.level - 1) * 14 }} data-heading={h.id}>
            <button onClick={() => onSelect(h.frame.item)}>{h.text}</button>
            <Switch
              size="small"
              aria-label={`“${h.text}” starts a section`}
              checked={h.begins || sectionStarts.includes(h.id)}
              // What the style says holds for all of its paragraphs, and is changed there.
              disabled={h.begins}
              onChange={(starts) => change([{ kind: 'paragraph.sectionStart', args: { paragraph: h.id, starts } }], newBurst())}
            />
          </li>
        ))}
      </ul>
    </>
  );
}
