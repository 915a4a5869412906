'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { type CutMeasures, codecName } from '@/core/delivery';
import { LOUDNESS_TARGETS, levelsAt, momentsAround, type RemedyOffer, withRemedy } from '@/core/preflight';
import { type Fraction, floor, rate, rateName, viewerTime } from '@/core/time';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { CHOOSE_SMALL, Choose } from '@/ui/choose';
import { PopButton } from '@/ui/pop-button';
import type { SheetHandle } from '../use-sheet';

/** What each remedy is called, and what it does; nothing of it changes the file that came in. */
const WORDS: Record<RemedyOffer['way'], { offer: string; does: string; use: string }> = {
  start: {
    offer: 'Leave off the start',
    does: 'The file that goes out begins there. Chapters, captions and picture move with it.',
    use: 'Begin there',
  },
  end: { offer: 'Leave off the end', does: 'The file that goes out ends there.', use: 'End there' },
  loudness: { offer: 'Change the loudness', does: 'Only the sound is encoded again.', use: 'Use this loudness' },
  index: {
    offer: 'Put the index first',
    does: 'The file that goes out is copied with its index at the start. Nothing is encoded again.',
    use: 'Put it first',
  },
  sphere: {
    offer: 'Mark it as a 360° video',
    does: 'The file that goes out says that its picture is a whole sphere. Nothing is encoded again.',
    use: 'Mark it',
  },
  convert: {
    offer: 'Convert it',
    does: 'The picture of the file that goes out is encoded again: whole frames at one rate, in standard range, as H.264. File settings that you choose go before this.',
    use: 'Convert it for sending',
  },
};

/** Puts a finding right in the files that go out, after showing what comes of it. */
export function RemedyButton({ offer, handle }: { offer: RemedyOffer; handle: SheetHandle }) {
  const { sheet, save } = handle;
  const [target, setTarget] = useState<number>(LOUDNESS_TARGETS[0]);
  const words = WORDS[offer.way];
  const { cut, remedies } = sheet;
  if (!cut) return null;
  return (
    <PopButton
      button={{ className: 'textlink', children: words.offer }}
      panel={{ label: words.offer, align: 'start', className: 'w-[min(400px,92vw)] p-3.5 text-sm' }}
    >
      {(close) => (
        <div className="grid gap-2.5">
          {(offer.way === 'start' || offer.way === 'end') && <Ends offer={offer} handle={handle} />}
          {offer.way === 'convert' && <Converted handle={handle} />}
          {offer.way === 'loudness' && <Levels cutId={cut.id} target={target} onTarget={setTarget} />}
          <p className="text-soft">{words.does}</p>
          <Button
            look="press"
            className="justify-self-start"
            onClick={() => {
              void save({ remedies: { ...withRemedy(remedies, offer, target), cutId: cut.id } });
              close();
            }}
          >
            {words.use}
          </Button>
        </div>
      )}
    </PopButton>
  );
}

const at = (moment: Fraction) => viewerTime(moment, floor(moment));

/** The frames on both sides of where the file will begin or end. */
function Ends({ offer, handle }: { offer: RemedyOffer; handle: SheetHandle }) {
  const { cut } = handle.sheet;
  const around = cut?.facts && momentsAround(offer, cut.facts);
  if (!cut || !around) return null;
  const frames = [
    { says: offer.way === 'end' ? 'the new last picture' : 'the new first picture', moment: around.stays },
    { says: 'left off', moment: around.goes },
  ];
  if (offer.way === 'start') frames.reverse();
  return (
    <div className="grid grid-cols-2 gap-2">
      {frames.map(({ says, moment }) => (
        <figure key={says}>
          <img
            src={`/api/cuts/${cut.id}/frame?num=${moment.num}&den=${moment.den}`}
            alt={says}
            className={`aspect-video w-full rounded-md bg-sunk object-contain ${says === 'left off' ? 'opacity-50' : ''}`}
          />
          <figcaption className="text-[13px] text-soft">
            {says} · {at(moment)}
          </figcaption>
        </figure>
      ))}
    </div>
  );
}

const level = (value: number) => value.toFixed(1).replace('-', '−');

/** The sound as it is and as it will be. */
function Levels({ cutId, target, onTarget }: { cutId: string; target: number; onTarget: (target: number) => void }) {
  const { data } = useQuery({
    queryKey: ['measures', cutId],
    queryFn: () => ask<CutMeasures>(`/api/cuts/${cutId}/measures`),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const levels = levelsAt(data, target);
  const rows = levels && [
    ['Loudness', `${level(levels.before)} LUFS`, `${level(levels.after)} LUFS`],
    ['Loudest peak', `${level(levels.peakBefore)} dBTP`, `${level(levels.peakAfter)} dBTP`],
  ];
  return (
    <>
      <div className="flex items-center gap-2">
        <span aria-hidden>Loudness</span>
        <Choose
          label="Loudness to go to"
          value={String(target)}
          options={LOUDNESS_TARGETS.map((lufs) => [String(lufs), `${String(lufs).replace('-', '−')} LUFS`] as const)}
          onChange={(value) => onTarget(Number(value))}
          className={CHOOSE_SMALL}
        />
      </div>
      {rows && (
        <table className="w-full text-left tabular-nums">
          <thead>
            <tr className="text-[13px] text-soft">
              <th className="font-normal" />
              <th className="font-normal">now</th>
              <th className="font-normal">then</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(([name, before, after]) => (
              <tr key={name}>
                <th className="font-normal">{name}</th>
                <td>{before}</td>
                <td>{after}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {levels?.limited && <p className="text-soft">The loudest peaks are held at −1 dBTP.</p>}
    </>
  );
}

/** What the picture is, and what it becomes. */
function Converted({ handle }: { handle: SheetHandle }) {
  const { cut } = handle.sheet;
  if (!cut?.facts) return null;
  const { video } = cut.facts;
  const { more } = video;
  const now = [
    codecName(video.codec),
    ...(more?.interlaced ? ['interlaced'] : []),
    ...(more?.hdr ? [`HDR (${more.hdr})`] : []),
    ...(more ? [`${more.bits} bits`] : []),
  ];
  const rows = [
    ['now', now.join(', ')],
    ['then', `${codecName('h264')}, whole frames, ${rateName(rate(video.rate.num, video.rate.den))} fps, 8 bits`],
  ];
  return (
    <dl className="grid grid-cols-[48px_minmax(0,1fr)] gap-y-0.5">
      {rows.map(([name, value]) => (
        <div key={name} className="contents">
          <dt className="text-soft">{name}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}
