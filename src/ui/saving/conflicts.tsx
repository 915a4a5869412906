'use client';

import { createContext, type ReactNode, useCallback, useContext, useState } from 'react';
import { isMoment, momentInWords } from '@/core/release/in-words';
import type { ChangedField } from '../ask';
import { Button } from '../button';
import { SheetDialog } from '../sheet-dialog';

/** Whose value is to be kept of a field that two windows have changed. */
export type Whose = 'mine' | 'theirs';

interface Conflict extends ChangedField {
  mine: unknown;
  answer: (whose: Whose) => void;
}

type AskWhose = (changed: ChangedField, mine: unknown) => Promise<Whose>;

const Context = createContext<AskWhose>(async () => 'theirs');

/** Asks whose value is to be kept, where a field was changed in another window meanwhile. */
export const useConflicts = () => useContext(Context);

/** A value as it can be read. */
function inWords(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (typeof value === 'string') return value;
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  const { items } = value as { items?: unknown[] };
  const list = Array.isArray(value) ? value : items;
  if (list) return list.map((item) => (typeof item === 'string' ? item : JSON.stringify(item))).join(', ') || 'nothing';
  const placed = Object.entries(value as Record<string, { placements?: unknown[] }>);
  if (placed.some(([, each]) => each?.placements)) {
    return placed.map(([shape, each]) => `${shape}: ${each?.placements?.length ?? 0} places`).join(', ');
  }
  if (isMoment(value)) return momentInWords(value);
  return JSON.stringify(value);
}

/** Shows one field after the other that two windows have changed, with both values. */
export function ConflictsProvider({ children }: { children: ReactNode }) {
  const [conflicts, setConflicts] = useState<Conflict[]>([]);
  const askWhose = useCallback<AskWhose>(
    (changed, mine) =>
      new Promise((resolve) => {
        const answer = (whose: Whose) => {
          setConflicts((all) => all.slice(1));
          resolve(whose);
        };
        setConflicts((all) => [...all, { ...changed, mine, answer }]);
      }),
    [],
  );
  const [first] = conflicts;
  return (
    <Context.Provider value={askWhose}>
      {children}
      {first && (
        <SheetDialog
          open
          onClose={() => first.answer('theirs')}
          title={`The ${nameOf(first.field)} was changed in another window`}
          close="Keep the other one"
        >
          <div className="grid gap-3">
            <Value name="Yours" value={first.mine} />
            <Value name="The other one" value={first.now} />
            <Button look="press" className="justify-self-start" onClick={() => first.answer('mine')}>
              Keep yours
            </Button>
          </div>
        </SheetDialog>
      )}
    </Context.Provider>
  );
}

/** Fields whose name in the code says nothing to people. */
const NAMES: Record<string, string> = { framings: 'placed frame', remedies: 'way the file is put right' };

/** A field's name in the code as words: `recordedOn` is “recorded on”. */
const nameOf = (field: string) => NAMES[field] ?? field.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase();

function Value({ name, value }: { name: string; value: unknown }) {
  return (
    <section aria-label={name}>
      <h3 className="text-[13px] text-soft">{name}</h3>
      <p className="max-h-40 overflow-y-auto whitespace-pre-wrap rounded-lg bg-sunk px-3 py-2 [overflow-wrap:anywhere]">
        {inWords(value)}
      </p>
    </section>
  );
}
