'use client';

import { toDecimal } from '@/core/time';
import { startOfFrame, usePlayhead } from './player-state';
import { useTimeLine } from './time-line-state';

/** Where the playhead stands, to the frame: timecode of the time line, seconds and frame of the cut. */
export function PositionText() {
  const { frame, speed } = usePlayhead();
  const { timecode, timeOfCutFrame, rate } = useTimeLine();
  return (
    <span className="flex flex-wrap gap-x-3 font-mono text-sm">
      <b className="font-medium" data-testid="timecode">
        {timecode(timeOfCutFrame(frame))}
      </b>
      <span>{toDecimal(startOfFrame(frame, rate), 3)} s</span>
      <span>frame {frame}</span>
      {speed !== 0 && speed !== 1 && <span>{speed}×</span>}
    </span>
  );
}
