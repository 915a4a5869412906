'use client';

import { type RefObject, useEffect, useRef } from 'react';

interface FilePickProps {
  input: RefObject<HTMLInputElement | null>;
  label: string;
  accept?: string;
  multiple?: boolean;
  onPick: (files: File[]) => unknown;
}

/** The browser's own choice of files; a button beside it presses it. */
export function FilePick({ input, label, accept, multiple, onPick }: FilePickProps) {
  const taken = useRef<FileList>(undefined);
  const take = async () => {
    const list = input.current?.files;
    // React plays an early choice again once it hears: it is one choice all the same.
    if (!list || list.length === 0 || list === taken.current) return;
    taken.current = list;
    await onPick([...list]);
    // The browser reads a file while it is sent, so the choice is cleared only afterwards.
    if (input.current) input.current.value = '';
  };
  const first = useRef(take);
  // What was picked before the page could hear of it.
  useEffect(() => void first.current(), []);
  return (
    <input
      ref={input}
      type="file"
      accept={accept}
      multiple={multiple}
      className="sr-only"
      tabIndex={-1}
      aria-label={label}
      onChange={() => void take()}
    />
  );
}
