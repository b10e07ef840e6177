import { Button, Checkbox } from 'antd';
import { Trash2, X } from 'lucide-react';
import { isMasterInstance, newField, newVeil } from '@elastic-folio/core';
import type { Field, Grid, Item, Spread, Veil } from '@elastic-folio/core';
import { newBurst, useDocument } from '../document/documentStore.ts';
import { itemName } from '../table/SpreadView.tsx';
import { CueWords } from './CueList.tsx';
import { GridRepeat } from './GridRepeat.tsx';
import { NewCue } from './NewCue.tsx';
import { PartSettings, RemovePart } from './PartSettings.tsx';

const MOVING = new Set<Item['kind']>(['switcher', 'veil', 'field', 'media', 'embed']);
const newId = (kind: string): string => `${kind}-${crypto.randomUUID().slice(0, 8)}`;

interface Props {
  spread: Spread;
  item: string;
  onSelect: (item: string | null) => void;
  /** Shows on the page where the copies of a grid would stand. */
  onPreview: (grid: Grid | null) => void;
}

/** What the chosen item does: its cues, how it begins, and how it turns where it is a switcher. */
export function ItemMotion({ spread, item: id, onSelect, onPreview }: Props) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const item = spread.items[id]!;
  const cues = Object.values(item.cues);
  const fixed = isMasterInstance(id);
  const isPart = MOVING.has(item.kind);
  const lay = (part: Field | Veil): void => {
    change([{ kind: 'part.set', args: { spread: spread.id, item: part } }], newBurst());
    onSelect(part.id);
  };
  return (
    <>
      <div className="sheet-head">
        <h2>{itemName(folio, item)}</h2>
        <Button type="text" size="small" icon={<X size={15} />} aria-label="Close" onClick={() => onSelect(null)} />
      </div>
      <PartSettings key={id} spread={spread.id} item={item} />
      <h2>What happens</h2>
      {cues.length === 0 && <p className="soft">Nothing yet.</p>}
      <ul className="cue-list" aria-label="Cues of this item">
        {cues.map((cue) => (
          <li key={cue.id}>
            <CueWords cue={cue} />
            <Button
              type="text"
              size="small"
              icon={<Trash2 size={13} />}
              aria-label="Remove this cue"
              disabled={fixed}
              onClick={() => change([{ kind: 'cue.remove', args: { spread: spread.id, holder: id, cue: cue.id } }], newBurst())}
            />
          </li>
        ))}
      </ul>
      {fixed ? (
        <p className="soft hint">It stands on a master page, where its cues are said once for all pages.</p>
      ) : (
        <>
          <Checkbox
            checked={item.startsHidden === true}
            onChange={(e) =>
              change([{ kind: 'item.startsHidden', args: { spread: spread.id, item: id, hidden: e.target.checked } }], newBurst())
            }
          >
            Not seen until a cue shows it
          </Checkbox>
          <NewCue key={id} spread={spread} holder={id} />
          <p className="path-moves">
            {isPart ? (
              <RemovePart spread={spread.id} item={item} onRemoved={() => onSelect(null)} />
            ) : (
              <>
                <Button size="small" onClick={() => lay(newField(folio, spread, item, newId('field'), itemName(folio, item)))}>
                  Lay a field on it
                </Button>
                <Button size="small" onClick={() => lay(newVeil(folio, spread, item, newId('veil')))}>
                  Cover it with a veil
                </Button>
              </>
            )}
          </p>
          {item.kind !== 'group' && item.kind !== 'switcher' && (
            <GridRepeat key={`grid of ${id}`} spread={spread} item={item} onPreview={onPreview} />
          )}
        </>
      )}
    </>
  );
}
