'use client';

import type { ReactNode } from 'react';
import { PRIVACIES } from '@/core/delivery';
import { BOARD_LACKS, type BoardLack } from '@/core/drop';
import type { BoardView } from '@/desk/views/views';
import { ChipPopover } from '@/ui/chip-popover';
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
    <ChipPopover name="Filter" says={inForce > 0 ? ` · ${inForce}` : ''}>
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
        <Choose label="Added" value={filter.days} options={DAYS} onChange={(days) => set({ days })} className={all} />,
      )}
    </ChipPopover>
  );
}
