'use client';

import { type ComponentProps, type ReactNode, useState } from 'react';
import type { PanelLook } from './floating/pop-panel';
import { useEarlyPress } from './floating/use-early-press';
import { useFloating } from './floating/use-floating';

export type PanelContent = ReactNode | ((close: () => void) => ReactNode);

interface PopButtonProps {
  button: Pick<ComponentProps<'button'>, 'id' | 'className' | 'children'>;
  panel: PanelLook;
  /** What stands in the panel; where something in it closes it, made by a function. */
  children: PanelContent;
}

/** A button that opens a small panel. */
export function PopButton({ button, panel, children }: PopButtonProps) {
  const floating = useFloating();
  const { early, pressed, focused } = useEarlyPress();
  const [open, setOpen] = useState<boolean>();
  if (!floating) return <button {...button} {...early} aria-haspopup="dialog" />;
  return (
    <floating.PopPanel
      button={{ ...button, autoFocus: focused }}
      {...panel}
      open={open ?? pressed}
      onOpenChange={setOpen}
    >
      {typeof children === 'function' ? children(() => setOpen(false)) : children}
    </floating.PopPanel>
  );
}
