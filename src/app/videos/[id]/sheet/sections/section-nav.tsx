'use client';

import { SECTION_NAMES, SECTIONS } from './sections';
import { useSections } from './sections-provider';

/** The list of sections to jump by, each with how it stands. */
export function SectionNav() {
  const { states, goToSection, here, allOpen, setAllOpen } = useSections();
  return (
    <nav aria-label="Sections" className="-mx-1 flex items-center gap-0.5 overflow-x-auto px-1">
      {SECTIONS.filter((id) => states[id].used).map((id) => {
        const { missing, done } = states[id];
        const current = id === here;
        return (
          <button
            key={id}
            type="button"
            onClick={() => goToSection(id)}
            aria-current={current ? 'true' : undefined}
            className={`min-h-9 flex-none whitespace-nowrap border-b-[3px] px-2.5 text-sm hover:text-ink ${current ? 'border-copper font-semibold text-ink' : 'border-transparent text-soft'}`}
          >
            {SECTION_NAMES[id]}{' '}
            {missing > 0 ? (
              <span className="text-snag text-xs">▲ {missing}</span>
            ) : (
              done && (
                <span className="text-live text-xs" role="img" aria-label="done">
                  ✓
                </span>
              )
            )}
          </button>
        );
      })}
      <button
        type="button"
        onClick={() => setAllOpen(!allOpen)}
        className="ml-auto min-h-9 flex-none whitespace-nowrap px-2.5 text-copper text-sm hover:underline"
      >
        {allOpen ? 'Fold all' : 'Open all'}
      </button>
    </nav>
  );
}
