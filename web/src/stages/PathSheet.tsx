import { Button, Checkbox } from 'antd';
import { ArrowDown, ArrowUp, Scissors, X } from 'lucide-react';
import { pathOf, splitStrand, wholePath } from '@elastic-folio/core';
import type { Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { useKeys } from '../shell/keys.ts';
import { itemName } from '../table/SpreadView.tsx';
import { AltText, DecorationChoice } from './AltText.tsx';
import { ArticleOf } from './ArticleOf.tsx';
import { CaptionLink } from './CaptionLink.tsx';
import { GroupFigure } from './GroupFigure.tsx';
import { PassageLanguages } from './PassageLanguages.tsx';
import { PinControl } from './PinControl.tsx';
import { SortableList } from './SortableList.tsx';

/** How the chosen item is read: where in the path, or not at all, and in which words. */
export function PathSheet({ spread, item: id, onSelect }: { spread: Spread; item: string; onSelect: (item: string | null) => void }) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const item = spread.items[id]!;
  const order = pathOf(folio, spread).map((i) => i.id);
  const at = order.indexOf(id);
  const move = (by: -1 | 1): void => {
    const to = at + by;
    if (at < 0 || to < 0 || to >= order.length) return;
    const next = order.filter((other) => other !== id);
    next.splice(to, 0, id);
    change([{ kind: 'path.order', args: { spread: spread.id, order: next } }], newBurst());
  };
  const begins = folio.head.structure.strands.some((s) => s.entries[0]?.item === id);
  const beginStrand = (): void =>
    change([{ kind: 'path.strands', args: { strands: splitStrand(wholePath(folio), id, itemName(folio, item)) } }], newBurst());
  useKeys({ 'alt+ArrowUp': () => move(-1), 'alt+ArrowDown': () => move(1) });
  const { decorations, leftOut } = folio.head.structure;
  const picture = item.kind === 'picture' || item.kind === 'media' || item.kind === 'shape';
  return (
    <>
      <div className="sheet-head">
        <h2>{itemName(folio, item)}</h2>
        <ArticleOf items={[id]} what="what is chosen" />
        <Button type="text" size="small" icon={<X size={15} />} aria-label="Close" onClick={() => onSelect(null)} />
      </div>
      {picture ? <AltText item={item} spread={spread.id} /> : <DecorationChoice item={id} />}
      <Checkbox
        checked={leftOut.includes(id)}
        onChange={(e) => change([{ kind: 'item.leftOut', args: { item: id, leftOut: e.target.checked } }], newBurst())}
      >
        Leave out of reading
      </Checkbox>
      <GroupFigure spread={spread} item={id} />
      {(picture || item.kind === 'textFrame') && !decorations.includes(id) && <PinControl spread={spread} item={id} />}
      {item.kind === 'textFrame' && <CaptionLink spread={spread} frame={id} />}
      <h2>Reading path of this spread</h2>
      {at >= 0 && (
        <p className="path-moves">
          <Button size="small" icon={<ArrowUp size={13} />} disabled={at === 0} onClick={() => move(-1)}>
            Read earlier
          </Button>
          <Button size="small" icon={<ArrowDown size={13} />} disabled={at === order.length - 1} onClick={() => move(1)}>
            Read later
          </Button>
          <Button size="small" icon={<Scissors size={13} />} disabled={begins} onClick={beginStrand}>
            Begin a strand here
          </Button>
        </p>
      )}
      <SortableList
        className="path-list"
        ids={order}
        current={id}
        nameOf={(other) => itemName(folio, spread.items[other]!)}
        onOrder={(next) => change([{ kind: 'path.order', args: { spread: spread.id, order: next } }], newBurst())}
      >
        {(other) => <button onClick={() => onSelect(other)}>{itemName(folio, spread.items[other]!)}</button>}
      </SortableList>
      {item.kind === 'textFrame' && <PassageLanguages frame={id} />}
      <p className="soft hint">Alt with the arrow up or down moves what is chosen.</p>
    </>
  );
}
