'use client';

import { useRef } from 'react';
import type { CutView } from '@/desk/views/views';
import { ArrivalBar } from '@/ui/arrivals/arrival-bar';
import { type Arrival, useArrivals } from '@/ui/arrivals/arrivals';
import { Button } from '@/ui/button';
import { FilePick } from '@/ui/file-pick';
import { Meter } from '@/ui/meter';
import type { SheetHandle } from '../use-sheet';
import type { FileTaking } from '../use-take-file';
import { CutFactsBlock } from './cut-facts-block';

interface FileBlockProps {
  handle: SheetHandle;
  taking: FileTaking;
  arrival: Arrival | undefined;
}

/** The file: how far it has come, or what it was found to be. */
export function FileBlock({ handle, taking, arrival }: FileBlockProps) {
  const { cut } = handle.sheet;
  if (cut?.facts) return <CutFactsBlock handle={handle} taking={taking} />;
  if (cut?.state === 'reading' || cut?.state === 'ready') return <p className="px-4 py-3.5 text-soft">Being read …</p>;
  return <CutComing cut={cut} arrival={arrival} />;
}

function CutComing({ cut, arrival }: { cut: CutView | undefined; arrival: Arrival | undefined }) {
  const input = useRef<HTMLInputElement>(null);
  const { goOn, bring } = useArrivals();
  const refused = cut?.state === 'refused';
  const share = cut ? cut.received / Math.max(1, cut.size) : 0;
  return (
    <div className="flex flex-col gap-3 bg-sunk px-4 py-5 [overflow-wrap:anywhere]">
      {arrival && (
        <>
          <h3>{arrival.fileName}</h3>
          <ArrivalBar arrival={arrival} />
          <p className="text-[13px] text-soft">
            You can write the words meanwhile. Keep this page open until the file has arrived.
          </p>
        </>
      )}
      {!arrival && cut && !refused && (
        <>
          <h3>{cut.fileName} has not arrived whole</h3>
          <Meter share={share} says={`${Math.floor(share * 100)} % is here; the rest goes on from there.`} />
          <p className="text-soft">Pick the same file again. It is known by its contents, and nothing is sent twice.</p>
          <Button look="press" onClick={() => input.current?.click()} className="self-start">
            Pick the file again
          </Button>
        </>
      )}
      {refused && (
        <>
          <h3 className="text-snag">▲ This file cannot be used</h3>
          <p>{cut.refusal}</p>
          <p className="text-[13px] text-soft">{cut.fileName}</p>
        </>
      )}
      <FilePick
        input={input}
        label="The same file again"
        onPick={([file]) => file && (cut ? goOn(file, cut.fingerprint) : bring([file]))}
      />
    </div>
  );
}
