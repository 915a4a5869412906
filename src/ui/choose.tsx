'use client';

import { Check, ChevronDown } from 'lucide-react';
import { Select } from 'radix-ui';

interface ChooseProps<V extends string> {
  id?: string;
  /** What is chosen here, where no label stands beside it. */
  label?: string;
  value: V;
  options: readonly (readonly [value: V, name: string])[];
  onChange: (value: V) => void;
  className?: string;
}

/** The look of a list that stands among fields. */
export const CHOOSE_FIELD = 'rounded-lg px-3 py-2 bg-card';
/** The same, small, in a row of a table. */
export const CHOOSE_SMALL = 'rounded-md px-2 py-1 text-sm bg-card';
/** The same among filters. */
export const CHOOSE_CHIP = 'rounded-full px-3 py-1 text-sm bg-card';

// Radix keeps the empty value for nothing chosen; here it is one of the values.
const KEY = 'value ';

/** One of a list. */
export function Choose<V extends string>({
  id,
  label,
  value,
  options,
  onChange,
  className = CHOOSE_FIELD,
}: ChooseProps<V>) {
  return (
    <Select.Root value={KEY + value} onValueChange={(key) => onChange(key.slice(KEY.length) as V)}>
      <Select.Trigger
        id={id}
        aria-label={label}
        className={`inline-flex min-h-8 min-w-0 max-w-full items-center justify-between gap-2 border border-edge text-left ${className}`}
      >
        <span className="min-w-0 truncate">
          <Select.Value />
        </span>
        <Select.Icon className="flex-none text-soft">
          <ChevronDown size={15} />
        </Select.Icon>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          sideOffset={4}
          collisionPadding={8}
          className="enamel z-50 max-h-[var(--radix-select-content-available-height)] min-w-[var(--radix-select-trigger-width)] max-w-[92vw] overflow-hidden shadow-lg"
        >
          <Select.Viewport className="p-1">
            {options.map(([each, name]) => (
              <Select.Item
                key={each}
                value={KEY + each}
                className="flex min-h-8 cursor-pointer items-center gap-2 rounded-md py-1.5 pr-8 pl-2.5 text-sm outline-none data-[highlighted]:bg-copper-wash"
              >
                <span className="w-4 flex-none">
                  <Select.ItemIndicator>
                    <Check size={14} aria-hidden />
                  </Select.ItemIndicator>
                </span>
                <Select.ItemText>{name}</Select.ItemText>
              </Select.Item>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}
