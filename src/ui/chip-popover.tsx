'use client';

import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';

interface ChipPopoverProps {
  name: string;
  /** What is said beside the name, such as how much of it is in force. */
  says?: string;
  open?: boolean;
  onOpenChange?: (open: boolean) => void;
  className?: string;
  children: ReactNode;
}

/** A chip that opens something small to choose from. */
export function ChipPopover({ name, says = '', open, onOpenChange, className = '', children }: ChipPopoverProps) {
  return (
    <Popover.Root open={open} onOpenChange={onOpenChange}>
      <Popover.Trigger
        className={`inline-flex min-h-8 items-center gap-1.5 rounded-full border bg-card px-3 text-sm ${says === '' ? 'border-edge' : 'border-rim font-semibold'} ${className}`}
      >
        {name}
        {says} <ChevronDown size={15} className="text-soft" aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={5}
          collisionPadding={8}
          aria-label={name}
          className="enamel z-40 grid w-[min(320px,92vw)] gap-2.5 p-3.5 text-sm shadow-lg"
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
