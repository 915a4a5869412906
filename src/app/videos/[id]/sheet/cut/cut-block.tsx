'use client';

import { useRef } from 'react';
import { MARKER_FILE_ENDINGS } from '@/core/markers';
import type { CutView } from '@/desk/look/views';
import { ArrivalBar } from '@/ui/arrivals/arrival-bar';
import { type Arrival, useArrivals } from '@/ui/arrivals/arrivals';
import { Button } from '@/ui/button';
import { FilePick } from '@/ui/file-pick';
import { Meter } from '@/ui/meter';
import { ChapterPanel } from '../chapters/chapter-panel';
import { Player } from '../time-line/player';
import { Ruler } from '../time-line/ruler';
import { TimeLinePoints } from '../time-line/time-line-points';
import { useTimeLine } from '../time-line/time-line-state';
import { Transport } from '../time-line/transport';
import type { FileTaking } from '../use-take-file';

interface CutBlockProps {
  taking: FileTaking;
  arrival: Arrival | undefined;
}

/** The cut: player, chapters beside it, the time ruler below. */
export function CutBlock({ taking, arrival }: CutBlockProps) {
  const { sheet } = useTimeLine().handle;
  const { cut } = sheet;
  const input = useRef<HTMLInputElement>(null);
  return (
    <section id="cut" aria-label="Cut and chapters" data-time-line className="enamel overflow-hidden">
      <div className="relative md:pr-[300px]">
        {cut && (cut.state === 'ready' || cut.state === 'reading') ? (
          <Player cutId={cut.id} captions={sheet.captions} />
        ) : (
          <CutComing cut={cut} arrival={arrival} />
        )}
        <ChapterPanel onPickFile={() => input.current?.click()} />
      </div>
      <Transport />
      {cut?.facts && (
        <>
          <Ruler />
          <TimeLinePoints />
        </>
      )}
      <FilePick
        input={input}
        label="Marker file"
        accept={MARKER_FILE_ENDINGS.join(',')}
        onPick={([file]) => file && taking.takeFile(file)}
      />
    </section>
  );
}

function CutComing({ cut, arrival }: { cut: CutView | undefined; arrival: Arrival | undefined }) {
  const input = useRef<HTMLInputElement>(null);
  const { goOn, bring } = useArrivals();
  const refused = cut?.state === 'refused';
  const share = cut ? cut.received / Math.max(1, cut.size) : 0;
  return (
    <div className="flex min-h-[286px] flex-col justify-center gap-3 bg-sunk px-8">
      {arrival && (
        <>
          <h2>{arrival.fileName}</h2>
          <ArrivalBar arrival={arrival} />
          <p className="text-[13px] text-soft">
            Write the words meanwhile. Leave this page open until the file has arrived.
          </p>
        </>
      )}
      {!arrival && cut && !refused && (
        <>
          <h2>{cut.fileName} has not arrived whole</h2>
          <Meter share={share} says={`${Math.floor(share * 100)} % is here; the rest goes on from there.`} />
          <p className="text-soft">Pick the same file again. It is known by its contents, and nothing is sent twice.</p>
          <Button look="press" onClick={() => input.current?.click()} className="self-start">
            Pick the file again
          </Button>
        </>
      )}
      {refused && (
        <>
          <h2 className="text-snag">▲ This cut cannot be used</h2>
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
