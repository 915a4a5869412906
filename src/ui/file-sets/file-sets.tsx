'use client';

import { useState } from 'react';
import { settingsWords } from '@/core/renditions';
import type { FileSetsView, FileSetView } from '@/desk/defaults/file-sets';
import { Button } from '../button';
import { BUTTONS } from '../button-words';
import { useSteps } from '../saving/use-steps';
import { SheetDialog } from '../sheet-dialog';
import { UndoRedo } from '../undo-redo';
import { type NamedSettings, SetForm } from './set-form';
import { useFileSets } from './use-file-sets';

/** What is being made or changed. */
type Editing = { id: string | undefined; first: NamedSettings };

/** Every set of file settings: the ready ones, and those that the team has made. */
export function FileSets({ first }: { first: FileSetsView }) {
  const view = useFileSets(first);
  const { sets } = view;
  const { act, save, undo, redo } = useSteps('file-sets');
  const [editing, setEditing] = useState<Editing>();
  const copyOf = ({ name, settings }: FileSetView): Editing => ({
    id: undefined,
    first: { name: freeName(name, sets), settings },
  });
  const keep = async (set: NamedSettings) => {
    if (!editing) return;
    const { id } = editing;
    const kept = id
      ? (await save(`/api/file-sets/${id}`, { method: 'PATCH', json: { ...set, on: editing.first } })) === 'saved'
      : await act('/api/file-sets', { method: 'POST', json: set });
    if (kept) setEditing(undefined);
  };
  return (
    <section id="file-sets" aria-label="File settings" className="mt-7 scroll-mt-20">
      <div className="flex flex-wrap items-center gap-x-3.5">
        <h2>File settings</h2>
        <span className="ml-auto flex items-center gap-1">
          <UndoRedo of="file settings" can={view} undo={undo} redo={redo} />
        </span>
      </div>
      <p className="mt-1 mb-3 text-soft">
        How files are made for sites. Set up a kind of video once; choose it in a series, for a channel or for one
        video.
      </p>
      <ul className="grid gap-2">
        {sets.map((set) => (
          <li key={set.id} className="enamel flex flex-wrap items-center gap-x-3 gap-y-1 px-4 py-2.5 text-sm">
            <div className="min-w-0 flex-1 basis-72 [overflow-wrap:anywhere]">
              <b className="font-semibold">{set.name}</b>
              {set.says && <span className="ml-2 text-soft">{set.says}</span>}
              <p className="text-[13px]">{settingsWords(set.settings)}</p>
              {set.usedBy.length > 0 && (
                <p className="text-[13px] text-soft">used by {new Intl.ListFormat('en').format(set.usedBy)}</p>
              )}
            </div>
            <Button look="plain" aria-label={`Make one like it: ${set.name}`} onClick={() => setEditing(copyOf(set))}>
              Make one like it
            </Button>
            {!set.ready && (
              <>
                <Button
                  look="plain"
                  aria-label={`Change ${set.name}`}
                  onClick={() => setEditing({ id: set.id, first: { name: set.name, settings: set.settings } })}
                >
                  Change
                </Button>
                <Button
                  look="plain"
                  aria-label={`Delete ${set.name}`}
                  onClick={() => void act(`/api/file-sets/${set.id}`, { method: 'DELETE' })}
                >
                  {BUTTONS.delete}
                </Button>
              </>
            )}
          </li>
        ))}
      </ul>
      <SheetDialog
        open={editing !== undefined}
        onClose={() => setEditing(undefined)}
        title={editing?.id ? 'Change file settings' : 'New file settings'}
        close={BUTTONS.cancel}
      >
        {editing && (
          <SetForm
            first={editing.first}
            hardware={view.hardware}
            button={editing.id ? 'Save' : 'Make this set'}
            onSave={keep}
          />
        )}
      </SheetDialog>
    </section>
  );
}

/** A name that no set has yet. */
function freeName(name: string, sets: readonly FileSetView[]): string {
  const taken = new Set(sets.map((set) => set.name.toLowerCase()));
  for (let count = 1; ; count += 1) {
    const next = count === 1 ? `${name}, ours` : `${name}, ours ${count}`;
    if (!taken.has(next.toLowerCase())) return next;
  }
}
