import type { ReactNode } from 'react';
import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { arrayMove, SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { GripVertical } from 'lucide-react';

/** A list whose entries are dragged by a grip, or moved with the keys from it: space takes and puts down, arrows move. */
export function SortableList({
  ids,
  nameOf,
  onOrder,
  className,
  children,
  current,
}: {
  ids: readonly string[];
  /** What an entry is called to those who do not see it. */
  nameOf: (id: string) => string;
  onOrder: (ids: string[], moved: string) => void;
  className: string;
  children: (id: string) => ReactNode;
  current?: string | null;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        const [from, to] = [ids.indexOf(String(active.id)), ids.indexOf(String(over?.id))];
        if (from >= 0 && to >= 0 && from !== to) onOrder(arrayMove([...ids], from, to), String(active.id));
      }}
    >
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        <ol className={className}>
          {ids.map((id) => (
            <Entry key={id} id={id} name={nameOf(id)} current={current === id}>
              {children(id)}
            </Entry>
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

function Entry({ id, name, current, children }: { id: string; name: string; current: boolean; children: ReactNode }) {
  const { setNodeRef, setActivatorNodeRef, listeners, transform, transition, isDragging } = useSortable({ id });
  const moved = transform ? `translate(0, ${Math.round(transform.y)}px)` : undefined;
  return (
    <li
      ref={setNodeRef}
      data-entry={id}
      aria-current={current || undefined}
      className={isDragging ? 'dragged' : undefined}
      style={{ transform: moved, transition }}
    >
      <button ref={setActivatorNodeRef} className="grip" aria-label={`Move ${name}`} {...listeners}>
        <GripVertical size={14} aria-hidden />
      </button>
      {children}
    </li>
  );
}
