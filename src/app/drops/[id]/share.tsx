'use client';

import type { DropPageView } from '@/desk/views/drop-page';
import { CopyLink } from '@/ui/copy-link';
import { Part } from './part';

/** The link to the video, and what shows it on another page. */
export function Share({ view }: { view: DropPageView }) {
  const { link, formerLinks = [] } = view.channel.drop ?? {};
  const former = formerLinks.filter((each) => each !== link);
  if (!link && former.length === 0) return null;
  return (
    <Part name="Share it">
      {link && (
        <>
          <p className="[overflow-wrap:anywhere]">{link}</p>
          <p className="flex flex-wrap items-center gap-4">
            <CopyLink link={link} />
            <a href={link} target="_blank" rel="noreferrer" className="text-[13px] text-copper hover:underline">
              Watch page
            </a>
          </p>
        </>
      )}
      {former.length > 0 && (
        <p className="text-[13px] text-soft [overflow-wrap:anywhere]">Its links before: {former.join(', ')}</p>
      )}
      {view.embed && (
        <div className="grid gap-1">
          <p className="text-[13px] text-soft">To show it on another page</p>
          <code className="rounded-lg bg-sunk px-3 py-2 text-[13px] [overflow-wrap:anywhere]">{view.embed}</code>
          <CopyLink link={view.embed} says="Copy the code" />
        </div>
      )}
    </Part>
  );
}
