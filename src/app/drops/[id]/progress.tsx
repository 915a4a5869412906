'use client';

import { binarySize } from '@/core/delivery';
import type { DropPageView } from '@/desk/views/drop-page';
import { dropWords, overdueWords } from '@/ui/drop-words';
import { Meter } from '@/ui/meter';
import { Moment, useZone } from '@/ui/moment';
import { versionName } from '@/ui/version-times';
import { LineSpeed } from './line-speed';
import { Part } from './part';

/** How far the file is over the line, and how far the site is with it. */
export function Progress({ view }: { view: DropPageView }) {
  const zone = useZone();
  const { drop, siteName } = view.channel;
  if (!drop || drop.bytesTotal === 0) return null;
  const { bytesSent, bytesTotal, state, progress, stops, versions } = drop;
  const sent = Math.min(1, bytesSent / bytesTotal);
  const processing = state === 'settling' || state === 'clearing' ? progress?.fraction : stops > 2 ? 1 : undefined;
  return (
    <Part name="File and site">
      <Meter share={sent} says={`Sent: ${binarySize(bytesSent)} of ${binarySize(bytesTotal)}`} />
      {processing !== undefined && (
        <Meter share={processing} says={processing === 1 ? `${siteName} has processed it` : dropWords(drop, zone)} />
      )}
      {drop.overdue !== undefined && <p>{overdueWords(drop.overdue)}</p>}
      <LineSpeed speeds={view.speeds} />
      {versions.length > 0 && (
        <div>
          <h3 className="mb-1">Ready at {siteName}</h3>
          <ul className="grid gap-0.5">
            {versions.map((version) => (
              <li key={versionName(version)} className="flex flex-wrap gap-x-3">
                <span>● {versionName(version)}</span>
                <span className="text-soft">
                  <Moment at={version.readyAt} />
                </span>
              </li>
            ))}
          </ul>
        </div>
      )}
    </Part>
  );
}
