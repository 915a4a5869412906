'use client';

import { clockText, minutesIn } from '@/core/line';
import { TickBox } from '@/ui/tick-box';
import { KeptField } from './kept-field';
import type { NoticeSettingsHandle } from './use-notice-settings';

const NIGHT = { from: 22 * 60, to: 7 * 60 };

/** Hours in which neither mail nor the browser says anything. */
export function QuietHours({ handle }: { handle: NoticeSettingsHandle }) {
  const { view, put } = handle;
  if (!view) return null;
  const { quiet } = view.settings;
  const { timeZone: zone } = Intl.DateTimeFormat().resolvedOptions();
  const set = (fields: { from?: number; to?: number }) => {
    if (quiet) void put({ quiet: { ...quiet, ...fields, zone } });
  };
  return (
    <div className="grid gap-2 border-line border-t pt-3">
      <TickBox ticked={quiet !== null} onTick={(on) => void put({ quiet: on ? { ...NIGHT, zone } : null })}>
        <b className="font-semibold">Quiet hours</b>{' '}
        <span className="text-soft">mail and browser wait until after them</span>
      </TickBox>
      {quiet && (
        <div className="flex flex-wrap items-end gap-3 pl-7">
          <KeptField
            label="From"
            value={clockText(quiet.from)}
            onKeep={(text) => set({ from: minutesIn(text) })}
            className="w-24"
          />
          <KeptField
            label="To"
            value={clockText(quiet.to)}
            onKeep={(text) => set({ to: minutesIn(text) })}
            className="w-24"
          />
          <span className="pb-2 text-[13px] text-soft">{quiet.zone.replaceAll('_', ' ')}</span>
        </div>
      )}
    </div>
  );
}
