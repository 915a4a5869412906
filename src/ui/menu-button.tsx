'use client';

import type { ComponentProps } from 'react';
import type { MenuItem } from './floating/menu-list';
import { useEarlyPress } from './floating/use-early-press';
import { useFloating } from './floating/use-floating';

interface MenuButtonProps {
  button: Pick<ComponentProps<'button'>, 'aria-label' | 'className' | 'children'>;
  items: readonly MenuItem[];
}

/** A button that opens a list of things to do. */
export function MenuButton({ button, items }: MenuButtonProps) {
  const floating = useFloating();
  const { early, pressed, focused } = useEarlyPress();
  if (!floating) return <button {...button} {...early} aria-haspopup="menu" />;
  return <floating.MenuList button={{ ...button, autoFocus: focused }} items={items} defaultOpen={pressed} />;
}
