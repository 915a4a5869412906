'use client';

import { useEffect, useState } from 'react';
import { canDropFrames, type Fraction, frameOfTimecode, momentFromText, timecodeOfFrame, ZERO } from '@/core/time';
import { useNotices } from '@/ui/notices';
import { TickBox } from '@/ui/tick-box';
import { useTimeLine } from './time-line-state';

/** Where the edit's time line starts, and which part of it was exported, as timecode that can be typed over. */
export function TimeLinePoints() {
  const { handle, rate, from, timecode } = useTimeLine();
  const { sheet, save } = handle;
  const { timeLine } = sheet;
  const set = (change: Partial<typeof timeLine>) => save({ timeLine: { ...timeLine, ...change } });
  const at = (text: string): Fraction => momentFromText(text, { rate, startFrame: timeLine.startFrame, from });
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-1.5 border-line border-t px-3.5 py-2 text-[13px]">
      <CodeField
        label="Time line starts"
        value={timecodeOfFrame(timeLine.startFrame, rate)}
        onSet={(text) => set({ startFrame: frameOfTimecode(text, rate) })}
      />
      <CodeField
        label="In (I)"
        title="The timecode at which the video begins"
        value={timecode(timeLine.from)}
        onSet={(text) => set({ from: text === '' ? ZERO : at(text), cutId: sheet.cut?.id })}
      />
      <CodeField
        label="Out (O)"
        title="The first timecode that was not exported; empty is the end of the video"
        value={timeLine.to ? timecode(timeLine.to) : ''}
        onSet={(text) => set({ to: text === '' ? undefined : at(text) })}
      />
      {canDropFrames(rate) && (
        <TickBox ticked={timeLine.dropFrame} onTick={(dropFrame) => set({ dropFrame })}>
          drop-frame
        </TickBox>
      )}
    </div>
  );
}

interface CodeFieldProps {
  label: string;
  title?: string;
  value: string;
  /** @throws TimecodeError, which is said */
  onSet: (text: string) => Promise<unknown>;
}

function CodeField({ label, title, value, onSet }: CodeFieldProps) {
  const [text, setText] = useState(value);
  const { trouble } = useNotices();
  useEffect(() => setText(value), [value]);
  const set = () => {
    if (text.trim() === value) return;
    try {
      void onSet(text.trim());
    } catch (error) {
      trouble(error);
      setText(value);
    }
  };
  return (
    <label data-tip={title} className="flex items-center gap-2 text-soft">
      {label}
      <input
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={set}
        onKeyDown={(event) => event.key === 'Enter' && set()}
        spellCheck={false}
        placeholder="–"
        className="w-[126px] rounded-md border border-edge bg-card px-2 py-1 font-mono text-ink"
      />
    </label>
  );
}
