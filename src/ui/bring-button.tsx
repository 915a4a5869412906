'use client';

import { useRef } from 'react';
import { useArrivals } from './arrivals/arrivals';
import { Button } from './button';
import { BUTTONS } from './button-words';
import { FilePick } from './file-pick';

/** Picks finished files and brings them in. */
export function BringButton() {
  const input = useRef<HTMLInputElement>(null);
  const { bring } = useArrivals();
  return (
    <>
      <FilePick
        input={input}
        label="Finished video files"
        accept="video/*,.mkv,.mov,.mp4,.webm"
        multiple
        onPick={(files) => bring(files)}
      />
      <Button look="press" onClick={() => input.current?.click()}>
        {BUTTONS.addVideos}
      </Button>
    </>
  );
}
