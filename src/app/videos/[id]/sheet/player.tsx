'use client';

import { Pause, Play } from 'lucide-react';
import { useEffect } from 'react';
import { usePlayer } from './player-state';

/** The cut, playing, with where it stands as timecode and frame. */
export function Player({ cutId }: { cutId: string }) {
  const { video, timecode, frame, speed, setSpeed, setSeconds } = usePlayer();
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
  const running = speed !== 0;
  const toggle = () => setSpeed(running ? 0 : 1);
  return (
    <div className="relative bg-[#0e1620]">
      {/* biome-ignore lint/a11y/useMediaCaption: this is the manager's own cut, before there are captions */}
      <video
        ref={video}
        src={`/api/cuts/${cutId}/file`}
        preload="auto"
        playsInline
        onClick={toggle}
        onEnded={() => setSpeed(0)}
        className="aspect-video w-full"
      />
      <div className="absolute bottom-2.5 left-3 flex items-center gap-2">
        <button
          type="button"
          onClick={toggle}
          aria-label={running ? 'Stop' : 'Play'}
          className="rounded-full bg-[#0e1620cc] p-2 text-white hover:bg-[#0e1620]"
        >
          {running ? <Pause size={18} /> : <Play size={18} />}
        </button>
        <span className="rounded-md bg-[#0e1620cc] px-2 py-1 font-medium font-mono text-white">
          {timecode} · frame {frame}
          {running && speed !== 1 && ` · ${speed}×`}
        </span>
      </div>
    </div>
  );
}
