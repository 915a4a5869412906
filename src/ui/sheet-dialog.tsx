'use client';

import type { DialogPanelProps } from './floating/dialog-panel';
import { useFloating } from './floating/use-floating';

/** Something that lies over the page until it is closed. */
export function SheetDialog(props: DialogPanelProps) {
  const floating = useFloating(props.open);
  return floating ? <floating.DialogPanel {...props} /> : null;
}
