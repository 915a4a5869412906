'use client';

import { type ComponentType, useEffect, useId, useState } from 'react';
import type { ListValue } from '@/core/defaults';
import { CHIP, ChipOff } from './chip-off';
import { FIELD } from './field-row';
import type { SortableChipsProps } from './sortable-chips';

/** The list in which items are put in order; loaded once somebody comes near it. */
function useSortableChips(wanted: boolean): ComponentType<SortableChipsProps> | undefined {
  const [Sortable, setSortable] = useState<ComponentType<SortableChipsProps>>();
  useEffect(() => {
    if (wanted) void import('./sortable-chips').then((part) => setSortable(() => part.SortableChips));
  }, [wanted]);
  return Sortable;
}

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
  const [near, setNear] = useState(false);
  const Sortable = useSortableChips(near && (own?.items.length ?? 0) > 1);
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
    // biome-ignore lint/a11y/noStaticElementInteractions: it only tells that what can be dragged is needed soon
    <div
      className={`${FIELD} flex flex-wrap gap-1.5`}
      onPointerEnter={() => setNear(true)}
      onTouchStart={() => setNear(true)}
      onFocus={() => setNear(true)}
    >
      {from.map((item) => (
        <span
          key={item}
          className="inline-flex items-center gap-1 rounded-full border border-line border-dashed px-2.5 py-0.5 text-sm text-soft"
        >
          {item}
          <ChipOff one={one} item={item} onClick={() => takeOff(item, false)} />
        </span>
      ))}
      {Sortable ? (
        <Sortable one={one} items={mine} onOrder={put} onTakeOff={(item) => takeOff(item, true)} />
      ) : (
        mine.map((item) => (
          <span key={item} className={CHIP}>
            {item}
            <ChipOff one={one} item={item} onClick={() => takeOff(item, true)} />
          </span>
        ))
      )}
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
