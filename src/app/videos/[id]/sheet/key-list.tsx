'use client';

import { SheetDialog } from '@/ui/sheet-dialog';

const KEYS: [keys: string, does: string][] = [
  ['1 … 8', 'to a section: the file, chapters, words …'],
  ['W', 'to where it goes'],
  ['Ctrl Enter', 'send to the channels that are ready'],
  ['Space', 'play, stop'],
  ['L · K · J', 'play on, stop, play backwards; again for double speed'],
  ['← →', 'a frame back, on'],
  ['Shift ← →', 'ten frames'],
  ['M', 'add a marker; while it plays, one after another without a name'],
  ['PgUp PgDn', 'to the marker before, after'],
  [', .', 'move the marker at the playhead by a frame'],
  ['Delete', 'remove the marker at the playhead'],
  ['I · O', 'the video begins, ends here'],
  ['+ − 0', 'on the ruler: closer, wider, all of it'],
  ['Shift PgUp PgDn', 'on the ruler: a screen back, on'],
  ['Alt and drag', 'move a marker without snapping'],
  ['Ctrl Z · Ctrl Shift Z', 'undo, redo'],
  ['?', 'this list'],
];

/** The list of keys; those of the time line work while Chapters is open. */
export function KeyList({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  return (
    <SheetDialog open={open} onClose={() => onOpenChange(false)} title="Keys" close="Close">
      <dl className="grid grid-cols-[170px_1fr] gap-x-4 gap-y-1.5">
        {KEYS.map(([keys, does]) => (
          <div key={keys} className="contents">
            <dt className="font-mono">{keys}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </SheetDialog>
  );
}
