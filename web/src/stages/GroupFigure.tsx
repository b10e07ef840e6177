import { Checkbox } from 'antd';
import { groupAround, runsOn } from '@elastic-folio/core';
import type { Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { itemName } from '../table/SpreadView.tsx';
import { AltText } from './AltText.tsx';

/** Whether the group that the chosen item stands in is one figure in running text, and the words for it. */
export function GroupFigure({ spread, item }: { spread: Spread; item: string }) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const group = groupAround(spread, item);
  if (!group) return null;
  const cut = runsOn(folio, spread, group);
  const figure = !cut && folio.head.structure.figures.includes(group.id);
  return (
    <div className="group-figure">
      <Checkbox
        checked={figure}
        disabled={cut}
        onChange={(e) => change([{ kind: 'item.figure', args: { item: group.id, figure: e.target.checked } }], newBurst())}
      >
        The whole group is one figure in running text
      </Checkbox>
      {cut && <p className="soft hint">A text of the group goes on outside it, so it cannot be drawn as one.</p>}
      {figure && <AltText item={group} spread={spread.id} name={itemName(folio, group)} />}
    </div>
  );
}
