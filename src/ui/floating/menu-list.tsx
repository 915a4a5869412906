'use client';

import { DropdownMenu } from 'radix-ui';
import type { ComponentProps, ReactNode } from 'react';

/** One of the things that can be done. */
export interface MenuItem {
  key: string;
  says: ReactNode;
  onPress: () => unknown;
}

interface MenuListProps {
  button: ComponentProps<'button'>;
  items: readonly MenuItem[];
  defaultOpen: boolean;
}

/** A button with the list of things to do that it opens. */
export function MenuList({ button, items, defaultOpen }: MenuListProps) {
  return (
    <DropdownMenu.Root defaultOpen={defaultOpen}>
      <DropdownMenu.Trigger {...button} />
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={5}
          collisionPadding={8}
          className="enamel z-40 grid max-w-[92vw] p-1.5 text-sm shadow-lg"
        >
          {items.map(({ key, says, onPress }) => (
            <DropdownMenu.Item
              key={key}
              onSelect={() => void onPress()}
              className="cursor-pointer rounded-md px-3 py-2 outline-none data-[highlighted]:bg-copper-wash"
            >
              {says}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
