import { useMemo } from 'react';
import { Button, Checkbox } from 'antd';
import { Copy, X } from 'lucide-react';
import { isMasterInstance, newEmbed, newField, newMedia, newVeil } from '@elastic-folio/core';
import type { Grid, Item, MovingPart, Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { itemName } from '../table/SpreadView.tsx';
import { CopiedHere } from './CopiedHere.tsx';
import { GridRepeat } from './GridRepeat.tsx';
import { HeldCues } from './HeldCues.tsx';
import { NewCue } from './NewCue.tsx';
import { newId } from './newId.ts';
import { PartSettings, RemovePart } from './PartSettings.tsx';
import { useCopying } from './useCopying.ts';

const MOVING = new Set<Item['kind']>(['switcher', 'veil', 'field', 'media', 'embed']);

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
  const copying = useCopying();
  const item = spread.items[id]!;
  const cues = Object.values(item.cues);
  const fixed = isMasterInstance(id);
  const isPart = MOVING.has(item.kind);
  const alone = useMemo(() => [item], [item]);
  const lay = (part: MovingPart): void => {
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
      <HeldCues spread={spread.id} holder={id} label="Cues of this item" cues={cues} fixed={fixed} />
      <p className="path-moves">
        {cues.length > 0 && (
          <Button size="small" icon={<Copy size={13} />} onClick={() => copying.cues(cues)}>
            Copy its cues
          </Button>
        )}
        {!fixed && (
          <>
            <Button size="small" icon={<Copy size={13} />} onClick={() => copying.items(spread, [id], itemName(folio, item))}>
              Copy it
            </Button>
            <CopiedHere place={{ spread: spread.id, holder: id }} words="Hang the copied cues on it" />
          </>
        )}
      </p>
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
                <Button size="small" onClick={() => lay(newMedia(folio, spread, item, newId('media')))}>
                  Play a film or sound there
                </Button>
                <Button size="small" onClick={() => lay(newEmbed(folio, spread, item, newId('embed')))}>
                  Show something of the web there
                </Button>
              </>
            )}
          </p>
          {item.kind !== 'group' && item.kind !== 'switcher' && (
            <GridRepeat key={`grid of ${id}`} spread={spread} items={alone} onPreview={onPreview} />
          )}
        </>
      )}
    </>
  );
}
