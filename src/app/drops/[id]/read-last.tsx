'use client';

import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { Moment } from '@/ui/moment';
import type { DropHandle } from './use-drop';

/** When a live video was read at its site last, whether it showed what was sent, and reading it now. */
export function ReadLast({ handle }: { handle: DropHandle }) {
  const { channel, differences, failed, readAt } = handle.view;
  if (channel.drop?.state !== 'live') return null;
  return (
    <p className="flex flex-wrap items-center gap-x-3 text-[13px] text-soft">
      {readAt && (
        <span>
          Read on {channel.siteName} <Moment at={readAt} />
          {differences.length === 0 && failed.length === 0 && ': it shows what was sent'}
        </span>
      )}
      <Button look="plain" onClick={() => void handle.read()}>
        {BUTTONS.readAgain}
      </Button>
    </p>
  );
}
