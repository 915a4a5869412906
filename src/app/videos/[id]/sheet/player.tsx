'use client';

import { Pause, Play } from 'lucide-react';
import { type KeyboardEvent, useEffect, useState } from 'react';
import { usePlayer } from './player-state';

/** The cut, playing. Space plays and stops, the arrows go a frame, with Shift ten. */
export function Player({ cutId }: { cutId: string }) {
  const { video, timecode, frame, setSeconds, step } = usePlayer();
  const [playing, setPlaying] = useState(false);
  useEffect(() => {
    const player = video.current;
    if (!player) return;
    let handle = 0;
    const follow: VideoFrameRequestCallback = (_now, { mediaTime }) => {
      setSeconds(mediaTime);
      handle = player.requestVideoFrameCallback(follow);
    };
    handle = player.requestVideoFrameCallback(follow);
    return () => player.cancelVideoFrameCallback(handle);
  }, [video, setSeconds]);
  const toggle = () => {
    const player = video.current;
    if (player) void (player.paused ? player.play() : player.pause());
  };
  const keys = (event: KeyboardEvent) => {
    if (event.key === ' ') toggle();
    else if (event.key === 'ArrowLeft') step(event.shiftKey ? -10 : -1);
    else if (event.key === 'ArrowRight') step(event.shiftKey ? 10 : 1);
    else return;
    event.preventDefault();
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset is for forms; this is a group of player parts
    <div className="relative bg-[#0e1620]" role="group" aria-label="Player" onKeyDown={keys}>
      {/* biome-ignore lint/a11y/useMediaCaption: this is the manager's own cut, before there are captions */}
      <video
        ref={video}
        src={`/api/cuts/${cutId}/file`}
        preload="auto"
        playsInline
        onClick={toggle}
        onPlay={() => setPlaying(true)}
        onPause={() => setPlaying(false)}
        className="aspect-video w-full"
      />
      <div className="absolute bottom-2.5 left-3 flex items-center gap-2">
        <button
          type="button"
          onClick={toggle}
          aria-label={playing ? 'Stop' : 'Play'}
          className="rounded-full bg-[#0e1620cc] p-2 text-white hover:bg-[#0e1620]"
        >
          {playing ? <Pause size={18} /> : <Play size={18} />}
        </button>
        <span className="rounded-md bg-[#0e1620cc] px-2 py-1 font-medium font-mono text-white">
          {timecode} · frame {frame}
        </span>
      </div>
    </div>
  );
}
