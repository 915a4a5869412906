'use client';

import { ChapterPanel } from '../chapters/chapter-panel';
import { Player } from './player';
import { Ruler } from './ruler';
import { TimeLinePoints } from './time-line-points';
import { useTimeLine } from './time-line-state';
import { Transport } from './transport';

/** The time line: the video playing, its chapters beside it, the time ruler and what can be done on it below. */
export function TimeLineBlock({ onPickFile }: { onPickFile: () => void }) {
  const { sheet } = useTimeLine().handle;
  const { cut } = sheet;
  const plays = cut && (cut.state === 'ready' || cut.state === 'reading');
  return (
    <div data-time-line className="overflow-hidden">
      <div className={plays ? 'relative md:pr-[300px]' : ''}>
        {plays && <Player cutId={cut.id} captions={sheet.captions} />}
        <ChapterPanel onPickFile={onPickFile} beside={plays === true} />
      </div>
      <Transport />
      {cut?.facts && (
        <>
          <Ruler />
          <TimeLinePoints />
        </>
      )}
    </div>
  );
}
