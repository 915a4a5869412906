'use client';

import { spanName } from '@/core/delivery';
import type { EarlyView, SheetChannel } from '@/desk/views/views';
import { CopyLink } from '@/ui/copy-link';
import { Meter } from '@/ui/meter';

/** How far a file is that goes up before its words. */
export function EarlyLine({ channel, early }: { channel: SheetChannel; early: EarlyView }) {
  const { state, link, progress, trouble } = early;
  const left = progress?.secondsLeft === undefined ? '' : ` · ${spanName(progress.secondsLeft)} left`;
  return (
    <div className="mt-1.5 grid gap-1.5 text-[13px]">
      {state === 'there' && (
        <p className="text-live">
          ● The file is on {channel.siteName} already, closed. Send it once the words are done.
        </p>
      )}
      {state === 'stopped' && (
        <p className="text-soft">The early upload has stopped. It goes on when you send the video.</p>
      )}
      {state === 'going up' && progress?.fraction !== undefined && (
        <Meter share={progress.fraction} says={`Uploading already, closed: ${progress.says}${left}`} />
      )}
      {state === 'going up' && progress?.fraction === undefined && (
        <p className="text-soft">
          {trouble
            ? `The early upload waits (${trouble}) and goes on by itself.`
            : `Uploading already, closed: ${progress?.says ?? 'it begins soon'} …`}
        </p>
      )}
      {link && (
        <p>
          <CopyLink link={link} /> <span className="text-soft">Another file gets another link.</span>
        </p>
      )}
    </div>
  );
}
