'use client';

import type { SheetView } from '@/desk/views/views';
import { SavingState } from '@/ui/saving/saving-state';
import { UndoRedo } from '@/ui/undo-redo';
import { SectionNav } from './sections/section-nav';
import { findingsOf } from './sections/section-states';
import { useSections } from './sections/sections-provider';
import { RAIL_ID } from './sheet-keys';
import type { SheetHandle } from './use-sheet';

const SKIP =
  'textlink sr-only focus:not-sr-only focus:absolute focus:top-2 focus:left-4 focus:z-30 focus:rounded-lg focus:bg-card focus:px-3 focus:py-2';

/** What stays in sight on a Sheet: which video it is, whether all is kept, what there is to settle, and its sections. */
export function SheetHead({ handle }: { handle: SheetHandle }) {
  const { sheet, undo, redo } = handle;
  const { goTo, goToSection } = useSections();
  const [first, ...others] = findingsOf(sheet);
  return (
    <section
      aria-label="This video"
      data-head="stays"
      className="sticky top-0 z-20 grid grid-cols-[minmax(0,1fr)] gap-0.5 border-line border-b bg-card px-4 pt-2 sm:px-7"
    >
      <button type="button" onClick={() => goToSection('words')} className={SKIP}>
        Skip to the words
      </button>
      <a href={`#${RAIL_ID}`} className={SKIP}>
        Skip to where it goes
      </a>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-0.5">
        <h1 className="min-w-0 truncate text-[21px]!" data-tip={sheet.title}>
          {sheet.title || 'Without a title'}
        </h1>
        <span className="min-w-0 truncate text-[13px] text-soft">{seriesLine(sheet)}</span>
        <SavingState />
        <span className="ml-auto flex items-center gap-1">
          {first && (
            <button
              type="button"
              onClick={() => goTo(first.place)}
              className="min-h-8 px-2 text-sm text-snag hover:underline"
            >
              {others.length === 0 ? '1 thing to settle' : `${others.length + 1} things to settle`}
            </button>
          )}
          <UndoRedo can={sheet} undo={undo} redo={redo} />
        </span>
      </div>
      <SectionNav />
    </section>
  );
}

const seriesLine = ({ series, episode }: SheetView) => (series ? `${series.name} ${episode}`.trim() : '');
