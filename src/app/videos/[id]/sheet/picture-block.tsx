'use client';

import { useRef } from 'react';
import { binarySize } from '@/core/delivery';
import { Button } from '@/ui/button';
import { FilePick } from '@/ui/file-pick';
import { SheetMark } from './sheet-mark';
import { usePlayer, usePlayhead } from './time-line/player-state';
import { useTimeLine } from './time-line/time-line-state';
import type { SheetHandle } from './use-sheet';
import type { FileTaking } from './use-take-file';

/** The thumbnail: an own picture, the frame at the playhead, or what the site picks. */
export function PictureBlock({ handle, taking }: { handle: SheetHandle; taking: FileTaking }) {
  const { sheet, act } = handle;
  const player = usePlayer();
  const { timecode, timeOfCutFrame } = useTimeLine();
  const { frame } = usePlayhead();
  const input = useRef<HTMLInputElement>(null);
  const { picture } = sheet;
  const at = `/api/videos/${sheet.id}/picture`;
  const findings = sheet.channels
    .filter((channel) => channel.ticked)
    .flatMap((channel) =>
      channel.missing.filter((missing) => missing.place === 'picture').map((missing) => missing.what),
    );
  return (
    <div id="picture" className="grid gap-3 px-4 py-3.5">
      <div className="flex flex-wrap gap-4">
        {picture ? (
          <img
            src={`/api/pictures/${picture.id}`}
            alt="The chosen thumbnail"
            className="aspect-video w-60 rounded-md object-cover"
          />
        ) : (
          <div className="grid aspect-video w-60 place-items-center rounded-md bg-sunk px-4 text-center text-[13px] text-soft">
            No picture of your own: the site picks a frame
          </div>
        )}
        <div className="flex flex-col items-start gap-2">
          {sheet.cut?.facts && !sheet.cut.gone && (
            <Button onClick={() => act(at, { method: 'POST', json: { seconds: player.now().seconds } })}>
              Use the frame at <span className="font-mono">{timecode(timeOfCutFrame(frame))}</span>
            </Button>
          )}
          <Button onClick={() => input.current?.click()}>Choose a picture file</Button>
          {picture && (
            <Button look="plain" onClick={() => act(at, { method: 'DELETE' })}>
              Let the site pick
            </Button>
          )}
          {picture && (
            <p className="text-[13px] text-soft">
              {picture.byHabit && 'made as the series does · '}
              {picture.source === 'frame' ? 'from the video' : 'your own file'} · {picture.width}×{picture.height} ·{' '}
              {binarySize(picture.size)}
            </p>
          )}
          <SheetMark handle={handle} field="picture" />
          {[...new Set(findings)].map((what) => (
            <p key={what} className="text-sm text-snag">
              ▲ {what}
            </p>
          ))}
        </div>
      </div>
      <FilePick
        input={input}
        label="Picture file"
        accept="image/jpeg,image/png,image/webp"
        onPick={([file]) => file && taking.takeFile(file)}
      />
    </div>
  );
}
