'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import type { KeptView } from '@/desk/house/board-views';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { ChipPopover } from '@/ui/chip-popover';
import { SMALL_FIELD } from '@/ui/fields/field-row';
import { TakeOff } from '@/ui/fields/take-off';
import { useNotices } from '@/ui/notices';

interface KeptViewsProps {
  /** What is shown now, as an address has it. */
  query: string;
  onTake: (query: string) => void;
}

const AT = '/api/board/views';

/** Views of the Board that are kept by name: to take one, to keep what is shown, to remove one. */
export function KeptViews({ query, onTake }: KeptViewsProps) {
  return (
    <ChipPopover name={BUTTONS.views}>
      {(close) => (
        <ViewList
          query={query}
          onTake={(taken) => {
            onTake(taken);
            close();
          }}
        />
      )}
    </ChipPopover>
  );
}

function ViewList({ query, onTake }: KeptViewsProps) {
  const client = useQueryClient();
  const { trouble } = useNotices();
  const [name, setName] = useState('');
  const { data: views = [] } = useQuery({
    queryKey: ['board views'],
    queryFn: () => ask<KeptView[]>(AT),
  });
  const change = async (method: 'PUT' | 'DELETE', json: object) => {
    try {
      client.setQueryData(['board views'], await ask<KeptView[]>(AT, { method, json }));
      return true;
    } catch (error) {
      trouble(error);
      return false;
    }
  };
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    if (await change('PUT', { name, query })) setName('');
  };
  return (
    <>
      {views.length === 0 && (
        <p className="text-soft">None is kept yet. Choose what the Board shows, then keep it here.</p>
      )}
      <ul className="grid max-h-64 overflow-y-auto">
        {views.map((view) => (
          <li key={view.name} className="flex items-center gap-2">
            <button
              type="button"
              onClick={() => onTake(view.query)}
              className="min-h-8 flex-1 rounded-md px-2 text-left [overflow-wrap:anywhere] hover:bg-copper-wash"
            >
              {view.name}
            </button>
            <TakeOff
              label={`Remove the view ${view.name}`}
              onClick={() => void change('DELETE', { name: view.name })}
            />
          </li>
        ))}
      </ul>
      <form onSubmit={keep} className="flex gap-2 border-line border-t pt-2.5">
        <input
          value={name}
          onChange={(event) => setName(event.target.value)}
          aria-label="Name for what is shown now"
          placeholder="Name what is shown"
          className={`${SMALL_FIELD} flex-1`}
        />
        <Button type="submit" className="px-3">
          Keep
        </Button>
      </form>
    </>
  );
}
