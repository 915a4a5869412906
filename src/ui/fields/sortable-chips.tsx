'use client';

import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import {
  arrayMove,
  rectSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { useId } from 'react';
import { dragWords } from '../drag-words';
import { CHIP, ChipOff } from './chip-off';

export interface SortableChipsProps {
  one: string;
  items: string[];
  onOrder: (items: string[]) => void;
  onTakeOff: (item: string) => void;
}

/** Items that are put in order by dragging or from the keyboard. */
export function SortableChips({ one, items, onOrder, onTakeOff }: SortableChipsProps) {
  const dragId = useId();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  return (
    <DndContext
      id={dragId}
      accessibility={{
        announcements: dragWords({
          what: ({ id }) => `the ${one} ${id}`,
          where: ({ id }) => `place ${items.indexOf(String(id)) + 1} of ${items.length}`,
        }),
        screenReaderInstructions: {
          draggable: 'Press the space bar to pick it up, arrows to move it, space again to put it.',
        },
      }}
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        if (!over || active.id === over.id) return;
        onOrder(arrayMove([...items], items.indexOf(String(active.id)), items.indexOf(String(over.id))));
      }}
    >
      <SortableContext items={items} strategy={rectSortingStrategy}>
        {items.map((item) => (
          <Chip key={item} one={one} item={item} onTakeOff={() => onTakeOff(item)} />
        ))}
      </SortableContext>
    </DndContext>
  );
}

function Chip({ one, item, onTakeOff }: { one: string; item: string; onTakeOff: () => void }) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: item });
  return (
    <span
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`${CHIP} max-w-full ${isDragging ? 'z-10 shadow-lg' : ''}`}
    >
      <button
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`Move the ${one} ${item}`}
        className="min-w-0 cursor-grab touch-none [overflow-wrap:anywhere]"
      >
        {item}
      </button>
      <ChipOff one={one} item={item} onClick={onTakeOff} />
    </span>
  );
}
