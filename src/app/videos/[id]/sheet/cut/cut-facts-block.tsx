'use client';

import { useRef } from 'react';
import { binarySize, codecName, containerName } from '@/core/delivery';
import { rate, rateName, toDecimal, viewerTime } from '@/core/time';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { FilePick } from '@/ui/file-pick';
import { useMeasures } from '../time-line/use-measures';
import type { SheetHandle } from '../use-sheet';
import type { FileTaking } from '../use-take-file';
import { FileFindings } from './file-findings';
import { SiteFiles } from './site-files';

/** What the cut was found to be, and what can be taken out of it or put in its place. */
export function CutFactsBlock({ handle, taking }: { handle: SheetHandle; taking: FileTaking }) {
  const { cut } = handle.sheet;
  const { facts } = cut ?? {};
  const input = useRef<HTMLInputElement>(null);
  const kilobits = useMeasures(handle.sheet)?.bits?.kilobits ?? [];
  const most = kilobits.length > 1 ? Math.max(...kilobits) * 1000 : undefined;
  if (!facts) return null;
  const { video, audio, duration, bitRate } = facts;
  const exact = rate(video.rate.num, video.rate.den);
  const mega = (bits: number) => `${(bits / 1e6).toFixed(1)} Mbit/s`;
  const rows: [string, string][] = [
    ['Name', cut?.fileName ?? ''],
    ['File', `${containerName(facts.container)} · ${binarySize(facts.size)}`],
    ['Length', `${viewerTime(duration, duration.num / duration.den)} (${toDecimal(duration, 3)} s)`],
    ['Picture', `${codecName(video.codec)} · ${video.width}×${video.height}`],
    ['Rate', `${rateName(exact)} fps${exact.den === 1 ? '' : ` (${exact.num}/${exact.den})`}`],
    [
      'Bit rate',
      [bitRate ? mega(bitRate) : 'not told', ...(most ? [`picture at most ${mega(most)}`] : [])].join(' · '),
    ],
    [
      'Sound',
      audio ? `${codecName(audio.codec)} · ${audio.sampleRate / 1000} kHz · ${channelsName(audio.channels)}` : 'none',
    ],
  ];
  return (
    <div className="px-4 py-3.5">
      <dl className="grid grid-cols-[72px_minmax(0,1fr)] gap-x-3 gap-y-1 text-sm sm:grid-cols-[72px_minmax(0,1fr)_72px_minmax(0,1fr)]">
        {rows.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd className="[overflow-wrap:anywhere]">{value}</dd>
          </div>
        ))}
      </dl>
      {cut?.gone && (
        <p className="mt-2.5 rounded-lg bg-held-wash px-3 py-2 text-sm">
          <b className="text-held">Deleted here:</b> the file was taken off this disk once it was live. To play it, or
          to send it elsewhere, add it again.
        </p>
      )}
      <FileFindings handle={handle} />
      <SiteFiles handle={handle} />
      {facts.chaptersInside ? (
        <button type="button" onClick={taking.takeInside} className="textlink mt-2 block text-sm">
          Take the {facts.chaptersInside} chapters that are inside it
        </button>
      ) : null}
      <Button look="plain" className="mt-2" onClick={() => input.current?.click()}>
        {cut?.gone ? 'Add the file again' : BUTTONS.replaceFile}
      </Button>
      <FilePick
        input={input}
        label="New file"
        accept="video/*,.mkv,.mov"
        onPick={([file]) => file && taking.takeFile(file)}
      />
    </div>
  );
}

function channelsName(count: number): string {
  return count === 1 ? 'mono' : count === 2 ? 'stereo' : `${count} channels`;
}
