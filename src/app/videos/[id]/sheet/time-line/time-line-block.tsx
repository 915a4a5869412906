'use client';

import type { Shape } from '@/core/framing';
import { ChapterPanel } from '../chapters/chapter-panel';
import { FrameOver } from '../framing/frame-over';
import { FramePanel } from '../framing/frame-panel';
import { useFraming } from '../framing/framing-state';
import { useFrame } from '../framing/use-frame';
import { Player } from './player';
import { Ruler } from './ruler';
import { TimeLinePoints } from './time-line-points';
import { useTimeLine } from './time-line-state';
import { Transport } from './transport';

/** The time line: the video playing, its chapters beside it, the time ruler and what can be done on it below. */
export function TimeLineBlock({ onPickFile }: { onPickFile: () => void }) {
  const { sheet } = useTimeLine().handle;
  const { shape } = useFraming();
  const { cut } = sheet;
  const plays = cut && !cut.gone && (cut.state === 'ready' || cut.state === 'reading');
  return (
    <div data-time-line className="overflow-hidden">
      <div className={plays ? 'relative md:pr-[300px]' : ''}>
        {plays && cut.facts && shape ? (
          <FramedPlayer shape={shape} />
        ) : (
          <>
            {plays && <Player cutId={cut.id} captions={sheet.captions} />}
            <ChapterPanel onPickFile={onPickFile} beside={plays === true} />
          </>
        )}
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

/** The video with a frame over it, and what comes of that beside it. */
function FramedPlayer({ shape }: { shape: Shape }) {
  const { handle } = useTimeLine();
  const { sheet } = handle;
  const frame = useFrame(handle, shape);
  return (
    <>
      <Player cutId={sheet.cut?.id ?? ''} captions={[]}>
        <FrameOver frame={frame} shape={shape} />
      </Player>
      <FramePanel frame={frame} shape={shape} shapes={sheet.shapes} />
    </>
  );
}
