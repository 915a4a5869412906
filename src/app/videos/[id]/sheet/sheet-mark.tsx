'use client';

import type { DefaultField } from '@/core/defaults';
import { LayerMark } from '@/ui/fields/layer-mark';
import type { SheetHandle } from './use-sheet';

interface SheetMarkProps {
  handle: SheetHandle;
  field: DefaultField;
}

const MOST_NAMED = 2;

/** Which layer gave a field of the record, with what can be done about it. */
export function SheetMark({ handle, field }: SheetMarkProps) {
  const { sheet, save, moveUp } = handle;
  const { from, beneathFrom } = sheet.marks[field];
  const { series } = sheet;
  const ticked = sheet.channels.filter((channel) => channel.ticked);
  const [only] = ticked;
  // A time is that of one video.
  const allMoves = [
    ...(series
      ? [{ says: `Make default for “${series.name}”`, onMove: () => void moveUp({ field, to: 'series' }) }]
      : []),
    ...(ticked.length === 1 && only
      ? [
          {
            says: `Make default for “${only.name}”`,
            onMove: () => void moveUp({ field, to: 'channel', toChannel: only.id }),
          },
        ]
      : []),
  ];
  return (
    <LayerMark
      from={from}
      field={field}
      own={sheet.own[field]}
      beneath={beneathFrom}
      put={(value) => void save({ [field]: value })}
      moves={field === 'opensAt' ? [] : allMoves}
    />
  );
}

/** Channels that get another value of a field than the record has. */
export function DiffersOn({ handle, field }: SheetMarkProps) {
  const { differs } = handle.sheet.marks[field];
  if (differs.length === 0) return null;
  const named = differs.slice(0, MOST_NAMED).map(({ name }) => name);
  const more = differs.length > MOST_NAMED ? [`${differs.length - MOST_NAMED} more`] : [];
  return <span>Different on {new Intl.ListFormat('en').format([...named, ...more])}</span>;
}
