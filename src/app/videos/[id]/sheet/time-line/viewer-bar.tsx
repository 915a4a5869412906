'use client';

import { toNumber } from '@/core/time';
import { useFromPlayhead, usePlayer } from './player-state';
import { useTimeLine } from './time-line-state';

/** How the chapters cut the bar of a site's player, with the name of the one that plays. */
export function ViewerBar() {
  const { chapters, duration } = useTimeLine();
  const { seek } = usePlayer();
  const length = duration ? toNumber(duration) : 0;
  const starts = chapters.map(({ time }) => toNumber(time));
  const at = useFromPlayhead(({ seconds }) => starts.findLastIndex((start) => start <= seconds));
  // Drawn in steps of a thousandth: the eye sees no finer ones.
  const share = useFromPlayhead(({ seconds }) => (length > 0 ? Math.round((seconds / length) * 1000) / 10 : 0));
  if (length === 0) return null;
  const edges = chapters.length > 0 ? (starts[0] === 0 ? starts : [0, ...starts]) : [0];
  return (
    <div className="px-3 pt-2 text-white" data-testid="viewer-bar">
      <p className="truncate text-[13px] leading-tight">
        {chapters.length === 0 ? 'No chapters yet' : (chapters[at]?.title ?? 'Before the first chapter')}
      </p>
      <div className="mt-1.5 flex h-2.5 items-center gap-[3px]" aria-hidden="true">
        {edges.map((start, index) => {
          const end = edges[index + 1] ?? length;
          const filled = Math.max(0, Math.min(1, ((share / 100) * length - start) / (end - start)));
          const title = chapters.find(({ time }) => toNumber(time) === start)?.title;
          return (
            <button
              key={start}
              type="button"
              tabIndex={-1}
              title={title}
              onClick={(event) => {
                const box = event.currentTarget.getBoundingClientRect();
                seek(start + ((event.clientX - box.left) / box.width) * (end - start));
              }}
              className="group flex h-full min-w-[2px] items-center"
              style={{ flexGrow: Math.max(0.001, end - start), flexBasis: 0 }}
            >
              <span className="relative block h-[5px] w-full overflow-hidden rounded-full bg-white/30 group-hover:h-[8px]">
                <span className="absolute inset-y-0 left-0 bg-[#f0a878]" style={{ width: `${filled * 100}%` }} />
              </span>
            </button>
          );
        })}
      </div>
    </div>
  );
}
