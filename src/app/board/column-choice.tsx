'use client';

import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import type { ChannelView } from '@/desk/look/views';
import { TickBox } from '@/ui/tick-box';
import type { Columns } from './use-columns';

/** Which channels have a column, by site. */
export function ColumnChoice({ channels, columns }: { channels: readonly ChannelView[]; columns: Columns }) {
  const sites = [...new Set(channels.map(({ siteName }) => siteName))];
  return (
    <Popover.Root>
      <Popover.Trigger className="inline-flex min-h-8 items-center gap-1.5 rounded-full border border-edge bg-card px-3 text-sm max-sm:hidden">
        Columns <ChevronDown size={15} className="text-soft" aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={5}
          collisionPadding={8}
          className="enamel z-40 grid w-64 gap-2.5 p-3.5 text-sm shadow-lg"
        >
          <TickBox ticked={columns.hideEmpty} onTick={columns.setHideEmpty}>
            Hide columns without a video
          </TickBox>
          {sites.map((site) => (
            <fieldset key={site} className="grid gap-1">
              <legend className="mb-1 text-[13px] text-soft">{site}</legend>
              {channels
                .filter(({ siteName }) => siteName === site)
                .map(({ id, name }) => (
                  <TickBox key={id} ticked={!columns.hidden.has(id)} onTick={(shown) => columns.setHidden(id, !shown)}>
                    {name}
                  </TickBox>
                ))}
            </fieldset>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
