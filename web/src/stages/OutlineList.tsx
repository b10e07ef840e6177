import { useMemo } from 'react';
import { Button, Switch, Tooltip } from 'antd';
import { Eye, EyeOff } from 'lucide-react';
import { headingsInOrder } from '@elastic-folio/core';
import type { OutlineHeading } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { DraftInput } from '../shell/DraftField.tsx';

/** The document's headings, as lists of contents say them: in which words, which of them, and where sections begin. */
export function OutlineList({ onSelect }: { onSelect: (item: string) => void }) {
  const folio = useDocument((s) => s.folio)!;
  // Worked out from every page: not at every keystroke.
  const headings = useMemo(
    () => headingsInOrder(folio),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [folio.spreads, folio.stories, folio.head.structure, folio.head.paragraphStyles, folio.head.layers],
  );
  return (
    <>
      <h2>Outline</h2>
      <p className="soft">
        {headings.length
          ? 'Headings as readers jump by them; other words here change nothing on the page. A section begins anew: in an e-book, on a page of its own.'
          : 'No style is a heading yet.'}
      </p>
      <ul className="outline">
        {headings.map((h) => (
          <Heading key={h.paragraph.id} heading={h} onSelect={onSelect} />
        ))}
      </ul>
    </>
  );
}

function Heading({ heading: h, onSelect }: { heading: OutlineHeading; onSelect: (item: string) => void }) {
  const change = useDocument((s) => s.change);
  const { sectionStarts, outline } = useDocument((s) => s.folio!.head.structure);
  const { id } = h.paragraph;
  const entry = outline[id] ?? { leaveOut: false };
  const begins = h.role.startsSection;
  const set = (next: { text?: string | undefined; leaveOut: boolean }, burst = newBurst()): void => {
    const text = next.text === h.text ? undefined : next.text;
    const made = { ...(text !== undefined && { text }), leaveOut: next.leaveOut };
    change([{ kind: 'outline.entry', args: { paragraph: id, entry: text === undefined && !next.leaveOut ? null : made } }], burst);
  };
  return (
    <li style={{ paddingLeft: (h.level - 1) * 14 }} data-heading={id} className={entry.leaveOut ? 'left-out' : undefined}>
      <Tooltip title={`Heading of level ${h.level}: show it on its page`}>
        <button className="level" onClick={() => onSelect(h.frame.item)} aria-label={`To “${h.text}”`}>
          {h.level}
        </button>
      </Tooltip>
      <DraftInput
        size="small"
        variant="borderless"
        aria-label={`“${h.text}” in lists of contents`}
        value={entry.text ?? h.text}
        disabled={entry.leaveOut}
        onKeep={(text, burst) => set({ ...entry, text: text.trim() || h.text }, burst)}
      />
      <Tooltip title={entry.leaveOut ? 'Not listed' : 'Listed'}>
        <Button
          type="text"
          size="small"
          aria-pressed={!entry.leaveOut}
          aria-label={`“${h.text}” is listed`}
          icon={entry.leaveOut ? <EyeOff size={14} /> : <Eye size={14} />}
          onClick={() => set({ ...entry, leaveOut: !entry.leaveOut })}
        />
      </Tooltip>
      <Switch
        size="small"
        aria-label={`“${h.text}” starts a section`}
        checked={begins || sectionStarts.includes(id)}
        // What the style says holds for all of its paragraphs, and is changed there.
        disabled={begins}
        onChange={(starts) => change([{ kind: 'paragraph.sectionStart', args: { paragraph: id, starts } }], newBurst())}
      />
    </li>
  );
}
