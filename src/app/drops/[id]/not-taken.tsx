'use client';

import { Moment } from '@/ui/moment';
import { Part } from './part';
import type { DropHandle } from './use-drop';

/** What the site did not take, with why, and what becomes of it. */
export function NotTaken({ handle }: { handle: DropHandle }) {
  const { failed, channel } = handle.view;
  if (failed.length === 0) return null;
  return (
    <Part name={`Not taken by ${channel.siteName}`} says="Everything else is there.">
      <ul className="grid gap-2">
        {failed.map(({ part, why, retryAt }) => (
          <li key={part}>
            <b>{part}</b>: {why}.{' '}
            {retryAt ? (
              <span className="text-soft">
                Next try <Moment at={retryAt} />
              </span>
            ) : (
              <span className="text-soft">Change it on the Sheet, then send the changes.</span>
            )}
          </li>
        ))}
      </ul>
    </Part>
  );
}
