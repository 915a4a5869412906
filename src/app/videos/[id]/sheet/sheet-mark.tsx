'use client';

import type { DefaultField } from '@/core/defaults';
import { LayerMark } from '@/ui/fields/layer-mark';
import type { SheetHandle } from './use-sheet';

interface SheetMarkProps {
  handle: SheetHandle;
  field: DefaultField;
}

const MOST_NAMED = 2;

/** Which layer gave a field of the record, with what can be done about it, and channels that get another value. */
export function SheetMark({ handle, field }: SheetMarkProps) {
  const { sheet, save, moveUp } = handle;
  const { from, beneathFrom, differs } = sheet.marks[field];
  const { series } = sheet;
  const ticked = sheet.channels.filter((channel) => channel.ticked);
  const [only] = ticked;
  const moves = [
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
  const named = differs.slice(0, MOST_NAMED).map(({ name }) => name);
  const more = differs.length > MOST_NAMED ? [`${differs.length - MOST_NAMED} more`] : [];
  return (
    <>
      <LayerMark
        from={from}
        field={field}
        own={sheet.own[field]}
        beneath={beneathFrom}
        put={(value) => void save({ [field]: value })}
        moves={moves}
      />
      {differs.length > 0 && <span>Different on {new Intl.ListFormat('en').format([...named, ...more])}</span>}
    </>
  );
}
