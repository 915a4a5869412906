'use client';

import { compare, minus, toDecimal, ZERO } from '@/core/time';
import { ArrivalBar } from '@/ui/arrivals/arrival-bar';
import { useArrivals } from '@/ui/arrivals/arrivals';
import { Button } from '@/ui/button';
import { Meter } from '@/ui/meter';
import { ShiftForm } from '../time-line/shift-form';
import { useTimeLine } from '../time-line/time-line-state';

/** A better cut on its way, while the one in use stays; and, once it is here, the question that another length asks. */
export function BetterCut() {
  const { handle } = useTimeLine();
  const { sheet } = handle;
  return (
    <>
      {sheet.betterCut && <Coming cut={sheet.betterCut} />}
      {sheet.lengthBefore && <OtherLength />}
    </>
  );
}

function Coming({ cut }: { cut: NonNullable<ReturnType<typeof useTimeLine>['handle']['sheet']['betterCut']> }) {
  const { handle } = useTimeLine();
  const { arrivals } = useArrivals();
  const arrival = arrivals.get(cut.id);
  const share = cut.received / Math.max(1, cut.size);
  return (
    <section aria-label="New file" className="enamel grid gap-2 px-4 py-3.5">
      <div className="flex flex-wrap items-center gap-3">
        <h2>{cut.state === 'refused' ? '▲ The new file cannot be used' : 'A new file is on its way'}</h2>
        <span className="min-w-0 text-[13px] text-soft [overflow-wrap:anywhere]">{cut.fileName}</span>
        <Button
          look="plain"
          className="ml-auto"
          onClick={() => handle.act(`/api/cuts/${cut.id}`, { method: 'DELETE' })}
        >
          {cut.state === 'refused' ? 'Keep the old file' : 'Cancel'}
        </Button>
      </div>
      {cut.state === 'refused' && <p>{cut.refusal}</p>}
      {cut.state === 'reading' && <p className="text-soft">Being read …</p>}
      {arrival && <ArrivalBar arrival={arrival} />}
      {!arrival && cut.state === 'arriving' && (
        <Meter
          share={share}
          says={`${Math.floor(share * 100)} % is here. If nothing moves, pick the same file again: it goes on from there.`}
        />
      )}
      <p className="text-[13px] text-soft">
        The old file stays in use until then. Words, markers and picture are kept.
      </p>
    </section>
  );
}

function OtherLength() {
  const { handle, markers, duration, from } = useTimeLine();
  const { sheet, save } = handle;
  const { lengthBefore: before, cut, timeLine } = sheet;
  const apart = before && duration ? minus(duration, before) : ZERO;
  const beyond = markers.filter(({ outside }) => outside);
  const longer = compare(apart, ZERO) > 0;
  return (
    <section aria-label="Another length" className="enamel grid gap-2.5 bg-held-wash px-4 py-3.5">
      <h2>
        The new file is {toDecimal(longer ? apart : minus(ZERO, apart), 3)} s {longer ? 'longer' : 'shorter'}
      </h2>
      <p className="text-sm">
        Do the markers still stand where they should? If something came in or went out at the start, move all of them at
        once.
      </p>
      {beyond.length > 0 && (
        <p className="text-sm [overflow-wrap:anywhere]">
          <span className="text-snag">▲</span> Outside the video now:{' '}
          {beyond
            .slice(0, 8)
            .map(({ name, timecode }) => `“${name || timecode}”`)
            .join(', ')}
          {beyond.length > 8 && ` and ${beyond.length - 8} more`}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-3">
        <Button look="press" onClick={() => save({ timeLine: { ...timeLine, cutId: cut?.id } })}>
          Markers are right
        </Button>
        <ShiftForm
          says="Move all markers"
          label="Move all markers by"
          first={`${toDecimal(apart, 3)} s`}
          onShift={(by) => save({ timeLine: { ...timeLine, from: minus(from, by), cutId: cut?.id } })}
        />
      </div>
    </section>
  );
}
