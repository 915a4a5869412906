'use client';

import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';

/** What a button opens: a list of things that can be done. */
export function MenuList({ children }: { children: ReactNode }) {
  return (
    <DropdownMenu.Portal>
      <DropdownMenu.Content
        align="end"
        sideOffset={5}
        collisionPadding={8}
        className="enamel z-40 grid max-w-[92vw] p-1.5 text-sm shadow-lg"
      >
        {children}
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  );
}

/** One of them. */
export function MenuItem({ onPress, children }: { onPress: () => unknown; children: ReactNode }) {
  return (
    <DropdownMenu.Item
      onSelect={() => void onPress()}
      className="cursor-pointer rounded-md px-3 py-2 outline-none data-[highlighted]:bg-copper-wash"
    >
      {children}
    </DropdownMenu.Item>
  );
}
