'use client';

import { Pause, Play } from 'lucide-react';
import { type ReactNode, useEffect } from 'react';
import type { SheetView } from '@/desk/views/views';
import { useFromPlayhead, usePlayer } from './player-state';
import { PositionText } from './position-text';
import { ViewerBar } from './viewer-bar';

/** The cut, playing, with its captions, the chapters as viewers get them, and where it stands. */
export function Player({
  cutId,
  captions,
  children,
}: {
  cutId: string;
  captions: SheetView['captions'];
  /** What is laid over the picture. */
  children?: ReactNode;
}) {
  const { video, now, noteSeconds, setSpeed } = usePlayer();
  const speed = useFromPlayhead((at) => at.speed);
  useEffect(() => {
    const player = video.current;
    if (!player) return;
    // Somebody may have gone to a moment while the section was folded.
    if (now().seconds > 0) player.currentTime = now().seconds;
    let handle = 0;
    const follow: VideoFrameRequestCallback = (_now, { mediaTime }) => {
      noteSeconds(mediaTime);
      handle = player.requestVideoFrameCallback(follow);
    };
    handle = player.requestVideoFrameCallback(follow);
    return () => player.cancelVideoFrameCallback(handle);
  }, [video, now, noteSeconds]);
  const running = speed !== 0;
  const toggle = () => setSpeed(running ? 0 : 1);
  return (
    <div className="flex flex-col bg-[#0e1620]">
      <div className="relative">
        {/* biome-ignore lint/a11y/useMediaCaption: this is the manager's own cut, which may have no captions yet */}
        <video
          key={cutId}
          ref={video}
          src={`/api/cuts/${cutId}/file`}
          preload="auto"
          playsInline
          onClick={toggle}
          onEnded={() => setSpeed(0)}
          className="aspect-video w-full"
        >
          {captions.map(({ id, language }, index) => (
            <track
              key={id}
              kind="captions"
              src={`/api/captions/${id}`}
              srcLang={language}
              label={language}
              default={index === 0}
            />
          ))}
        </video>
        {children}
      </div>
      <ViewerBar />
      <div className="flex flex-1 items-center gap-2.5 px-3 py-2 text-white">
        <button
          type="button"
          onClick={toggle}
          aria-label={running ? 'Stop' : 'Play'}
          className="rounded-full p-2 hover:bg-white/15"
        >
          {running ? <Pause size={18} /> : <Play size={18} />}
        </button>
        <PositionText />
      </div>
    </div>
  );
}
