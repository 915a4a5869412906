'use client';

import { ChevronDown } from 'lucide-react';
import { type PanelContent, PopButton } from './pop-button';

interface ChipPopoverProps {
  name: string;
  /** What is said beside the name, such as how much of it is in force. */
  says?: string;
  className?: string;
  children: PanelContent;
}

/** A chip that opens something small to choose from. */
export function ChipPopover({ name, says = '', className = '', children }: ChipPopoverProps) {
  const look = says === '' ? 'border-edge' : 'border-rim font-semibold';
  return (
    <PopButton
      button={{
        className: `inline-flex min-h-8 items-center gap-1.5 rounded-full border bg-card px-3 text-sm ${look} ${className}`,
        children: (
          <>
            {name}
            {says} <ChevronDown size={15} className="text-soft" aria-hidden />
          </>
        ),
      }}
      panel={{ label: name, className: 'grid w-[min(320px,92vw)] gap-2.5 p-3.5 text-sm' }}
    >
      {children}
    </PopButton>
  );
}
