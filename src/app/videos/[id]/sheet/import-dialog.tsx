'use client';

import { Dialog } from 'radix-ui';
import type { ImportWay } from '@/core/markers';
import type { MarkerPreview } from '@/desk/markers';
import { Button } from '@/ui/button';
import type { FileTaking } from './use-take-file';

const WAYS: [way: ImportWay, name: string][] = [
  ['merge', 'Merge by time'],
  ['add', 'Add beside'],
  ['replace', 'Replace all'],
];

/** What a way of taking the file would do, in words. */
function effectWords({ fresh, changed, gone }: MarkerPreview['effects'][ImportWay]): string {
  const says = [
    fresh > 0 && `${fresh} new`,
    changed > 0 && `${changed} changed`,
    gone > 0 && `${gone} taken away`,
  ].filter(Boolean);
  return says.length > 0 ? says.join(', ') : 'nothing changes';
}

/** Shows what a marker file brings and what would change, before it is taken. */
export function ImportDialog({ taking }: { taking: FileTaking }) {
  const { waiting, takeMarkers, forget } = taking;
  return (
    <Dialog.Root open={waiting !== undefined} onOpenChange={(open) => !open && forget()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="enamel fixed top-24 left-1/2 z-50 w-[min(540px,92vw)] -translate-x-1/2 p-6 shadow-xl"
        >
          {waiting && (
            <>
              <Dialog.Title className="mb-1 font-display font-semibold text-lg">
                {waiting.preview.markers} markers in “{waiting.file.name}”
              </Dialog.Title>
              <p className="mb-3 text-soft">
                {waiting.preview.there} are on the ruler now. Whatever you choose can be undone.
              </p>
              {waiting.preview.findings.length > 0 && (
                <ul className="mb-3 max-h-40 overflow-y-auto rounded-lg bg-sunk px-3 py-2 text-sm">
                  {waiting.preview.findings.map(({ at, what, done }) => (
                    <li key={`${at}${what}`} className="py-0.5">
                      <b>{at}</b>: {what}; {done}
                    </li>
                  ))}
                </ul>
              )}
              <div className="grid gap-2">
                {WAYS.map(([way, name]) => (
                  <div key={way} className="flex items-center gap-3">
                    <Button onClick={() => takeMarkers(waiting.file, way)} className="w-40">
                      {name}
                    </Button>
                    <span className="text-sm">{effectWords(waiting.preview.effects[way])}</span>
                  </div>
                ))}
              </div>
              <Dialog.Close asChild>
                <Button look="plain" className="mt-4">
                  Leave it
                </Button>
              </Dialog.Close>
            </>
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
