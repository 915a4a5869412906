'use client';

import { Popover } from 'radix-ui';
import type { ComponentProps, ReactNode } from 'react';

export interface PanelLook {
  /** What the panel is called. */
  label: string;
  align?: 'start' | 'end';
  /** Beside the look that all panels have. */
  className: string;
}

interface PopPanelProps extends PanelLook {
  button: ComponentProps<'button'>;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  children: ReactNode;
}

/** A button with the small panel that it opens. */
export function PopPanel({ button, label, align = 'end', className, open, onOpenChange, children }: PopPanelProps) {
  return (
    <Popover.Root open={open} onOpenChange={onOpenChange}>
      <Popover.Trigger {...button} />
      <Popover.Portal>
        <Popover.Content
          align={align}
          sideOffset={5}
          collisionPadding={8}
          aria-label={label}
          className={`enamel z-40 shadow-lg ${className}`}
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
