import { useCallback, useState } from 'react';
import { DndContext, PointerSensor, pointerWithin, useSensor, useSensors } from '@dnd-kit/core';
import type { DragEndEvent } from '@dnd-kit/core';
import { Segmented } from 'antd';
import { spreadOfItem } from '@elastic-folio/core';
import type { Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { useAddress } from '../shell/address.ts';
import { PageTable } from '../table/PageTable.tsx';
import { editOfDrop } from '../table/pathDrag.ts';
import type { Dragged, DropTarget } from '../table/pathDrag.ts';
import { PathRule } from '../table/PathRule.tsx';
import { PathSheet } from './PathSheet.tsx';
import { AboutSheet } from './AboutSheet.tsx';
import { OutlineList } from './OutlineList.tsx';
import { PictureList } from './PictureList.tsx';
import { RoleList } from './RoleList.tsx';
import { StrandList } from './StrandList.tsx';

const PARTS = [
  { value: 'styles', label: 'Styles' },
  { value: 'path', label: 'Path' },
  { value: 'pictures', label: 'Pictures' },
  { value: 'outline', label: 'Outline' },
  { value: 'about', label: 'About' },
];
const NO_POINTS: ReadonlySet<number> = new Set();

/** What the layout means: the path on the pages, and beside it what each style means or how the chosen item is read. */
export function Structure() {
  const [search, change] = useAddress();
  const folio = useDocument((s) => s.folio)!;
  const whole = useDocument((s) => s.loading === 'all');
  const item = search.get('item');
  const asked = search.get('part');
  const part = PARTS.some((p) => p.value === asked) ? asked! : 'styles';
  const onSelect = useCallback((id: string | null) => change({ item: id }), [change]);
  const onZoom = useCallback((z: number | 'fit') => change({ zoom: z === 'fit' ? null : String(z) }), [change]);
  const onPage = useCallback((n: number) => change({ page: n === 1 ? null : String(n) }), [change]);
  const home = item === null ? undefined : spreadOfItem(folio, item);
  const painted = useDocument((s) => s.painted);
  const edit = useDocument((s) => s.change);
  const [dragged, setDragged] = useState<Dragged | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const rule = useCallback(
    (spread: Spread, scale: number) => (
      <PathRule folio={folio} spread={spread} places={painted[spread.id]?.places ?? []} scale={scale} selected={item} dragged={dragged} />
    ),
    [folio, item, painted, dragged],
  );
  const drop = ({ over }: DragEndEvent): void => {
    const change = dragged && editOfDrop(folio, dragged, over?.data.current as DropTarget | undefined);
    setDragged(null);
    if (change) edit([change], newBurst());
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={(e) => setDragged(e.active.data.current as Dragged)}
      onDragCancel={() => setDragged(null)}
      onDragEnd={drop}
    >
      <div className="with-sheet">
        <PageTable
          selected={home ? item : null}
          onSelect={onSelect}
          points={NO_POINTS}
          zoom={Number(search.get('zoom')) || 'fit'}
          onZoom={onZoom}
          page={Number(search.get('page')) || 1}
          onPage={onPage}
          over={whole ? rule : undefined}
        />
        <aside className="sheet" aria-label="Details">
          {home && item !== null ? (
            <PathSheet spread={home} item={item} onSelect={onSelect} />
          ) : (
            <>
              <Segmented
                block
                size="small"
                aria-label="Parts of the structure"
                value={part}
                onChange={(v) => change({ part: v === 'styles' ? null : v })}
                options={PARTS}
              />
              {part === 'path' ? (
                <StrandList onSelect={onSelect} />
              ) : part === 'pictures' ? (
                <PictureList onSelect={onSelect} />
              ) : part === 'outline' ? (
                <OutlineList onSelect={onSelect} />
              ) : part === 'about' ? (
                <AboutSheet />
              ) : (
                <RoleList />
              )}
            </>
          )}
        </aside>
      </div>
    </DndContext>
  );
}
