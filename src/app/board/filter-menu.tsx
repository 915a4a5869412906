'use client';

import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';
import { PRIVACIES } from '@/core/delivery';
import { BOARD_LACKS, type BoardLack } from '@/core/drop';
import type { BoardView } from '@/desk/look/views';
import { CHOOSE_FIELD, Choose } from '@/ui/choose';
import { PRIVACY_WORDS } from '@/ui/fields/choices';
import type { BoardFilter } from './board-rows';

const LACK_WORDS: Record<BoardLack, string> = {
  picture: 'no picture',
  summary: 'no summary',
  captions: 'no captions',
  series: 'no series',
  channel: 'no channel',
};

const DAYS = [
  ['', 'any day'],
  ['1', 'added today'],
  ['7', 'added in 7 days'],
  ['30', 'added in 30 days'],
  ['365', 'added in a year'],
] as const;

interface FilterMenuProps {
  filter: BoardFilter;
  set: (part: Partial<BoardFilter>) => void;
  board: BoardView;
}

const FIELDS = ['seriesId', 'channelId', 'privacy', 'lacks', 'days'] as const;

/** What narrows the Board beside its groups: series, channel, privacy, what is missing, when it was added. */
export function FilterMenu({ filter, set, board }: FilterMenuProps) {
  const inForce = FIELDS.filter((field) => filter[field] !== '').length;
  const all = `${CHOOSE_FIELD} w-full`;
  const row = (name: string, choose: ReactNode) => (
    <div className="grid grid-cols-[72px_minmax(0,1fr)] items-center gap-2 text-sm">
      <span className="text-soft">{name}</span>
      {choose}
    </div>
  );
  return (
    <Popover.Root>
      <Popover.Trigger
        className={`inline-flex min-h-8 items-center gap-1.5 rounded-full border bg-card px-3 text-sm ${inForce > 0 ? 'border-rim font-semibold' : 'border-edge'}`}
      >
        Filter{inForce > 0 && ` · ${inForce}`} <ChevronDown size={15} className="text-soft" aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={5}
          collisionPadding={8}
          aria-label="Filter"
          className="enamel z-40 grid w-80 gap-2.5 p-3.5 shadow-lg"
        >
          {row(
            'Series',
            <Choose
              label="Series"
              value={filter.seriesId}
              options={[['', 'every series'], ...board.series.map(({ id, name }) => [id, name] as const)]}
              onChange={(seriesId) => set({ seriesId })}
              className={all}
            />,
          )}
          {row(
            'Channel',
            <Choose
              label="Channel"
              value={filter.channelId}
              options={[['', 'every channel'], ...board.channels.map(({ id, name }) => [id, name] as const)]}
              onChange={(channelId) => set({ channelId })}
              className={all}
            />,
          )}
          {row(
            'Privacy',
            <Choose
              label="Privacy"
              value={filter.privacy}
              options={[['', 'any privacy'], ...PRIVACIES.map((each) => [each, PRIVACY_WORDS[each].name] as const)]}
              onChange={(privacy) => set({ privacy })}
              className={all}
            />,
          )}
          {row(
            'Missing',
            <Choose
              label="Missing"
              value={filter.lacks}
              options={[['', 'anything or nothing'], ...BOARD_LACKS.map((lack) => [lack, LACK_WORDS[lack]] as const)]}
              onChange={(lacks) => set({ lacks })}
              className={all}
            />,
          )}
          {row(
            'Added',
            <Choose
              label="Added"
              value={filter.days}
              options={DAYS}
              onChange={(days) => set({ days })}
              className={all}
            />,
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
