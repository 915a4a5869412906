'use client';

import type { CutView } from '@/desk/views/views';
import { Button } from '@/ui/button';
import type { SheetHandle } from '../use-sheet';

/** Says that a file could not be read again and again, what was said, and offers to try it once more. */
export function NotRead({ handle }: { handle: SheetHandle }) {
  const { cut, betterCut } = handle.sheet;
  const cuts = [cut, betterCut].filter((each): each is CutView => each?.setAside !== undefined);
  return cuts.map(({ id, fileName, setAside }) => (
    <section key={id} aria-label="A file that could not be read" className="enamel grid gap-2 bg-snag-wash px-4 py-3">
      <p className="[overflow-wrap:anywhere]">
        <b className="text-snag">▲ {fileName} could not be read.</b> It was tried several times. Try it once more, or
        export it again and replace the file.
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <Button
          look="press"
          onClick={() => handle.act(`/api/cuts/${id}/again`, { method: 'POST', json: { kind: 'read' } })}
        >
          Read it again
        </Button>
        <span className="min-w-0 text-[13px] text-soft [overflow-wrap:anywhere]">{setAside}</span>
      </div>
    </section>
  ));
}
