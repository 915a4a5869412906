'use client';

import { Check } from 'lucide-react';
import { Select } from 'radix-ui';
import type { ComponentProps, ReactNode } from 'react';

interface ChooseListProps<V extends string> {
  button: ComponentProps<'button'>;
  /** What stands in the button beside the name of what is chosen. */
  sign: ReactNode;
  value: V;
  options: readonly (readonly [value: V, name: string])[];
  onChange: (value: V) => void;
  defaultOpen: boolean;
}

// Radix keeps the empty value for nothing chosen; here it is one of the values.
const KEY = 'value ';

/** A button with the list that it opens, of which one is chosen. */
export function ChooseList<V extends string>({
  button,
  sign,
  value,
  options,
  onChange,
  defaultOpen,
}: ChooseListProps<V>) {
  return (
    <Select.Root
      value={KEY + value}
      onValueChange={(key) => onChange(key.slice(KEY.length) as V)}
      defaultOpen={defaultOpen}
    >
      <Select.Trigger {...button}>
        <span className="min-w-0 truncate">
          <Select.Value />
        </span>
        {sign}
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
