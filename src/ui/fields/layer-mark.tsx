'use client';

import { ChevronDown } from 'lucide-react';
import {
  type DefaultField,
  FIELD_NAMES,
  isListField,
  type LayerValues,
  type ListValue,
  type Source,
  sourceWords,
} from '@/core/defaults';
import type { MenuItem } from '../floating/menu-list';
import { MenuButton } from '../menu-button';

interface LayerMarkProps {
  from: readonly Source[];
  field: DefaultField;
  /** What is set on the layer that is being looked at. */
  own: LayerValues[DefaultField];
  /** Where it would come from without that. */
  beneath: readonly Source[];
  /** Sets it there; null leaves it to the layers beneath. */
  put: (value: unknown) => unknown;
  /** Layers above to which it may move, each in words: “Make default for Plank by Plank”. */
  moves?: readonly { says: string; onMove: () => void }[];
}

const BADGE = 'inline-flex min-h-6 items-center gap-1 rounded-md border px-2 text-xs text-soft';

/** Which layer gave a value, as a small badge whose menu holds what can be done about that. */
export function LayerMark({ from, field, own, beneath, put, moves = [] }: LayerMarkProps) {
  if (own === undefined) {
    if (from.length === 0) return null;
    const layers = [...new Set(from.map(({ layer }) => layer))];
    return (
      <span data-tip={`from ${sourceWords(from)}`} className={`${BADGE} border-line`}>
        from {new Intl.ListFormat('en').format(layers)}
        <span className="sr-only">: {sourceWords(from)}</span>
      </span>
    );
  }
  const list = isListField(field) ? (own as ListValue<unknown>) : undefined;
  const turned = list && { ...list, way: list.way === 'add' ? 'replace' : 'add' };
  const says = list ? (list.way === 'add' ? 'added here' : 'replaces inherited') : 'set here';
  const items: MenuItem[] = [
    {
      key: 'reset',
      says: <>Reset{beneath.length > 0 && <span className="text-soft"> to {sourceWords(beneath)}</span>}</>,
      onPress: () => put(null),
    },
    ...moves.map(({ says: move, onMove }) => ({ key: move, says: move, onPress: onMove })),
  ];
  if (turned) {
    const turn = turned.way === 'add' ? 'Add to inherited ones' : 'Replace inherited ones';
    items.splice(1, 0, { key: 'turn', says: turn, onPress: () => put(turned) });
  }
  return (
    <MenuButton
      button={{
        'aria-label': `${FIELD_NAMES[field]}: ${says}`,
        className: `${BADGE} border-edge hover:bg-sunk data-[state=open]:bg-sunk`,
        children: (
          <>
            {says}
            <ChevronDown size={13} aria-hidden />
          </>
        ),
      }}
      items={items}
    />
  );
}
