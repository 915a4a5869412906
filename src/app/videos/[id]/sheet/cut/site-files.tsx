'use client';

import { binarySize, spanName } from '@/core/delivery';
import { type Range, remedyWords } from '@/core/renditions';
import type { RenditionAction } from '@/desk/rendition/act-on-rendition';
import type { RenditionView } from '@/desk/views/look-at-renditions';
import type { SheetView } from '@/desk/views/views';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { FieldRow } from '@/ui/fields/field-row';
import { FileSettingsField } from '@/ui/fields/file-settings-field';
import { Meter } from '@/ui/meter';
import { useFraming } from '../framing/framing-state';
import { useSections } from '../sections/sections-provider';
import { DiffersOn, SheetMark } from '../sheet-mark';
import type { SheetHandle } from '../use-sheet';

/** The files that go out: by which settings they are made, what is put right in them, and how far each is. */
export function SiteFiles({ handle }: { handle: SheetHandle }) {
  const { sheet, save } = handle;
  const right = remedyWords(sheet.remedies);
  return (
    <section aria-label="Files that go out" className="mt-4 grid gap-2.5 border-line border-t pt-3">
      <h3>Files that go out</h3>
      <FieldRow
        id="file-settings"
        label="File settings"
        mark={<SheetMark handle={handle} field="file" />}
        below={<DiffersOn handle={handle} field="file" />}
      >
        <FileSettingsField id="file-settings" file={sheet.values.file} onChange={(file) => void save({ file })} />
      </FieldRow>
      {right.length > 0 && (
        <p className="flex flex-wrap items-baseline gap-x-3 text-sm">
          <span>Put right: {right.join(', ')}.</span>
          <button type="button" className="textlink" onClick={() => void save({ remedies: null })}>
            Send it unchanged
          </button>
        </p>
      )}
      <Frames handle={handle} />
      {sheet.renditions.length === 0 && <p className="text-sm text-soft">Tick a channel to see which file it gets.</p>}
      <ul className="grid gap-2">
        {sheet.renditions.map((rendition) => (
          <SiteFile key={`${rendition.says} ${rendition.id ?? ''}`} rendition={rendition} handle={handle} />
        ))}
      </ul>
      <OnDisk sheet={sheet} />
    </section>
  );
}

/** The frames that file settings ask for, and where they are placed. */
function Frames({ handle }: { handle: SheetHandle }) {
  const { shapes, framings } = handle.sheet;
  const { setShape } = useFraming();
  const { goTo } = useSections();
  return shapes.map((shape) => {
    const places = framings[shape]?.placements.length ?? 0;
    return (
      <p key={shape} className="flex flex-wrap items-baseline gap-x-3 text-sm">
        <span className={places === 0 ? 'text-snag' : ''}>
          {places === 0
            ? `▲ The ${shape} file shows the middle of the picture.`
            : `The ${shape} frame is placed at ${places} ${places === 1 ? 'moment' : 'moments'}.`}
        </span>
        <button
          type="button"
          className="textlink"
          onClick={() => {
            setShape(shape);
            goTo('chapters');
          }}
        >
          {places === 0 ? `Place the ${shape} frame` : `Move the ${shape} frame`}
        </button>
      </p>
    );
  });
}

/** How much of the disk the video takes, and what of that could go. */
function OnDisk({ sheet }: { sheet: SheetView }) {
  const made = sheet.renditions.reduce((sum, { state, size }) => sum + (state === 'ready' ? (size ?? 0) : 0), 0);
  if (made === 0 || !sheet.cut) return null;
  const { size, gone } = sheet.cut;
  return (
    <p className="text-[13px] text-soft">
      {gone
        ? `On this disk: ${binarySize(made)} that was made for sites.`
        : `On this disk: ${binarySize(size + made)}; ${binarySize(made)} of it was made for sites and can be made again.`}
    </p>
  );
}

const WORK_WORDS: Record<RenditionView['work'], string> = {
  'as it is': 'Goes as it is',
  container: 'Copied, nothing is encoded again',
  sound: 'Only the sound is encoded',
  encode: 'Encoded',
};

function SiteFile({ rendition, handle }: { rendition: RenditionView; handle: SheetHandle }) {
  const { work, says, leftOut, channels, state, id } = rendition;
  const names = new Intl.ListFormat('en').format(channels.map(({ name }) => name));
  const why = [...new Set(channels.flatMap((channel) => channel.why))];
  const act = (action: RenditionAction) => handle.act(`/api/renditions/${id}`, { method: 'POST', json: { action } });
  return (
    <li className="rounded-lg border border-line px-3 py-2 text-sm [overflow-wrap:anywhere]">
      <p className="flex flex-wrap items-baseline gap-x-2">
        <b className="font-semibold">{names}</b>
        <span>
          {WORK_WORDS[work]}
          {work !== 'as it is' && `: ${says}`}
        </span>
      </p>
      {why.length > 0 && work !== 'as it is' && <p className="text-[13px] text-soft">{sentences(why)}</p>}
      {leftOut.length > 0 && <p className="text-[13px] text-held">{sentences(leftOut)}</p>}
      <How rendition={rendition} gone={handle.sheet.cut?.gone === true} />
      {id && (
        <p className="flex flex-wrap gap-x-3 text-[13px]">
          {(state === 'making' || state === 'waiting') && (
            <>
              <Act says="Hold" of={names} onPress={() => act('hold')} />
              {state === 'waiting' && <Act says="Make it first" of={names} onPress={() => act('first')} />}
              <Act says="Stop making it" of={names} onPress={() => act('stop')} />
            </>
          )}
          {state === 'on hold' && <Act says={BUTTONS.goOn} of={names} onPress={() => act('go on')} />}
          {state === 'ready' && <Act says="Delete this file" of={names} onPress={() => act('delete')} />}
          {state === 'failed' && (
            <Button look="quiet" onClick={() => void act('again')}>
              Make it again
            </Button>
          )}
        </p>
      )}
    </li>
  );
}

function Act({ says, of, onPress }: { says: string; of: string; onPress: () => unknown }) {
  return (
    <button type="button" className="textlink" aria-label={`${says}: file for ${of}`} onClick={() => void onPress()}>
      {says}
    </button>
  );
}

const sentences = (why: readonly string[]) =>
  why.map((each) => `${each.charAt(0).toUpperCase()}${each.slice(1)}.`).join(' ');

/** How far it is, or what is expected of it. */
function How({ rendition, gone }: { rendition: RenditionView; gone: boolean }) {
  const { state, size, seconds, around, progress, expected, trouble, work } = rendition;
  switch (state) {
    case 'ready':
      return (
        <p className="text-[13px] text-live">
          ● Made: {binarySize(size ?? 0)}
          {seconds !== undefined && `, in ${spanName(seconds)}`}
          {around && <span className="block text-soft">{around}</span>}
        </p>
      );
    case 'gone':
      return (
        <p className="text-[13px] text-soft">
          Made, and deleted since to save room.{gone ? '' : ' It is made again if needed.'}
        </p>
      );
    case 'failed':
      return <p className="text-[13px] text-snag">▲ It could not be made: {trouble}.</p>;
    case 'making':
    case 'waiting':
    case 'on hold': {
      const { fraction, secondsLeft } = progress ?? {};
      const left = secondsLeft === undefined ? '' : ` · ${spanName(secondsLeft)} left`;
      const says = state === 'on hold' ? 'On hold' : state === 'waiting' ? 'Waits for its turn' : 'Making the file';
      if (trouble && fraction === undefined) {
        return <p className="text-[13px] text-snag">▲ {trouble}. It goes on by itself.</p>;
      }
      if (fraction === undefined) return <p className="text-[13px] text-soft">{says} …</p>;
      return (
        <div className="mt-1.5">
          <Meter
            share={fraction}
            says={`${says}, ${Math.floor(fraction * 100)} %${left}`}
            look={state === 'on hold' ? 'held' : 'moving'}
          />
        </div>
      );
    }
    default:
      return expected ? (
        <p className="text-[13px] text-soft">
          {[
            work === 'as it is' ? binarySize(expected.size.likely) : `About ${ranged(expected.size, binarySize)}`,
            ...(expected.making.likely > 0 ? [`${ranged(expected.making, spanName)} to make`] : []),
            ...(expected.sending ? [`${ranged(expected.sending, spanName)} to upload`] : []),
          ].join(' · ')}
        </p>
      ) : null;
  }
}

/** A figure that is expected: one where both ends read the same, or from the least to the most. */
function ranged({ least, likely, most }: Range, name: (value: number) => string): string {
  const [from, to] = [name(least), name(most)];
  return from === to ? name(likely) : `${from} to ${to}`;
}
