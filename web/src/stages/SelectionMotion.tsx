import { Button, Checkbox, Select } from 'antd';
import { Copy, Layers2, X } from 'lucide-react';
import { cardsOf, heldItems, isMasterInstance, newField } from '@elastic-folio/core';
import type { Edit, Grid, Item, Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { itemName } from '../table/SpreadView.tsx';
import { GridRepeat } from './GridRepeat.tsx';
import { newId } from './newId.ts';
import { useCopying } from './useCopying.ts';

interface Props {
  spread: Spread;
  items: readonly Item[];
  onSelect: (items: string[]) => void;
  onPreview: (grid: Grid | null) => void;
}

/** What can be done with several items at once: take turns in one place, be repeated, be copied, have a field each. */
export function SelectionMotion({ spread, items, onSelect, onPreview }: Props) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const copying = useCopying();
  const name = (item: Item): string => itemName(folio, item);
  const held = heldItems(spread);
  const free = items.filter((i) => !held.has(i.id) && !isMasterInstance(i.id));
  const cards =
    free.length > 1
      ? cardsOf(
          spread,
          free.map((i) => i.id),
        )
      : [];
  const cardName = (card: string[]): string => {
    const words = card.map((id) => spread.items[id]!).sort((a, b) => Number(b.kind === 'textFrame') - Number(a.kind === 'textFrame'));
    return name(words[0]!)
      .replace(/^Text “(.*)”$/, '$1')
      .slice(0, 60);
  };
  const take = (): void => {
    const id = newId('switcher');
    const made = cards.map((card, i) => ({ id: `${id}-${i + 1}`, name: cardName(card), items: card }));
    change([{ kind: 'switcher.make', args: { spread: spread.id, id, name: 'Switcher', cards: made } }], newBurst());
    onSelect([id]);
  };
  const layFields = (): void => {
    let here = folio;
    const edits: Edit[] = free.map((over) => {
      const item = newField(here, here.spreads[spread.id]!, over, newId('field'), name(over));
      // The next field must know the name of this one.
      const now = here.spreads[spread.id]!;
      here = { ...here, spreads: { ...here.spreads, [spread.id]: { ...now, items: { ...now.items, [item.id]: item } } } };
      return { kind: 'part.set', args: { spread: spread.id, item } };
    });
    change(edits, newBurst());
  };
  return (
    <>
      <div className="sheet-head">
        <h2>{items.length} things</h2>
        <Button type="text" size="small" icon={<X size={15} />} aria-label="Close" onClick={() => onSelect([])} />
      </div>
      <Select
        mode="multiple"
        aria-label="What is chosen"
        showSearch={{ optionFilterProp: 'label' }}
        value={items.map((i) => i.id)}
        onChange={onSelect}
        options={Object.values(spread.items).map((i) => ({ value: i.id, label: name(i) }))}
      />
      {free.length < items.length && <p className="soft hint">What stands in a group, on a card or on a master page stays where it is.</p>}
      <div className="new-cue">
        {cards.length > 1 && (
          <>
            <p className="soft hint">
              {cards.length} cards: {cards.map(cardName).join(', ')}. What touches shares a card.
            </p>
            <Button icon={<Layers2 size={14} />} onClick={take}>
              Let them take turns in one place
            </Button>
          </>
        )}
        <Checkbox
          checked={items.every((i) => i.startsHidden === true)}
          indeterminate={items.some((i) => i.startsHidden) && !items.every((i) => i.startsHidden)}
          onChange={(e) =>
            change(
              items.map((i): Edit => ({ kind: 'item.startsHidden', args: { spread: spread.id, item: i.id, hidden: e.target.checked } })),
              newBurst(),
            )
          }
        >
          Not seen until a cue shows them
        </Checkbox>
      </div>
      <p className="path-moves">
        <Button size="small" disabled={!free.length} onClick={layFields}>
          Lay a field on each
        </Button>
        <Button
          size="small"
          icon={<Copy size={13} />}
          disabled={!free.length}
          onClick={() =>
            copying.items(
              spread,
              free.map((i) => i.id),
              `${free.length} things`,
            )
          }
        >
          Copy
        </Button>
      </p>
      {free.length > 0 && free.every((i) => i.kind !== 'group' && i.kind !== 'switcher') && (
        <GridRepeat key={free.map((i) => i.id).join(' ')} spread={spread} items={free} onPreview={onPreview} />
      )}
    </>
  );
}
