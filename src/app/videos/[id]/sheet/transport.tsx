'use client';

import { Dialog } from 'radix-ui';
import { type FormEvent, useEffect, useRef, useState } from 'react';
import { type Fraction, rate, timeOfFrame } from '@/core/time';
import type { MarkerView } from '@/desk/views';
import { Button } from '@/ui/button';
import { usePlayer } from './player-state';
import { isTyping } from './typing';
import type { SheetHandle } from './use-sheet';

const KEYS: [keys: string, does: string][] = [
  ['Space', 'play, stop'],
  ['L · K · J', 'play on, stop, play backwards; again for double speed'],
  ['← →', 'a frame back, on'],
  ['Shift ← →', 'ten frames'],
  ['[ ]', 'to the marker before, after'],
  ['Alt ← →', 'move the marker at the playhead by a frame'],
  ['+ − 0', 'on the ruler: closer, wider, all of it'],
  ['M', 'a marker at the playhead; type its name, the video plays on'],
  ['Delete', 'take away the marker at the playhead'],
  ['Ctrl Z · Ctrl Shift Z', 'undo, redo'],
  ['?', 'this list'],
];

const FASTEST = 8;

/** The next speed when J or L is pressed: one way from a stand, then double each time. */
function faster(speed: number, direction: 1 | -1): number {
  return speed * direction > 0 ? Math.max(-FASTEST, Math.min(FASTEST, speed * 2)) : direction;
}

/** The trade's keys, wherever the eye is on the Sheet, and the naming of a marker that is put down with M. */
export function Transport({ handle }: { handle: SheetHandle }) {
  const { sheet } = handle;
  const player = usePlayer();
  const [naming, setNaming] = useState<{ time: Fraction; timecode: string }>();
  const [help, setHelp] = useState(false);
  const keys = useRef<(event: KeyboardEvent) => void>(() => {});

  const at = (markers: MarkerView[]) => markers.find((marker) => marker.timecode === player.timecode);
  const go = (direction: 1 | -1) => {
    const others = sheet.markers.filter((marker) => marker.timecode !== player.timecode);
    const ahead = others.filter((marker) => (marker.seconds - player.seconds) * direction > 0);
    const target = direction > 0 ? ahead[0] : ahead.at(-1);
    // Into the frame, so that the one that is shown is the marker's.
    if (target) player.seek(target.seconds + 0.001);
  };
  const nudge = (event: KeyboardEvent, frames: 1 | -1) => {
    const marker = at(sheet.markers);
    const exact = sheet.cut?.facts?.video.rate;
    if (!marker || !exact || player.frame + frames < 0) return;
    event.preventDefault();
    const { id, name, note, colour, hidden } = marker;
    const time = timeOfFrame(player.frame + frames, rate(exact.num, exact.den));
    void handle.changeMarkers({ put: [{ id, name, note, colour, hidden, time }] });
    player.step(frames);
  };
  keys.current = (event) => {
    if (isTyping(event.target) || event.ctrlKey || event.metaKey || help) return;
    if (event.altKey) {
      if (event.key === 'ArrowLeft' || event.key === 'ArrowRight') nudge(event, event.key === 'ArrowLeft' ? -1 : 1);
      return;
    }
    const onControl =
      event.target instanceof HTMLElement && event.target.closest('button, a, select, input, [role=slider]');
    const slider = event.target instanceof HTMLElement && event.target.closest('[role=slider], input[type=radio]');
    switch (event.key) {
      case ' ':
        if (onControl) return;
        player.setSpeed(player.speed === 0 ? 1 : 0);
        break;
      case 'k':
        player.setSpeed(0);
        break;
      case 'l':
        player.setSpeed(faster(player.speed, 1));
        break;
      case 'j':
        player.setSpeed(faster(player.speed, -1));
        break;
      case 'ArrowLeft':
      case 'ArrowRight':
        if (slider) return;
        player.step((event.shiftKey ? 10 : 1) * (event.key === 'ArrowLeft' ? -1 : 1));
        break;
      case '[':
        go(-1);
        break;
      case ']':
        go(1);
        break;
      case 'm':
        if (sheet.cut?.facts) setNaming({ time: player.frameTime, timecode: player.timecode });
        break;
      case 'Delete': {
        const marker = at(sheet.markers);
        if (marker) void handle.changeMarkers({ remove: [marker.id] });
        break;
      }
      case '?':
        setHelp(true);
        break;
      default:
        return;
    }
    event.preventDefault();
  };
  useEffect(() => {
    const listen = (event: KeyboardEvent) => keys.current(event);
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);

  return (
    <>
      {naming && (
        <NameMarker
          timecode={naming.timecode}
          onEnd={(name) => {
            const colour = sheet.chapterColours[0] || 'green';
            if (name !== undefined) {
              void handle.changeMarkers({ put: [{ time: naming.time, name, note: '', colour, hidden: false }] });
            }
            setNaming(undefined);
          }}
        />
      )}
      <KeyList open={help} onOpenChange={setHelp} />
    </>
  );
}

function NameMarker({ timecode, onEnd }: { timecode: string; onEnd: (name: string | undefined) => void }) {
  const [name, setName] = useState('');
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.focus(), []);
  const done = (event: FormEvent) => {
    event.preventDefault();
    onEnd(name.trim());
  };
  return (
    <form
      onSubmit={done}
      className="flex flex-wrap items-center gap-3 border-line border-t bg-copper-wash px-3.5 py-2.5"
    >
      <label htmlFor="marker-name" className="text-sm">
        Marker at <span className="font-mono">{timecode}</span>
      </label>
      <input
        id="marker-name"
        ref={input}
        value={name}
        onChange={(event) => setName(event.target.value)}
        onKeyDown={(event) => event.key === 'Escape' && onEnd(undefined)}
        placeholder="Its name"
        className="min-w-40 flex-1 rounded-lg border border-line bg-card px-3 py-1.5"
      />
      <Button type="submit">Put it down</Button>
    </form>
  );
}

function KeyList({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="enamel fixed top-24 left-1/2 z-50 w-[min(520px,92vw)] -translate-x-1/2 p-6 shadow-xl"
        >
          <Dialog.Title className="mb-3 font-display font-semibold text-lg">Keys</Dialog.Title>
          <dl className="grid grid-cols-[170px_1fr] gap-x-4 gap-y-1.5">
            {KEYS.map(([keys, does]) => (
              <div key={keys} className="contents">
                <dt className="font-mono">{keys}</dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
          <Dialog.Close asChild>
            <Button className="mt-5">Close</Button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
