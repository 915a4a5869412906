'use client';

import { useEffect, useState } from 'react';
import { useArrivals } from './arrivals';
import { droppedFiles } from './dropped-files';

/** Takes finished files that are dropped on any page, where the page itself has nothing else to do with them. */
export function DropAnywhere() {
  const { bring } = useArrivals();
  const [over, setOver] = useState(false);
  useEffect(() => {
    const hasFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false;
    const dragOver = (event: DragEvent) => {
      if (!hasFiles(event)) return;
      setOver(!event.defaultPrevented);
      event.preventDefault();
    };
    const leave = (event: DragEvent) => {
      if (event.relatedTarget === null) setOver(false);
    };
    const drop = (event: DragEvent) => {
      setOver(false);
      if (event.defaultPrevented || !hasFiles(event)) return;
      event.preventDefault();
      void droppedFiles(event).then((files) => (files.length > 0 ? bring(files) : undefined));
    };
    window.addEventListener('dragover', dragOver);
    window.addEventListener('dragleave', leave);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', dragOver);
      window.removeEventListener('dragleave', leave);
      window.removeEventListener('drop', drop);
    };
  }, [bring]);
  if (!over) return null;
  return (
    <div className="pointer-events-none fixed inset-2 z-50 grid place-items-center rounded-2xl border-[3px] border-copper border-dashed bg-copper-wash/80">
      <p className="font-display font-semibold text-xl">Drop finished videos to add them</p>
    </div>
  );
}
