'use client';

import type { DropPageView } from '@/desk/views/drop-page';
import { CopyLink } from '@/ui/copy-link';
import { Part } from './part';

/** The link to the video, and what shows it on another page. */
export function Share({ view }: { view: DropPageView }) {
  const { link } = view.channel.drop ?? {};
  if (!link) return null;
  return (
    <Part name="Share it">
      <p className="[overflow-wrap:anywhere]">{link}</p>
      <p className="flex flex-wrap items-center gap-4">
        <CopyLink link={link} />
        <a href={link} target="_blank" rel="noreferrer" className="text-[13px] text-copper hover:underline">
          Watch page
        </a>
      </p>
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
