'use client';

import { useQueryClient } from '@tanstack/react-query';
import dynamic from 'next/dynamic';
import { useState } from 'react';
import type { Foreseen } from '@/desk/many/foresee-many';
import type { Act } from '@/desk/many/many-act';
import { ask } from '@/ui/ask';
import { BUTTONS } from '@/ui/button-words';
import { useNotices } from '@/ui/notices';
import { PartBoundary } from '@/ui/part-boundary';
import { useSure } from '@/ui/sure';
import { isTyping } from '@/ui/typing';
import { useKeys } from '@/ui/use-keys';
import { questionBeforeMany } from './act-words';
import type { FormKind } from './form-kind';
import type { Selection } from './use-selection';

const ActForm = dynamic(() => import('./act-form').then((part) => part.ActForm));

interface ManyBarProps {
  selection: Selection;
  /** How many videos fit what is shown, and their ids. */
  inAll: number;
  allIds: () => Promise<string[]>;
  series: readonly { id: string; name: string }[];
}

/** Acts that ask for something first. */

const FORMS: [FormKind, string][] = [
  ['set', 'Set a field'],
  ['tags', 'Add tags'],
  ['playlist', 'Add to a playlist'],
  ['series', 'Put in a series'],
];

/** What can be done with the videos that are selected. */
export function ManyBar({ selection, inAll, allIds, series }: ManyBarProps) {
  const { ids, set, clear } = selection;
  const [form, setForm] = useState<FormKind>();
  const sure = useSure();
  const { trouble } = useNotices();
  const client = useQueryClient();
  useKeys((event) => {
    if (event.key === 'Escape' && !isTyping(event.target) && !document.querySelector('[role=dialog]')) clear();
  });
  if (ids.size === 0) return null;
  const perform = async (act: Act) => {
    setForm(undefined);
    const json = { ids: [...ids], act };
    try {
      const seen = await ask<Foreseen>('/api/many/foreseen', { method: 'POST', json });
      if (seen.concerned === 0) {
        const why = seen.cannot[0]?.why;
        trouble(`There is nothing to do with these videos${why ? `: ${why}` : ''}.`);
        return;
      }
      if (!(await sure(questionBeforeMany(act, seen)))) return;
      await ask('/api/many', { method: 'POST', json });
      clear();
      await client.invalidateQueries({ queryKey: ['many'] });
    } catch (error) {
      trouble(error);
    }
  };
  const link = 'min-h-8 rounded px-1 underline underline-offset-4 hover:no-underline focus-visible:outline-card!';
  return (
    <div data-bar="bottom" className="pointer-events-none fixed inset-x-0 bottom-4 z-30 grid justify-items-center px-3">
      <section
        aria-label="What to do with the selected videos"
        className="pointer-events-auto flex max-w-full flex-wrap items-center gap-x-4 gap-y-1 rounded-[22px] bg-rim px-5 py-2 text-card text-sm shadow-xl"
      >
        <span role="status">{ids.size.toLocaleString('en')} selected</span>
        {ids.size < inAll && (
          <button type="button" className={link} onClick={() => void allIds().then(set, trouble)}>
            Select all {inAll.toLocaleString('en')}
          </button>
        )}
        <button type="button" className={link} onClick={() => void perform({ do: 'send' })}>
          Send
        </button>
        <button type="button" className={link} onClick={() => void perform({ do: 'open' })}>
          Open
        </button>
        <button type="button" className={link} onClick={() => void perform({ do: 'try again' })}>
          {BUTTONS.tryAgain}
        </button>
        {FORMS.map(([kind, says]) => (
          <button key={kind} type="button" className={link} onClick={() => setForm(kind)}>
            {says}
          </button>
        ))}
        <button type="button" className={link} onClick={() => void perform({ do: 'delete' })}>
          {BUTTONS.delete}
        </button>
        <button type="button" className={link} onClick={clear}>
          Clear
        </button>
      </section>
      {form && (
        <PartBoundary>
          <ActForm kind={form} videos={ids.size} series={series} onClose={() => setForm(undefined)} onDone={perform} />
        </PartBoundary>
      )}
    </div>
  );
}
