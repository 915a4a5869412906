'use client';

import { type FormEvent, useEffect, useRef, useState } from 'react';
import type { Fraction } from '@/core/time';
import { Button } from '@/ui/button';
import { useNotices } from '@/ui/notices';
import { useSure } from '@/ui/sure';
import { isTyping } from '@/ui/typing';
import { useKeys } from '@/ui/use-keys';
import { useSections } from '../sections/sections-provider';
import { useSheetKeys } from '../sheet-keys';
import { usePlayer } from './player-state';
import { again, useTimeLine } from './time-line-state';
import { TransportButtons } from './transport-buttons';

const FASTEST = 8;

/** The next speed when J or L is pressed: one way from a stand, then double each time. */
function faster(speed: number, direction: 1 | -1): number {
  return speed * direction > 0 ? Math.max(-FASTEST, Math.min(FASTEST, speed * 2)) : direction;
}

/** The trade's keys, wherever the eye is on the Sheet, and the naming of a marker that is put down with M. */
export function Transport() {
  const { handle, markers, change, timecode, timeOfCutFrame } = useTimeLine();
  const { sheet, save } = handle;
  const player = usePlayer();
  const { say } = useNotices();
  const sure = useSure();
  const [naming, setNaming] = useState<{ time: Fraction; timecode: string }>();
  const { isOpen } = useSections();
  const { showKeys } = useSheetKeys();

  const here = () => timecode(timeOfCutFrame(player.frame()));
  const at = () => markers.find((marker) => marker.timecode === here());
  const go = (direction: 1 | -1) => {
    const [code, { seconds }] = [here(), player.now()];
    const ahead = markers.filter(
      (marker) => marker.timecode !== code && !marker.outside && (marker.seconds - seconds) * direction > 0,
    );
    const target = direction > 0 ? ahead[0] : ahead.at(-1);
    // Into the frame, so that the one that is shown is the marker's.
    if (target) player.seek(target.seconds + 0.001);
  };
  const nudge = (frames: 1 | -1) => {
    const marker = at();
    const frame = player.frame() + frames;
    if (!marker || frame < 0) return;
    void change({ put: [{ ...again(marker), time: timeOfCutFrame(frame) }] });
    player.seekFrame(frame);
  };
  /** A range that was set is not moved by a key that was hit by chance. */
  const mayMove = (end: string, set: boolean) =>
    !set ||
    sure({
      title: `Move where the video ${end}?`,
      follows: ['It was set before. Markers and chapters stand elsewhere after that. Undo takes it back.'],
      yes: 'Move it',
    });
  const setIn = async () => {
    const time = timeOfCutFrame(player.frame());
    if (player.frame() === 0) {
      say('The video begins at this frame already.');
      return;
    }
    if (!(await mayMove('begins', sheet.timeLine.from.num !== 0))) return;
    void save({ timeLine: { ...sheet.timeLine, from: time, cutId: sheet.cut?.id } });
    player.seek(0);
    say(
      `The video begins at ${timecode(time)} of the time line now, and its markers stand earlier. Undo takes it back.`,
    );
  };
  const setOut = async () => {
    const to = timeOfCutFrame(player.frame() + 1);
    if (!(await mayMove('ends', sheet.timeLine.to !== undefined))) return;
    void save({ timeLine: { ...sheet.timeLine, to } });
    say(`The exported range ends at ${timecode(to)} now. Markers after it become no chapters.`);
  };
  const put = (time: Fraction, name: string) => {
    const colour = sheet.chapterChoice.colours[0] || 'green';
    void change({ put: [{ time, name, note: '', colour, kind: 'by choice' }] });
  };
  const addMarker = () => {
    const time = timeOfCutFrame(player.frame());
    // While it plays markers are tapped down one after another; they get their names afterwards.
    if (player.now().speed !== 0) put(time, '');
    else setNaming({ time, timecode: here() });
  };
  const shortcuts: Record<string, (event: KeyboardEvent) => void> = {
    k: () => player.setSpeed(0),
    l: () => player.setSpeed(faster(player.now().speed, 1)),
    j: () => player.setSpeed(faster(player.now().speed, -1)),
    ArrowLeft: (event) => player.seekFrame(player.frame() - (event.shiftKey ? 10 : 1)),
    ArrowRight: (event) => player.seekFrame(player.frame() + (event.shiftKey ? 10 : 1)),
    ',': () => nudge(-1),
    '.': () => nudge(1),
    i: () => void setIn(),
    o: () => void setOut(),
    m: addMarker,
    Delete: () => {
      const marker = at();
      if (marker) void change({ remove: [marker.id] });
    },
  };
  useKeys((event) => {
    if (isTyping(event.target) || event.ctrlKey || event.metaKey || !isOpen('chapters')) return;
    if (!sheet.cut?.facts || document.querySelector('[role=dialog], [role=alertdialog]')) return;
    const on = (what: string) => event.target instanceof HTMLElement && event.target.closest(what) !== null;
    const arrow = event.key === 'ArrowLeft' || event.key === 'ArrowRight';
    if (event.altKey) return;
    if (event.key === 'PageUp' || event.key === 'PageDown') {
      // Elsewhere they scroll the page.
      if (event.shiftKey || !on('[data-time-line]')) return;
      go(event.key === 'PageUp' ? -1 : 1);
    } else if (event.key === ' ') {
      if (on('button, a, select, input, [role=slider]')) return;
      player.setSpeed(player.now().speed === 0 ? 1 : 0);
    } else {
      const does = Object.hasOwn(shortcuts, event.key) ? shortcuts[event.key] : undefined;
      if (!does || (arrow && on('[role=slider], input[type=radio]'))) return;
      does(event);
    }
    event.preventDefault();
  });

  return (
    <>
      {sheet.cut?.facts && (
        <TransportButtons
          onAdd={addMarker}
          onBack={() => go(-1)}
          onNext={() => go(1)}
          onIn={() => void setIn()}
          onOut={() => void setOut()}
          onKeys={showKeys}
        />
      )}
      {naming && (
        <NameMarker
          timecode={naming.timecode}
          onEnd={(name) => {
            if (name !== undefined) put(naming.time, name);
            setNaming(undefined);
          }}
        />
      )}
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
        className="min-w-40 flex-1 rounded-lg border border-edge bg-card px-3 py-1.5"
      />
      <Button type="submit">Add it</Button>
    </form>
  );
}
