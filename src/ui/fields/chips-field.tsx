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
import { useId, useState } from 'react';
import type { ListValue } from '@/core/defaults';
import { FIELD } from './field-row';

interface ChipsFieldProps {
  id: string;
  /** What one item is called: “tag”. */
  one: string;
  /** What this layer sets, where it sets something. */
  own: ListValue<string> | undefined;
  /** What the layers beneath give. */
  beneath: readonly string[];
  onChange: (value: ListValue<string> | null) => void;
  /** The items in a text that was typed or pasted. */
  parse: (text: string) => string[];
  placeholder: string;
  /** What is offered while typing. */
  known?: readonly string[];
}

/**
 * A list of short texts: typed or pasted with commas, put in order by dragging or from the keyboard. What comes from the
 * layers beneath stands before it; taking one of those off takes the whole list over.
 */
export function ChipsField({ id, one, own, beneath, onChange, parse, placeholder, known }: ChipsFieldProps) {
  const [typed, setTyped] = useState('');
  const listId = useId();
  const dragId = useId();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const from = own?.way === 'replace' ? [] : beneath;
  const mine = own?.items ?? [];
  const way = own?.way ?? 'add';
  const put = (items: string[]) => onChange(items.length === 0 && way === 'add' ? null : { way, items });
  const add = (text = typed) => {
    const has = new Set([...from, ...mine].map((item) => item.toLowerCase()));
    const fresh = parse(text).filter((item) => !has.has(item.toLowerCase()));
    setTyped('');
    if (fresh.length > 0) put([...mine, ...fresh]);
  };
  const takeOff = (item: string, isMine: boolean) => {
    if (isMine) put(mine.filter((each) => each !== item));
    else onChange({ way: 'replace', items: [...from.filter((each) => each !== item), ...mine] });
  };
  return (
    <div className={`${FIELD} flex flex-wrap gap-1.5`}>
      {from.map((item) => (
        <span
          key={item}
          className="inline-flex items-center gap-1 rounded-full border border-line border-dashed px-2.5 py-0.5 text-sm text-soft"
        >
          {item}
          <ChipOff one={one} item={item} onClick={() => takeOff(item, false)} />
        </span>
      ))}
      <DndContext
        id={dragId}
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) => {
          if (!over || active.id === over.id) return;
          put(arrayMove([...mine], mine.indexOf(String(active.id)), mine.indexOf(String(over.id))));
        }}
      >
        <SortableContext items={mine} strategy={rectSortingStrategy}>
          {mine.map((item) => (
            <Chip key={item} one={one} item={item} onTakeOff={() => takeOff(item, true)} />
          ))}
        </SortableContext>
      </DndContext>
      <input
        id={id}
        value={typed}
        list={known ? listId : undefined}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => add()}
        onPaste={(event) => {
          const text = event.clipboardData.getData('text');
          // A pasted list is taken at once; a field of one line would lose its line ends.
          if (parse(text).length < 2) return;
          event.preventDefault();
          add(typed + text);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter' || event.key === ',') {
            event.preventDefault();
            add();
          } else if (event.key === 'Backspace' && typed === '' && mine.length > 0) put(mine.slice(0, -1));
        }}
        placeholder={from.length + mine.length === 0 ? placeholder : ''}
        className="min-w-32 flex-1 bg-transparent outline-none"
      />
      {known && (
        <datalist id={listId}>
          {known.map((item) => (
            <option key={item} value={item} />
          ))}
        </datalist>
      )}
    </div>
  );
}

function ChipOff({ one, item, onClick }: { one: string; item: string; onClick: () => void }) {
  return (
    <button
      type="button"
      aria-label={`Remove the ${one} ${item}`}
      onClick={onClick}
      className="text-soft hover:text-snag"
    >
      ×
    </button>
  );
}

function Chip({ one, item, onTakeOff }: { one: string; item: string; onTakeOff: () => void }) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: item });
  return (
    <span
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`inline-flex items-center gap-1 rounded-full bg-sunk px-2.5 py-0.5 text-sm ${isDragging ? 'z-10 shadow-lg' : ''}`}
    >
      <button
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`Move the ${one} ${item}`}
        className="cursor-grab touch-none"
      >
        {item}
      </button>
      <ChipOff one={one} item={item} onClick={onTakeOff} />
    </span>
  );
}
