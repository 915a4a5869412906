'use client';

import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { Button } from '../button';
import { useFocusBack } from './use-focus-back';

export interface DialogPanelProps {
  open: boolean;
  onClose: () => void;
  title: ReactNode;
  /** What the button says that closes it and changes nothing. */
  close: string;
  /** Room for tables beside each other. */
  wide?: boolean;
  children: ReactNode;
}

/** Something that lies over the page until it is closed. */
export function DialogPanel({ open, onClose, ...content }: DialogPanelProps) {
  return (
    <Dialog.Root open={open} onOpenChange={(wanted) => !wanted && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Content {...content} />
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Content({ title, close, wide = false, children }: Omit<DialogPanelProps, 'open' | 'onClose'>) {
  const focusBack = useFocusBack();
  return (
    <Dialog.Content
      aria-describedby={undefined}
      onCloseAutoFocus={focusBack}
      className={`enamel fixed top-[8vh] left-1/2 z-50 flex max-h-[84vh] -translate-x-1/2 flex-col p-6 shadow-xl ${wide ? 'w-[min(760px,94vw)]' : 'w-[min(540px,94vw)]'}`}
    >
      <Dialog.Title className="mb-2 font-display font-semibold text-lg">{title}</Dialog.Title>
      <div className="-mx-1.5 -my-1 min-h-0 overflow-y-auto px-1.5 py-1">{children}</div>
      <Dialog.Close asChild>
        <Button look="plain" className="mt-4 self-start">
          {close}
        </Button>
      </Dialog.Close>
    </Dialog.Content>
  );
}
