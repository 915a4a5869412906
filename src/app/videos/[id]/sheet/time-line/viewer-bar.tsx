'use client';

import { toNumber } from '@/core/time';
import { useFromPlayhead, usePlayer } from './player-state';
import { useTimeLine } from './time-line-state';

/** Where the chapters begin, as ticks on a line, with the name of the one that plays. */
export function ViewerBar() {
  const { chapters, duration } = useTimeLine();
  const { seek } = usePlayer();
  const length = duration ? toNumber(duration) : 0;
  const starts = chapters.map(({ time }) => toNumber(time));
  const at = useFromPlayhead(({ seconds }) => starts.findLastIndex((start) => start <= seconds));
  // Drawn in steps of a thousandth: the eye sees no finer ones.
  const share = useFromPlayhead(({ seconds }) => (length > 0 ? Math.round((seconds / length) * 1000) / 10 : 0));
  if (length === 0) return null;
  const part = (seconds: number) => `${(seconds / length) * 100}%`;
  return (
    <div className="px-3 pt-2 text-white" data-testid="viewer-bar">
      <p className="truncate text-[13px] leading-tight">
        {chapters.length === 0 ? 'No chapters yet' : (chapters[at]?.title ?? 'Before the first chapter')}
      </p>
      <button
        type="button"
        tabIndex={-1}
        aria-hidden="true"
        onClick={(event) => {
          const box = event.currentTarget.getBoundingClientRect();
          seek(((event.clientX - box.left) / box.width) * length);
        }}
        className="relative mt-1 block h-6 w-full"
      >
        <span className="absolute inset-x-0 top-3.5 h-[3px] bg-white/35" />
        <span className="absolute top-3.5 left-0 h-[3px] bg-[#f0a878]" style={{ width: `${share}%` }} />
        {chapters.map(({ markerId, title }, index) => (
          <span
            key={markerId}
            data-tip={title}
            className="absolute top-1.5 h-3.5 w-[2px] -translate-x-px bg-white"
            style={{ left: part(starts[index] ?? 0) }}
          />
        ))}
      </button>
    </div>
  );
}
