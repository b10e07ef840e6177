import { Checkbox } from 'antd';
import type { Item } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { DraftArea } from '../shell/DraftField.tsx';

/** The words for a picture, and whether it is none that needs any. `name` tells it from others on the same screen. */
export function AltText({ item, spread, name }: { item: Item; spread: string; name?: string }) {
  const change = useDocument((s) => s.change);
  const decoration = useDocument((s) => s.folio!.head.structure.decorations.includes(item.id));
  return (
    <div className="words">
      {name === undefined && <label htmlFor="alt">Alt text</label>}
      <DraftArea
        {...(name === undefined ? { id: 'alt' } : { 'aria-label': `Alt text of ${name}` })}
        key={item.id}
        disabled={decoration}
        autoSize={{ minRows: name === undefined ? 2 : 1, maxRows: 6 }}
        value={item.alt ?? ''}
        placeholder="What a reader should know who does not see it"
        onKeep={(text, burst) => change([{ kind: 'item.alt', args: { spread, item: item.id, alt: text.trim() || null } }], burst)}
      />
      <DecorationChoice item={item.id} />
    </div>
  );
}

/** Whether an item is seen only. */
export function DecorationChoice({ item }: { item: string }) {
  const change = useDocument((s) => s.change);
  const decoration = useDocument((s) => s.folio!.head.structure.decorations.includes(item));
  return (
    <Checkbox
      checked={decoration}
      onChange={(e) => change([{ kind: 'item.decoration', args: { item, decoration: e.target.checked } }], newBurst())}
    >
      Decoration: says nothing, is not read
    </Checkbox>
  );
}
