'use client';

import { Button } from '@/ui/button';
import { Moment } from '@/ui/moment';
import { Part } from './part';
import { TextDiff } from './text-diff';
import type { DropHandle } from './use-drop';

/** Every text that the site was given, the newest first, and the way back to each. */
export function FormerWords({ handle }: { handle: DropHandle }) {
  const { given } = handle.view;
  if (given.length < 2) return null;
  return (
    <Part name="What it was before" says="What the site was given, each time that something was different">
      {given.map(({ id, at, changes, now }, index) => (
        <details key={id} className="border-line border-t pt-2 first:border-t-0 first:pt-0">
          <summary className="cursor-pointer">
            <Moment at={at} />{' '}
            <span className="text-soft">
              {index === given.length - 1 ? 'as it was sent first' : changes.map(({ field }) => field).join(', ')}
              {now && ' · there now'}
            </span>
          </summary>
          <div className="mt-2 grid gap-3">
            {changes.map(({ field, was, is }) => (
              <div key={field}>
                <h3 className="mb-1">{field}</h3>
                <TextDiff was={was} is={is} wasName="Before" isName="From then on" />
              </div>
            ))}
            {!now && (
              <div className="flex flex-wrap items-center gap-3">
                <Button onClick={() => void handle.putBack(id)}>Put these words back</Button>
                <span className="text-[13px] text-soft">
                  Title, text, tags and playlists, for this channel. You send them after.
                </span>
              </div>
            )}
          </div>
        </details>
      ))}
    </Part>
  );
}
