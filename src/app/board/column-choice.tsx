'use client';

import type { ChannelView } from '@/desk/views/views';
import { ChipPopover } from '@/ui/chip-popover';
import { TickBox } from '@/ui/tick-box';
import type { Columns } from './use-columns';

/** Which channels have a column, by site. */
export function ColumnChoice({ channels, columns }: { channels: readonly ChannelView[]; columns: Columns }) {
  const sites = [...new Set(channels.map(({ siteName }) => siteName))];
  return (
    <ChipPopover name="Columns" className="max-sm:hidden">
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
    </ChipPopover>
  );
}
