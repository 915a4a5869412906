'use client';

import { type ReactNode, useState } from 'react';
import { PartBoundary } from '@/ui/part-boundary';
import { SECTION_NAMES, type SectionId, sectionAnchor } from './sections';
import { useSections } from './sections-provider';

interface SheetSectionProps {
  id: SectionId;
  /** What can be done without opening it. */
  acts?: ReactNode;
  children: ReactNode;
}

/** A section of the Sheet: a line that says how it stands, and all of it once it is open. */
export function SheetSection({ id, acts, children }: SheetSectionProps) {
  const { states, isOpen, setOpen } = useSections();
  const open = isOpen(id);
  // What was never open is not made; what was keeps what is typed in it.
  const [made, setMade] = useState(open);
  if (open && !made) setMade(true);
  const { says, missing, used } = states[id];
  if (!used) return null;
  const body = `${sectionAnchor(id)}-body`;
  return (
    <section id={sectionAnchor(id)} aria-label={SECTION_NAMES[id]} className="tray min-w-0">
      <header className="flex flex-wrap items-center gap-x-3 pr-3">
        <h2 className="min-w-0 flex-1">
          <button
            type="button"
            aria-expanded={open}
            aria-controls={body}
            onClick={() => setOpen(id, !open)}
            className="flex w-full items-baseline gap-x-3 rounded-[10px] px-4 py-3 text-left hover:bg-sunk"
          >
            <span className="flex-none">{SECTION_NAMES[id]}</span>
            <span className="min-w-0 flex-1 truncate font-normal font-text text-[13px] text-soft tracking-normal">
              {missing > 0 && <b className="text-snag">▲ {missing} to settle </b>}
              {says}
            </span>
            <span className="flex-none font-semibold font-text text-copper text-sm">{open ? 'Fold' : 'Open'}</span>
          </button>
        </h2>
        {acts}
      </header>
      <div id={body} hidden={!open} className="border-line border-t">
        {made && <PartBoundary>{children}</PartBoundary>}
      </div>
    </section>
  );
}
