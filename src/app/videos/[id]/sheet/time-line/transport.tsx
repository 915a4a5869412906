'use client';

import { type FormEvent, useEffect, useRef, useState } from 'react';
import type { Fraction } from '@/core/time';
import { Button } from '@/ui/button';
import { useNotices } from '@/ui/notices';
import { isTyping } from '@/ui/typing';
import { KeyList } from './key-list';
import { usePlayer } from './player-state';
import { again, useTimeLine } from './time-line-state';

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
  const [naming, setNaming] = useState<{ time: Fraction; timecode: string }>();
  const [help, setHelp] = useState(false);
  const keys = useRef<(event: KeyboardEvent) => void>(() => {});

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
  const setIn = () => {
    const time = timeOfCutFrame(player.frame());
    if (player.frame() === 0) {
      say('The video begins at this frame already.');
      return;
    }
    void save({ timeLine: { ...sheet.timeLine, from: time, cutId: sheet.cut?.id } });
    player.seek(0);
    say(
      `The video begins at ${timecode(time)} of the time line now, and its markers stand earlier. Undo takes it back.`,
    );
  };
  const setOut = () => {
    const to = timeOfCutFrame(player.frame() + 1);
    void save({ timeLine: { ...sheet.timeLine, to } });
    say(`The exported range ends at ${timecode(to)} now. Markers after it become no chapters.`);
  };
  const shortcuts: Record<string, (event: KeyboardEvent) => void> = {
    k: () => player.setSpeed(0),
    l: () => player.setSpeed(faster(player.now().speed, 1)),
    j: () => player.setSpeed(faster(player.now().speed, -1)),
    ArrowLeft: (event) => player.seekFrame(player.frame() - (event.shiftKey ? 10 : 1)),
    ArrowRight: (event) => player.seekFrame(player.frame() + (event.shiftKey ? 10 : 1)),
    '[': () => go(-1),
    ']': () => go(1),
    i: setIn,
    o: setOut,
    m: () => setNaming({ time: timeOfCutFrame(player.frame()), timecode: here() }),
    Delete: () => {
      const marker = at();
      if (marker) void change({ remove: [marker.id] });
    },
  };
  keys.current = (event) => {
    if (isTyping(event.target) || event.ctrlKey || event.metaKey || help) return;
    if (event.key === '?') {
      event.preventDefault();
      setHelp(true);
      return;
    }
    if (!sheet.cut?.facts) return;
    const on = (what: string) => event.target instanceof HTMLElement && event.target.closest(what) !== null;
    const arrow = event.key === 'ArrowLeft' || event.key === 'ArrowRight';
    if (event.altKey) {
      if (!arrow) return;
      nudge(event.key === 'ArrowLeft' ? -1 : 1);
    } else if (event.key === ' ') {
      if (on('button, a, select, input, [role=slider]')) return;
      player.setSpeed(player.now().speed === 0 ? 1 : 0);
    } else {
      const does = Object.hasOwn(shortcuts, event.key) ? shortcuts[event.key] : undefined;
      if (!does || (arrow && on('[role=slider], input[type=radio]'))) return;
      does(event);
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
            const colour = sheet.chapterChoice.colours[0] || 'green';
            if (name !== undefined) {
              void change({ put: [{ time: naming.time, name, note: '', colour, kind: 'by choice' }] });
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
