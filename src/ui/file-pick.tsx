'use client';

import type { RefObject } from 'react';

interface FilePickProps {
  input: RefObject<HTMLInputElement | null>;
  label: string;
  accept?: string;
  multiple?: boolean;
  onPick: (files: File[]) => unknown;
}

/** The browser's own choice of files; a button beside it presses it. */
export function FilePick({ input, label, accept, multiple, onPick }: FilePickProps) {
  return (
    <input
      ref={input}
      type="file"
      accept={accept}
      multiple={multiple}
      className="sr-only"
      tabIndex={-1}
      aria-label={label}
      onChange={async (event) => {
        const files = [...(event.target.files ?? [])];
        if (files.length > 0) await onPick(files);
        // The browser reads a file while it is sent, so the choice is cleared only afterwards.
        if (input.current) input.current.value = '';
      }}
    />
  );
}
