import { useMemo } from 'react';
import { Button, Switch, Tooltip } from 'antd';
import { Link2 } from 'lucide-react';
import { joinStrand, pagesOf, wholePath } from '@elastic-folio/core';
import type { Strand } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { DraftInput } from '../shell/DraftField.tsx';
import { ArticleOf } from './ArticleOf.tsx';
import { SortableList } from './SortableList.tsx';

/** The runs of content that the path is made of: named, ordered, joined, and read in one go where that is wanted. */
export function StrandList({ onSelect }: { onSelect: (item: string) => void }) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const byHand = folio.head.structure.strands.length > 0;
  // Worked out from every page: not at every keystroke.
  const strands = useMemo(
    () => wholePath(folio),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [folio.spreads, folio.stories, folio.head.structure, folio.head.paragraphStyles, folio.head.layers],
  );
  const set = (next: Strand[], burst = newBurst()): void => change([{ kind: 'path.strands', args: { strands: next } }], burst);
  const alter = (id: string, changes: Partial<Strand>, burst?: string): void =>
    set(
      strands.map((s) => (s.id === id ? { ...s, ...changes } : s)),
      burst,
    );
  const numbers = new Map(pagesOf(folio).map((p) => [p.spread.id, p.number]));
  const firstPage = new Map([...pagesOf(folio)].reverse().map((p) => [p.spread.id, p.number]));
  const whole = new Map(strands.map((s) => [s.id, s]));
  const pages = (s: Strand): string => {
    const [from, to] = [firstPage.get(s.entries[0]!.spread), numbers.get(s.entries[s.entries.length - 1]!.spread)];
    return from === undefined || to === undefined ? '' : from === to ? `page ${from}` : `pages ${from}–${to}`;
  };
  return (
    <>
      <h2>Reading path</h2>
      <p className="soft">
        {byHand
          ? 'Strands are read one after another where they share a page. What was moved by hand stays, whatever becomes of the layout.'
          : 'Worked out from where things stand. Drag a number on a page, or choose something and move it; that is kept.'}
      </p>
      <SortableList
        className="strands"
        ids={strands.filter((s) => s.entries.length).map((s) => s.id)}
        nameOf={(id) => `the strand “${whole.get(id)!.name}”`}
        onOrder={(ids) => set(ids.map((id) => whole.get(id)!))}
      >
        {(id) => {
          const strand = whole.get(id)!;
          return (
            <div className="strand" data-strand={id}>
              <DraftInput
                size="small"
                variant="borderless"
                aria-label={`Name of the strand “${strand.name}”`}
                value={strand.name}
                onKeep={(text, burst) => text.trim() && alter(id, { name: text.trim() }, burst)}
              />
              <span className="soft strand-facts">
                <button onClick={() => onSelect(strand.entries[0]!.item)}>
                  {strand.entries.length} {strand.entries.length === 1 ? 'stop' : 'stops'}, {pages(strand)}
                </button>
                <Tooltip title="In an e-book or article all of it is read in one go, whatever else stands on its pages.">
                  <label>
                    In one go{' '}
                    <Switch
                      size="small"
                      aria-label={`“${strand.name}” in one go`}
                      checked={strand.together ?? false}
                      onChange={(together) => alter(id, { together })}
                    />
                  </label>
                </Tooltip>
                <ArticleOf items={strand.entries.map((e) => e.item)} what={`“${strand.name}”`} />
                {strands[0] !== strand && (
                  <Tooltip title="Join it to the one before">
                    <Button
                      type="text"
                      size="small"
                      icon={<Link2 size={14} />}
                      aria-label={`Join “${strand.name}” to the one before`}
                      onClick={() => set(joinStrand(strands, id))}
                    />
                  </Tooltip>
                )}
              </span>
            </div>
          );
        }}
      </SortableList>
      <p className="soft hint">To make two of a strand, choose where the second begins on a page, and there: Begin a strand here.</p>
    </>
  );
}
